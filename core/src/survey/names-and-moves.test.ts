import { describe, expect, test } from '@jest/globals';
import type { Box } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { cableNames, cableWords, conductorTitle, conductorWords } from './conductor-names.js';
import { keptAsPreset, likeThatOne } from './like-that-one.js';
import { manyBoxesParts } from './many-boxes.js';
import { movedEnd, splitJoint } from './moves.js';
import { newBox } from './new-box.js';
import { presetContents, presetsInOrder, withPreset } from './presets.js';

const ids = () => {
  let serial = 0;
  return () => `id-${++serial}`;
};
const boxWith = (preset: Parameters<typeof presetContents>[0]['preset'], more: Partial<Box> = {}): Box => {
  const empty = newBox({ id: 'b', roomId: 'r', name: 'Hall', order: 1 }, 'us', ['c1']);
  const made = presetContents({ preset, practice: 'us', size: '14AWG' }, ids());
  return { ...empty, ...withPreset(empty, made), ...more };
};
const panel = {
  circuits: ['1', '7'].map((breaker) => ({
    ...exampleJob('pantry').circuits[0],
    id: `c${breaker}`,
    breaker,
  })),
} as Parameters<typeof conductorWords>[2];

describe('names', () => {
  test('two cables never have one name, whatever they are called', () => {
    for (const preset of ['power-at-switch', 'feed-through', 'two-circuits'] as const) {
      const box = boxWith(preset);
      const called: Box = { ...box, cables: box.cables.map((cable) => ({ ...cable, label: 'feed' })) };
      const names = called.cables.map(({ id }) => cableWords(called, id, panel));
      expect(new Set(names).size).toBe(names.length);
      const wires = called.conductors.map(({ id }) => conductorWords(called, id, panel));
      expect(new Set(wires).size).toBe(wires.length);
    }
  });
  test('before anything is said a cable is a cable; a label makes it a feed; entry and breaker tell it apart', () => {
    const box = boxWith('two-circuits', { circuitIds: ['c1', 'c7'] });
    expect(cableNames(box).map(({ word, letter }) => `${word} ${letter}`)).toEqual([
      'cable A',
      'cable B',
      'cable C',
      'cable D',
    ]);
    const [first] = box.conductors;
    const told: Box = {
      ...box,
      cables: box.cables.map((cable, at) => ({ ...cable, entry: at === 0 ? 'top' : 'bottom' })),
      labels: [{ conductorId: first?.id ?? '', role: 'line', circuitId: 'c7' }],
    };
    expect(cableWords(told, told.cables[0]?.id ?? '', panel)).toBe('feed A (top, breaker 7)');
    expect(conductorTitle(told, first?.id ?? '', panel)).toBe(
      'Black, feed A (top, breaker 7), first from left',
    );
  });
  test('two of one colour in one cable are told apart by their order', () => {
    const box = boxWith('power-at-switch');
    const [, white] = box.conductors;
    const twice: Box = {
      ...box,
      conductors: box.conductors.map((one) => (one.id === white?.id ? { ...one, colour: 'black' } : one)),
    };
    expect(conductorWords(twice, white?.id ?? '', panel)).toBe('the second black of cable A');
    expect(conductorWords(twice, 'reference', panel)).toBe('a known earth');
  });
});

describe('ends moved', () => {
  const making = { job: { practice: 'us' as const }, newId: ids() };
  const of = (box: Box, at: number) => box.conductors[at] as Box['conductors'][number];
  test('to where another end is: its joint, its terminal; two capped ends become a joint', () => {
    const box = boxWith('power-at-switch');
    const black = { conductorId: of(box, 0).id, end: 0 as const };
    const joined: Box = { ...box, ...movedEnd(box, black, { conductorId: of(box, 1).id, end: 0 }, making) };
    expect(of(joined, 0).at).toEqual(of(joined, 1).at);
    const capped: Box = { ...box, ...movedEnd(box, black, { capped: true }, making) };
    const both: Box = {
      ...capped,
      ...movedEnd(capped, { conductorId: of(box, 3).id, end: 0 }, { capped: true }, making),
    };
    const made: Box = { ...both, ...movedEnd(both, black, { conductorId: of(box, 3).id, end: 0 }, making) };
    expect(made.joints).toHaveLength(box.joints.length + 1);
    expect(of(made, 0).at).toEqual({ joint: made.joints.at(-1)?.id });
    expect(of(made, 3).at).toEqual(of(made, 0).at);
  });
  test('the last out of a joint leaves no joint behind', () => {
    const box = boxWith('power-at-switch');
    let now = box;
    for (const at of [1, 4])
      now = { ...now, ...movedEnd(now, { conductorId: of(box, at).id, end: 0 }, { capped: true }, making) };
    expect(now.joints).toHaveLength(box.joints.length - 1);
  });
  test('some of a joint go into one of their own, on a connector of the same kind', () => {
    const box = boxWith('feed-through');
    const [joint] = box.joints;
    const members = box.conductors.filter(({ at, ends }) =>
      [at, ...(ends ?? [])].some((end) => end?.joint === joint?.id),
    );
    const apart = new Set([members[0]?.id ?? '']);
    const split: Box = { ...box, ...splitJoint(box, joint?.id ?? '', apart, making) };
    expect(split.joints).toHaveLength(box.joints.length + 1);
    expect(split.joints.at(-1)?.connector).toBe(joint?.connector);
    expect(split.conductors.find(({ id }) => apart.has(id))?.at).toEqual({ joint: split.joints.at(-1)?.id });
  });
});

describe('boxes made alike', () => {
  test('like that one: fresh ids throughout, labels as guesses, nothing of what was read', () => {
    const like = exampleJob('pantry').boxes[0] as Box;
    const box = newBox({ id: 'n', roomId: 'r', name: 'New', order: 2 }, 'us');
    const made: Box = { ...box, ...likeThatOne(box, like, ids()) };
    const old = new Set([...like.conductors, ...like.cables, ...like.joints].map(({ id }) => id));
    expect([...made.conductors, ...made.cables, ...made.joints].some(({ id }) => old.has(id))).toBe(false);
    expect(made.guesses?.map(({ role }) => role)).toEqual(like.labels.map(({ role }) => role));
    expect(made.enclosure).toEqual(like.enclosure);
    expect([made.labels, made.readings]).toEqual([[], []]);
  });
  test('what is kept for later names nothing of the job', () => {
    const job = exampleJob('galley');
    const box = job.boxes[0] as Box;
    const text = JSON.stringify(keptAsPreset(box));
    for (const { id } of [...job.loads, ...job.circuits]) expect(text).not.toContain(`"${id}"`);
  });
  test('a preset of three on one plate brings its positions, and the plate stays one gang', () => {
    const empty = newBox({ id: 'b', roomId: 'r', name: 'Hall', order: 1 }, 'gb');
    const made = presetContents({ preset: 'three-on-plate', practice: 'gb', size: '1.5mm2' }, ids());
    const box: Box = { ...empty, ...withPreset(empty, made) };
    expect(box.positions.map(({ index, gang, yoke }) => [index, gang, yoke])).toEqual([
      [1, 1, 1],
      [2, 1, 1],
      [3, 1, 1],
    ]);
    expect(box.enclosure.gangs).toBe(1);
    const modules = newBox({ id: 'b', roomId: 'r', name: 'Hall', order: 1 }, 'modular');
    const three = presetContents({ preset: 'three-modules', practice: 'modular', size: '1.5mm2' }, ids());
    expect({ ...modules, ...withPreset(modules, three) }.enclosure.gangs).toBe(3);
  });
  test('presets that boxes of the room already are come first', () => {
    const box = newBox({ id: 'n', roomId: 'r', name: 'New', order: 2 }, 'us');
    const job = { ...exampleJob('pantry'), boxes: [boxWith('feed-through'), box] };
    expect(presetsInOrder(box, job)[0]?.id).toBe('feed-through');
    expect(presetsInOrder(box, { ...job, boxes: [box] })[0]?.id).toBe('power-at-switch');
  });
  test('many boxes at once: one part each, none where it is so already', () => {
    const one = boxWith('switch-loop');
    const parts = manyBoxesParts([one, { ...one, id: 'c', roomId: 'elsewhere' }], { roomId: 'elsewhere' });
    expect(parts.map(({ id }) => id)).toEqual(['b']);
    expect(manyBoxesParts([one], {})).toEqual([]);
  });
});
