import { describe, expect, test } from '@jest/globals';
import { doubleMetaphone } from 'double-metaphone';
import { lookup } from '../../job/lookup.js';
import type { Job } from '../../job/schema/job.js';
import { exampleJob } from '../../test-support/examples.js';
import { Random } from '../../test-support/random.js';
import { speakingHouse } from '../../test-support/speaking-house.js';
import { folded, heard, soundAlike } from './fold.js';
import { namesOf } from './names.js';

describe('folding', () => {
  test.each([
    ['Tom’s  LAMP!', 'toms lamp'],
    ['ﬁnch ２', 'finch 2'],
    ['dining-room', 'diningroom'],
    ['  É t é ', 'é t é'],
    ['☼ - !', ''],
  ])('%s is heard as %s', (name, said) => expect(folded(name)).toBe(said));

  test('names sound alike by their whole code, or one letter apart when they are long enough', () => {
    const alike = (one: string, other: string) => soundAlike(heard(one), heard(other));
    expect(alike('porch lamp', 'Birch lamp')).toBe(true);
    expect(alike('12', '13')).toBe(false);
    expect(alike('лампа', 'лампы')).toBe(false);
    expect(alike('лампочка', 'лампочки')).toBe(true);
    expect(alike('𐐨𐐩𐐪𐐫𐐬𐐭', '𐐨𐐩𐐪𐐫𐐬𐐮')).toBe(true);
    expect(alike('extraordinary long one', 'extraordinary long two')).toBe(false);
  });
});

/** Distance of Levenshtein by the table, over characters. */
function plainDistance(one: string, other: string): number {
  const [a, b] = [[...one], [...other]];
  let row = b.map((_, at) => at + 1);
  a.forEach((sign, above) => {
    let [corner, left] = [above, above + 1];
    row = row.map((up, at) => {
      const best = Math.min(up + 1, left + 1, corner + (b[at] === sign ? 0 : 1));
      [corner, left] = [up, best];
      return best;
    });
  });
  return row.at(-1) ?? a.length;
}

/** The findings of one list of names, read off the rules one by one and pair by pair. */
function plainFindings(job: Job, nameOf: (id: string) => string | null): Map<string, string[]> {
  const fold = (name: string) =>
    Array.from(name.normalize('NFKC').toLowerCase())
      .filter((sign) => !/\p{P}|\p{S}/u.test(sign))
      .join('')
      .split(/\s+/u)
      .filter((word) => word !== '')
      .join(' ');
  const spoken = (name: string | null) => (name === null || fold(name) === '' ? null : fold(name));
  const channels = job.boxes.flatMap((box) =>
    job.selections
      .filter(({ boxId }) => boxId === box.id)
      .flatMap((selection) => {
        const device = job.catalogue.devices.find(({ id }) => id === selection.deviceId);
        return (device?.channels ?? []).map((channel, nth) => {
          const id = `${box.id}/${selection.position}/${channel.id}`;
          const pairing = job.pairings.find(
            (entry) => entry.boxId === box.id && entry.channel === channel.id,
          );
          return { id, box, device, channel, nth, pairing, name: spoken(nameOf(id)) };
        });
      }),
  );
  const named = [
    ...channels.map(({ id, name }) => ({ id, name })),
    ...(job.things ?? []).map((thing) => ({ id: thing.id, name: spoken(thing.name) })),
  ].filter((entry): entry is { id: string; name: string } => entry.name !== null);
  const answers = new Map<string, string[]>();
  for (const at of channels) {
    const { name, device, box } = at;
    const found: string[] = [];
    answers.set(at.id, found);
    if (name === null) {
      found.push('unnamed');
      continue;
    }
    const usual = 'switch dimmer light lamp fan plug device outlet'.split(' ');
    const bare = name.replace(/ ?\p{Nd}+$/u, '');
    const given = [device?.model, `${device?.maker} ${device?.model}`, at.channel.name ?? ''];
    if (usual.includes(bare) || given.some((one) => fold(one ?? '') === name)) found.push('default');
    const others = named.filter(({ id }) => id !== at.id);
    const same = others.filter((other) => other.name === name).map(({ id }) => id);
    if (same.length > 0) found.push(`duplicate ${same.sort()}`);
    const code = (text: string) => doubleMetaphone(text.replaceAll(' ', ''))[0];
    const long = (text: string) => [...text.replaceAll(' ', '')].length >= 6;
    const alike = others
      .filter(
        (other) =>
          other.name !== name &&
          ((code(name) !== '' && code(name) === code(other.name)) ||
            (long(name) && long(other.name) && plainDistance(name, other.name) === 1)),
      )
      .map(({ id }) => id);
    if (alike.length > 0) found.push(`sounds-alike ${alike.sort()}`);
    const rooms = job.rooms.filter((room) => fold(room.name) === name).map(({ id }) => id);
    if (rooms.length > 0) found.push(`equals-room ${rooms.sort()}`);
    const platforms = (job.brief?.platforms ?? [])
      .map((entry) => job.catalogue.platforms.find((platform) => platform.name === entry.name))
      .filter((platform) => platform && device?.platforms.includes(platform.name));
    for (const platform of platforms)
      if (platform?.reserved?.some((word) => ` ${name} `.includes(` ${fold(word)} `)))
        found.push(`reserved ${platform.name}`);
    for (const platform of platforms) {
      const shown = spoken(at.pairing?.names?.[platform?.name ?? ''] ?? null);
      if (!platform || shown === null || shown === name) continue;
      const looks = (at.pairing?.reached ?? []).filter((look) => look.platform === platform.name);
      const newest = looks
        .map((look) => look.at)
        .sort()
        .at(-1);
      const last = looks.filter((look) => look.at === newest).at(-1);
      if (platform.matching === 'tolerant' || last?.outcome === 'found')
        found.push(`differs ${platform.name}`);
    }
    const replaces = box.positions[0]?.replaces;
    const old = spoken(replaces?.name ?? null);
    const siblings = channels.filter((other) => other.box === box).map((other) => other.name);
    if (old !== null && at.nth === 0 && !siblings.includes(old)) found.push('take-over');
    if (old !== null && old === name && replaces?.removed === false) found.push('old-still-there');
  }
  return answers;
}

const inWords = (entry: ReturnType<typeof namesOf>[number]) =>
  entry.findings.map(({ code, platform, with: ids }) =>
    [code, platform ?? (ids.length > 0 ? [...ids].sort().join() : null)].filter(Boolean).join(' '),
  );
const idOf = ({ boxId, position, channel }: ReturnType<typeof namesOf>[number]) =>
  `${boxId}/${position}/${channel}`;
/** Findings that a suggestion may leave. */
const left = (found: readonly string[] | undefined) =>
  (found ?? []).filter((entry) => !/^(differs|old-still-there)/.test(entry));

describe('houses drawn at random', () => {
  test.each(Array.from({ length: 30 }, (_, seed) => seed))(
    'findings as the rules read one by one, seed %i',
    (seed) => {
      const job = speakingHouse(exampleJob('long-room'), new Random(seed));
      const names = namesOf(lookup(job));
      const own = (id: string) => names.find((entry) => idOf(entry) === id)?.name ?? null;
      const plain = plainFindings(job, own);
      expect(names.map((entry) => [idOf(entry), inWords(entry)])).toEqual(
        names.map((entry) => [idOf(entry), plain.get(idOf(entry))]),
      );
    },
  );

  test.each(Array.from({ length: 14 }, (_, seed) => seed))(
    'what is suggested is free of findings, seed %i',
    (seed) => {
      const job = speakingHouse(exampleJob('long-room'), new Random(seed), 4);
      const known = lookup(job);
      const names = namesOf(known);
      const own = new Map(names.map((entry) => [idOf(entry), entry.name]));
      const all = plainFindings(job, (id) => {
        const entry = names.find((one) => idOf(one) === id);
        return entry?.suggestion ?? entry?.name ?? null;
      });
      for (const entry of names) {
        const id = idOf(entry);
        expect([id, entry.suggestion !== null]).toEqual([id, left(inWords(entry)).length > 0]);
        if (entry.suggestion === null) continue;
        const alone = plainFindings(job, (other) =>
          other === id ? entry.suggestion : (own.get(other) ?? null),
        );
        const old = job.boxes.find(({ id: box }) => box === entry.boxId)?.positions[0]?.replaces?.name ?? '';
        const isOld = entry.suggestion === old;
        // Where the old name has a finding of its own, taking it over may stay.
        const mayStay = (found: string[]) => found.filter((one) => isOld || one !== 'take-over');
        expect([id, mayStay(left(alone.get(id))), mayStay(left(all.get(id)))]).toEqual([id, [], []]);
        if (isOld) continue;
        const words = folded(entry.suggestion).split(' ');
        expect(words.length).toBeLessThanOrEqual(4);
        const box = known.boxes.get(entry.boxId);
        const sources = [
          box?.name,
          known.rooms.get(box?.roomId ?? '')?.name,
          ...job.loads.map(({ name }) => name),
        ];
        const near = new Set(sources.flatMap((text) => folded(text ?? '').split(' ')));
        expect(words.some((word) => near.has(word))).toBe(true);
      }
    },
  );

  test('the old name is taken over as it stands where nothing speaks against it', () => {
    const job = speakingHouse(exampleJob('long-room'), new Random(3), 1);
    const position = job.boxes[0]?.positions[0];
    if (position) position.replaces = { name: 'The  Lantern over the old Mantel', removed: true };
    const [first] = namesOf(lookup(job));
    expect(first?.suggestion).toBe('The  Lantern over the old Mantel');
  });
});
