import { describe, expect, test } from '@jest/globals';
import { readJobDocument } from '../document/read.js';
import { lookup } from '../job/lookup.js';
import { newJob } from '../job/new-job.js';
import type { Job } from '../job/schema/job.js';
import { PracticeId } from '../job/schema/primitives.js';
import type { Box } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { Random } from '../test-support/random.js';
import {
  type BoxChange,
  withConductor,
  withEnd,
  withExisting,
  withGangs,
  withLabel,
  withoutCable,
  withoutConductors,
  withoutPosition,
} from './corrections.js';
import { labelContext, labelFor } from './label-context.js';
import { newBox, repeatedBox } from './new-box.js';
import { usualSize } from './new-cable.js';
import { PRESETS } from './preset-list.js';
import { presetContents, presetsFor } from './presets.js';

const ids = () => {
  let serial = 0;
  return () => {
    serial += 1;
    return `id-${serial}`;
  };
};

/** A job of one room with the box in it, whatever the practice. */
function jobWith(box: Box, practice: PracticeId = 'us'): Job {
  const catalogue = { devices: [], hubs: [], parts: [], connectors: [], enclosures: [], platforms: [] };
  return {
    ...newJob('job', 'Job', practice, undefined, catalogue),
    rooms: [{ id: 'r1', name: 'Hall', floor: 0, order: 1 }],
    boxes: [box],
  };
}

const problems = (job: Job) => readJobDocument(JSON.parse(JSON.stringify(job))).problems;

describe.each(PracticeId.options)('in %s', (practice) => {
  test('a new job and a new box are documents without a problem', () => {
    expect(
      problems(jobWith(newBox({ id: 'b1', roomId: 'r1', name: 'Hall', order: 1 }, practice), practice)),
    ).toEqual([]);
  });

  test.each(presetsFor({ practice }).map((preset) => preset.id))(
    '%s is a whole box, in any position',
    (preset) => {
      const box = {
        ...newBox({ id: 'b1', roomId: 'r1', name: 'Hall', order: 1 }, practice),
        ...presetContents({ preset, practice, size: usualSize({ practice }, 20), index: 3 }, ids()),
      };
      expect(problems(jobWith(box, practice))).toEqual([]);
      const gangs = PRESETS.find((entry) => entry.id === preset)?.gangs ?? 0;
      expect(box.positions.map((position) => position.index)).toEqual([3, 4, 5].slice(0, gangs));
      const ends = box.conductors.flatMap((conductor) => conductor.ends ?? [conductor.at]);
      for (const { index } of box.positions)
        expect(ends.filter((end) => end?.position === index).length).toBeGreaterThanOrEqual(2);
      for (const joint of box.joints)
        expect(ends.filter((end) => end?.joint === joint.id).length).toBeGreaterThanOrEqual(2);
    },
  );
});

test('a house of its age is drawn in its own colours, the rest the same', () => {
  const drawn = (scheme: 'today' | 'old') =>
    presetContents({ preset: 'two-way-three-core', practice: 'gb', size: '1.5mm2', index: 1, scheme }, ids());
  expect(drawn('today').conductors.map((conductor) => conductor.colour)).toEqual([
    'brown',
    'black',
    'grey',
    'green-yellow',
  ]);
  expect(drawn('old').conductors.map((conductor) => conductor.colour)).toEqual([
    'red',
    'yellow',
    'blue',
    'bare',
  ]);
  expect(drawn('old').conductors.map((conductor) => conductor.at)).toEqual(
    drawn('today').conductors.map((conductor) => conductor.at),
  );
});

test('two circuits keep their neutrals apart, one shared neutral is one joint', () => {
  const neutralJoints = (preset: 'two-circuits' | 'shared-neutral') => {
    const { conductors } = presetContents({ preset, practice: 'us', size: '12AWG' }, ids());
    return new Set(
      conductors.filter((conductor) => conductor.colour === 'white').map((conductor) => conductor.at?.joint),
    ).size;
  };
  expect(neutralJoints('two-circuits')).toBe(2);
  expect(neutralJoints('shared-neutral')).toBe(1);
});

test('a repeated box is made alike under fresh ids and knows nothing the other was found to be', () => {
  const like = exampleJob('galley').boxes[0] as Box;
  const again = repeatedBox(like, { id: 'b2', roomId: 'r1', name: 'Beside', order: 2 }, ids());
  const used = new Set([...like.conductors, ...like.cables, ...like.joints].map((record) => record.id));
  expect(
    [...again.conductors, ...again.cables, ...again.joints].filter((record) => used.has(record.id)),
  ).toEqual([]);
  expect(again.conductors.map((conductor) => conductor.colour)).toEqual(
    like.conductors.map((conductor) => conductor.colour),
  );
  expect(again).toMatchObject({ labels: [], readings: [], enclosure: like.enclosure });
  expect(
    problems(jobWith({ ...again, roomId: 'r1', circuitIds: [] })).filter(
      (problem) => !problem.path.includes('enclosureId'),
    ),
  ).toEqual([]);
});

describe('corrections', () => {
  const box = () => exampleJob('pantry').boxes[0] as Box;
  const after = (change: (box: Box) => BoxChange, from = box()): Box => ({ ...from, ...change(from) });

  test('a conductor goes with its label and the readings that speak of it', () => {
    const [conductor] = box().conductors;
    const id = conductor?.id ?? '';
    const next = after((from) => withoutConductors(from, new Set([id])));
    expect(JSON.stringify(next)).not.toContain(`"${id}"`);
  });

  test('a cable goes with its conductors; what passed on into it is capped here', () => {
    const from = box();
    const [first, second] = from.cables;
    const through = from.conductors.find(
      (conductor) => conductor.cableId === first?.id,
    ) as Box['conductors'][number];
    const { at, ...rest } = through;
    const passing = { ...rest, unbroken: true, throughCableId: second?.id ?? '' };
    const next = after((old) => withoutCable(old, second?.id ?? ''), {
      ...from,
      conductors: from.conductors.map((conductor) => (conductor.id === through.id ? passing : conductor)),
    });
    expect(next.cables.map((cable) => cable.id)).toEqual([first?.id]);
    expect(next.conductors.find((conductor) => conductor.id === through.id)).toMatchObject({
      at: { capped: true },
    });
  });

  test('gangs bring positions and take the last ones away; their conductors are capped', () => {
    const three = after((from) => withGangs(from, 3));
    expect(three.positions.map((position) => position.index)).toEqual([1, 2, 3]);
    const wired = after(
      (from) => withEnd(from, from.conductors[0]?.id ?? '', 0, { position: 3, terminal: 'a' }),
      three,
    );
    const one = after((from) => withGangs(from, 1), wired);
    expect(one.positions.map((position) => position.index)).toEqual([1]);
    expect(one.conductors[0]?.at).toEqual({ capped: true });
    expect(after((from) => withGangs(from, 1)).positions).toHaveLength(1);
  });

  test('a terminal the new device does not have lets go of its conductor', () => {
    const from = box();
    const position = { ...(from.positions[0] as Box['positions'][number]), existing: 'three-way' as const };
    const next = after(
      (old) => withExisting(old, position.index, position, ['common', 't1', 't2', 'ground']),
      from,
    );
    expect(
      next.conductors.filter(
        (conductor) => conductor.at?.position === 1 && conductor.at.terminal !== 'ground',
      ),
    ).toEqual([]);
  });

  test('a label replaces the one before; not told takes it off', () => {
    const id = box().conductors[0]?.id ?? '';
    const told = after((from) => withLabel(from, { conductorId: id, role: 'spare' }));
    expect(told.labels.filter((label) => label.conductorId === id)).toEqual([
      { conductorId: id, role: 'spare' },
    ]);
    expect(
      after((from) => withLabel(from, { conductorId: id, role: 'unknown' })).labels.some(
        (label) => label.conductorId === id,
      ),
    ).toBe(false);
  });

  test.each([5, 6, 7])('whatever is corrected in whatever order, the box stays whole (seed %i)', (seed) => {
    const random = new Random(seed);
    const newId = ids();
    for (let round = 0; round < 60; round++) {
      let current: Box = {
        ...newBox({ id: 'b1', roomId: 'r1', name: 'Hall', order: 1 }, 'us'),
        ...presetContents({ preset: random.pick(PRESETS).id, practice: 'us', size: '14AWG' }, newId),
      };
      for (let step = 0; step < 8; step++) {
        const conductor = current.conductors.length > 0 ? random.pick(current.conductors) : undefined;
        const changes: ((from: Box) => BoxChange)[] = [
          (from) => withGangs(from, random.int(1, 4)),
          ...(current.cables.length > 0
            ? [(from: Box) => withoutCable(from, random.pick(from.cables).id)]
            : []),
          ...(current.positions.length > 1
            ? [(from: Box) => withoutPosition(from, random.pick(from.positions).index)]
            : []),
          ...(conductor
            ? [
                (from: Box) => withoutConductors(from, new Set([conductor.id])),
                (from: Box) =>
                  withEnd(
                    from,
                    conductor.id,
                    random.chance(0.5) ? 0 : 1,
                    random.pick([{ capped: true as const }, { boxScrew: true as const }]),
                  ),
                (from: Box) => withConductor(from, conductor.id, { colour: 'red', marking: undefined }),
                (from: Box) =>
                  withLabel(from, labelFor(conductor.id, 'line', { loadIds: [], circuitIds: [] })),
              ]
            : []),
        ];
        current = { ...current, ...random.pick(changes)(current) };
        expect({ seed, round, step, problems: problems(jobWith(current)) }).toEqual({
          seed,
          round,
          step,
          problems: [],
        });
      }
    }
  });
});

test('what a label can name follows from where the conductor ends', () => {
  const job = exampleJob('shed');
  const box = job.boxes[0] as Box;
  const known = lookup(job);
  for (const position of box.positions) {
    const own = box.conductors.find((conductor) => conductor.at?.position === position.index);
    expect(labelContext(box, own?.id ?? '', known).loadIds).toEqual(position.loadIds);
  }
  const stairs = exampleJob('stairs');
  expect(labelContext(stairs.boxes[0] as Box, 'foot-link-red', lookup(stairs))).toMatchObject({
    groupId: 'stairs',
  });
  expect(labelFor('w', 'traveler', { loadIds: [], circuitIds: [], groupId: 'stairs', traveler: 2 })).toEqual({
    conductorId: 'w',
    role: 'traveler',
    groupId: 'stairs',
    traveler: 2,
  });
});
