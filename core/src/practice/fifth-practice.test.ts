import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { assessBox } from '../enclosure/assess.js';
import { ruleNote } from '../findings/words/fill.js';
import { sentence } from '../findings/words/reasons.js';
import { homePlans } from '../homeplan/home-plans.js';
import { identifyBox } from '../identify/identify.js';
import { lookup } from '../job/lookup.js';
import { newJob } from '../job/new-job.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { matchJob } from '../match/match.js';
import { materialsOf } from '../materials/materials.js';
import { powerOf } from '../power/power.js';
import { jobProgress } from '../progress/progress.js';
import { newBox } from '../survey/new-box.js';
import { usualSize, withNewCable } from '../survey/new-cable.js';
import { presetContents, presetsFor } from '../survey/presets.js';
import { exampleJob } from '../test-support/examples.js';
import { addFifthPractice, LATTICE } from '../test-support/fifth-practice.js';
import { cubicInches } from '../units/volume.js';

const practice = LATTICE.id;
let remove = () => {};
beforeAll(() => {
  remove = addFifthPractice();
});
afterAll(() => remove());

let serial = 0;
beforeEach(() => {
  serial = 0;
});
const newId = () => `n${++serial}`;

/**
 * A house of the fifth practice: one box with power at the switch, and the devices of another's catalogue.
 */
const house = (): Job => {
  const { catalogue } = exampleJob('galley');
  const devices = catalogue.devices.map((device) => ({
    ...device,
    practices: [practice],
    volts: [90, 130] as [number, number],
  }));
  const empty = newJob('job', 'Job', practice, undefined, { ...catalogue, devices });
  const box: Box = {
    ...newBox({ id: 'b1', roomId: 'r1', name: 'Hall', order: 1 }, practice, ['c1']),
    ...presetContents(
      {
        preset: 'power-at-switch',
        practice,
        size: usualSize({ practice }, 10),
        loadIds: ['l1'],
      },
      newId,
    ),
  };
  box.enclosure = {
    ...box.enclosure,
    capacity: { from: 'standard', enclosureId: 'lat-1' },
    depth: 60,
  };
  const first = box.conductors[0]?.id as string;
  box.readings = [
    {
      id: 'm1',
      at: '2026-05-04T09:12:00Z',
      tool: 'volts-low-z',
      arrangement: 'device-out',
      position: 1,
      method: 'clipped',
      breakers: { c1: 'on' },
      points: [first, 'reference'],
      value: LATTICE.supply.nominal,
    },
  ];
  return {
    ...empty,
    rooms: [{ id: 'r1', name: 'Hall', floor: 0, order: 1 }],
    circuits: [
      { id: 'c1', panel: 'Main', breaker: '1', label: 'Lights', ...LATTICE.circuit },
    ] as Job['circuits'],
    loads: [{ id: 'l1', name: 'Lamp', roomId: 'r1', kind: 'led', count: 2, wattsEach: 9, dimmable: true }],
    boxes: [box],
  };
};

describe('a fifth practice is one more object, and every engine runs with it', () => {
  test('a new job and box have its connectors, its volumes and its colours', () => {
    const job = house();
    expect(job.brief?.connectors).toEqual(['crimp', 'lever']);
    expect(job.edition).toBeUndefined();
    expect(job.catalogue.enclosures.map(({ id }) => id)).toEqual(['lat-1']);
    const [box] = job.boxes as [Box];
    expect(box.enclosure).toMatchObject({ material: 'metal', grounded: true });
    expect(new Set(box.conductors.map(({ colour }) => colour))).toEqual(new Set(['orange', 'grey', 'green']));
    expect(new Set(box.joints.map(({ connector }) => connector))).toEqual(new Set(['lever']));
    expect(presetsFor({ practice }).length).toBeGreaterThan(5);
    const more = withNewCable(box, { practice }, '2.5mm2', newId);
    expect(more.conductors.slice(-3).map(({ colour }) => colour)).toEqual(['orange', 'grey', 'green']);
  });

  test('the box is counted by its rule, under its clause', () => {
    const job = house();
    const result = assessBox(job.boxes[0] as Box, lookup(job), 'found');
    expect(cubicInches(result.capacityMl as number)).toBeCloseTo(18, 3);
    expect(result.verdict).toBe('ok');
    expect(result.lines.length).toBeGreaterThan(1);
    expect(new Set(result.lines.map(({ clause }) => clause))).toEqual(new Set(['Lattice 7']));
    expect(ruleNote(job)).toContain('Ask the lattice keeper.');
  });

  test('100 V to earth on an orange core are supply, and make it a line', () => {
    const job = house();
    const known = lookup(job);
    const box = job.boxes[0] as Box;
    const { conductors, next } = identifyBox(box, known);
    expect(conductors[0]).toMatchObject({ id: box.conductors[0]?.id, role: 'line' });
    expect(conductors[0]?.probability).toBeGreaterThan(0.9);
    expect(next.length).toBeGreaterThan(0);
    expect(powerOf(job).boxes).toHaveLength(1);
  });

  test('devices are judged, said in its words and units, and planned for', () => {
    const job = house();
    const [place] = matchJob(job);
    expect(place?.devices.length).toBeGreaterThan(0);
    const said = place?.devices.flatMap(({ reasons }) =>
      reasons.map((reason) => sentence(reason, practice)),
    ) as string[];
    expect(said.join('\n')).not.toMatch(/undefined|NaN|\[object/);
    expect(sentence({ code: 'practice.other', facts: {} }, practice)).toBe(
      'It is not made for lattice houses.',
    );
    expect(homePlans(job).length).toBeGreaterThan(0);
    expect(materialsOf(lookup(job)).lines).toBeDefined();
    expect(jobProgress(job)).toHaveLength(1);
  });
});
