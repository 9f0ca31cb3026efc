import { expect, test } from '@jest/globals';
import { lookup } from '../../job/lookup.js';
import type { Box } from '../../job/schema/survey.js';
import { hiddenBox } from '../../test-support/hidden-box.js';
import { Random } from '../../test-support/random.js';
import { identifyBox } from '../identify.js';
import { splitBox } from './split.js';

const answered = (
  seed: number,
  gangs: number,
  steps: number,
): { box: Box; identify: (box: Box) => ReturnType<typeof identifyBox> } => {
  const hidden = hiddenBox(new Random(seed), 'us', gangs, true);
  const identify = (box: Box) =>
    identifyBox(box, lookup({ ...hidden.job, boxes: [box, ...hidden.job.boxes.slice(1)] }));
  let { box } = hidden;
  for (let step = 0; step < steps; step++) {
    const [next] = identify(box).next;
    if (!next) break;
    box = { ...box, readings: [...box.readings, hidden.answer(next, `r${step}`)] };
  }
  return { box, identify };
};

/** The same box twice over in one enclosure, nothing of one joined to the other. */
function doubled(box: Box): Box {
  const renamed = JSON.parse(JSON.stringify(box)) as Box;
  const other = (id: string) => `${id}-too`;
  const known = new Set([...box.cables, ...box.conductors, ...box.joints].map((entry) => entry.id));
  const walk = (value: unknown): unknown => {
    if (typeof value === 'string') return known.has(value) ? other(value) : value;
    if (Array.isArray(value)) return value.map(walk);
    if (value && typeof value === 'object')
      return Object.fromEntries(Object.entries(value).map(([key, entry]) => [key, walk(entry)]));
    return value;
  };
  const shift = box.positions.length;
  const second = walk(renamed) as Box;
  const moved = (at: { position?: number | undefined } | undefined) => {
    if (at?.position !== undefined) at.position += shift;
  };
  for (const conductor of second.conductors) {
    moved(conductor.at);
    for (const end of conductor.ends ?? []) moved(end);
  }
  for (const position of second.positions) {
    position.index += shift;
    position.loadIds = [];
    for (const lead of position.leads ?? []) moved(lead.at);
  }
  return {
    ...box,
    enclosure: { ...box.enclosure, gangs: box.enclosure.gangs * 2 },
    cables: [...box.cables, ...second.cables],
    conductors: [...box.conductors, ...second.conductors],
    joints: [...box.joints, ...second.joints],
    positions: [...box.positions, ...second.positions],
  };
}

test.each([1, 2, 3, 4, 5, 6])('every record of a box is in exactly one part (seed %i)', (seed) => {
  const { box } = answered(seed, 1 + (seed % 3), 4);
  const parts = splitBox(box);
  for (const list of ['cables', 'positions', 'readings'] as const) {
    const key = (entry: object) => ('index' in entry ? String(entry.index) : (entry as { id: string }).id);
    expect(parts.flatMap((part) => (part[list] as object[]).map(key)).sort()).toEqual(
      (box[list] as object[]).map(key).sort(),
    );
  }
  expect(parts.flatMap((part) => part.conductors.map((conductor) => conductor.id)).sort()).toEqual(
    box.conductors.map((conductor) => conductor.id).sort(),
  );
});

test('a box beside its double comes apart, and each half is told as if it were alone', () => {
  const { box, identify } = answered(11, 1, 6);
  const both = doubled(box);
  expect(splitBox(both).length).toBe(2 * splitBox(box).length);
  const alone = identify(box).conductors;
  const beside = new Map(identify(both).conductors.map((conductor) => [conductor.id, conductor]));
  for (const conductor of alone)
    expect({
      id: conductor.id,
      role: beside.get(conductor.id)?.role,
      grade: beside.get(conductor.id)?.grade,
    }).toEqual({
      id: conductor.id,
      role: conductor.role,
      grade: conductor.grade,
    });
});

test('one reading between the halves makes them one', () => {
  const { box } = answered(11, 1, 0);
  const both = doubled(box);
  const [first] = box.conductors.filter(
    (conductor) => conductor.cableId !== undefined && conductor.colour === 'black',
  );
  const spanning = {
    ...both,
    readings: [
      ...both.readings,
      {
        id: 'across',
        at: '2026-05-04T09:00:00Z',
        tool: 'ohms',
        method: 'clipped',
        arrangement: 'device-out',
        points: [first?.id, `${first?.id}-too`],
        value: 'open',
        breakers: {},
        switches: {},
      } as unknown as Box['readings'][number],
    ],
  };
  expect(splitBox(spanning).length).toBe(splitBox(both).length - 1);
});
