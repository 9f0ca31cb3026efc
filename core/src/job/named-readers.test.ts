import { describe, expect, test } from '@jest/globals';
import { boxCapacity, contentsAsFound } from '../enclosure/as-found.js';
import { sentence } from '../findings/words/reasons.js';
import { matchJob } from '../match/match.js';
import { provedVolts } from '../power/instant.js';
import { materialStops } from '../power/material-stops.js';
import { GB } from '../practice/gb.js';
import { MODULAR } from '../practice/modular.js';
import { USUAL_LENGTH } from '../practice/wire.js';
import { withNewCable } from '../survey/new-cable.js';
import { exampleJob } from '../test-support/examples.js';
import { minorOf, moneyAmount, moneyText } from '../units/money.js';
import { plural } from '../units/plural.js';
import { wireSizeText } from '../units/wire-size.js';
import { planJoints } from '../wire/plan.js';
import { isAluminium, reachableCores, untoldCores } from './conductors.js';
import { EventRecord, lastSwitching, mountedBoxes } from './events.js';
import { lookup } from './lookup.js';
import type { Job } from './schema/job.js';
import type { Box } from './schema/survey.js';

const galley = () => {
  const job = exampleJob('galley');
  return { job, box: job.boxes[0] as Box };
};

describe('capacity', () => {
  test('of two device boxes ganged is twice the listed one, and a ring adds to it', () => {
    const { job, box } = galley();
    job.catalogue.enclosures = [
      { id: 'dev', practice: 'us', name: 'Device', in3: 14, gangs: 1, depth: 70, material: 'metal' },
    ];
    box.enclosure = {
      ...box.enclosure,
      gangs: 2,
      material: 'metal',
      capacity: { from: 'standard', enclosureId: 'dev' },
      rings: [{ mL: 50, depth: 16 }],
    };
    expect(boxCapacity(box, job).ml).toBeCloseTo(2 * 14 * 16.387064 + 50, 6);
    expect(contentsAsFound(box, lookup(job)).capacity).toEqual(boxCapacity(box, job));
  });

  test('that nobody read is null, not 0', () => {
    const { job, box } = galley();
    box.enclosure = { ...box.enclosure, capacity: { from: 'marked', mL: 0 } };
    expect(boxCapacity(box, job)).toEqual({ ml: null, standing: false });
  });
});

test('the margin is the one the job set, in the verdict and in the words', () => {
  const said = (margin: number): string[] => {
    const job: Job = {
      ...galley().job,
      overrides: [{ figure: 'loads.margin', value: margin, note: 'ours' }],
    };
    for (const load of job.loads) Object.assign(load, { kind: 'led', count: 1, wattsEach: 75 });
    for (const device of job.catalogue.devices)
      for (const channel of device.channels) channel.ratings = [{ kinds: ['led'], limit: [100], unit: 'W' }];
    return matchJob(job).flatMap(({ devices }) =>
      devices.flatMap(({ reasons }) =>
        reasons.filter(({ code }) => code === 'rating.margin').map((reason) => sentence(reason, 'us')),
      ),
    );
  };
  expect(said(0.8)).toEqual([]);
  expect(said(0.6).length).toBeGreaterThan(0);
  for (const text of said(0.6)) expect(text).toMatch(/75 % .* design margin of 60 %/);
});

describe('events that a correction struck', () => {
  const at = (minute: number) => `2026-05-04T09:${String(minute).padStart(2, '0')}:00Z`;
  const events = [
    { id: 'p1', kind: 'proved', boxId: 'b', at: at(1), volts: 118 },
    { id: 'p2', kind: 'proved', boxId: 'b', at: at(2), volts: 240 },
    { id: 's1', kind: 'switched', circuitId: 'c', state: 'off', at: at(3) },
    { id: 's2', kind: 'switched', circuitId: 'c', state: 'on', at: at(4) },
    { id: 'm1', kind: 'mounted', boxId: 'b', at: at(5) },
    { id: 'x1', kind: 'correction', of: 'p2', at: at(6) },
    { id: 'x2', kind: 'correction', of: 's2', at: at(7) },
    { id: 'x3', kind: 'correction', of: 'm1', at: at(8) },
  ] as Job['events'];
  const job = { events, boxes: [{ id: 'b' }] } as Job;

  test('a struck proof tells no supply voltage', () => {
    expect(provedVolts(new EventRecord(job), 'b')).toBe(118);
  });

  test('a struck switching is not the last, a struck mounting mounts nothing', () => {
    expect(lastSwitching(job, 'c')?.id).toBe('s1');
    expect(mountedBoxes(job)).toEqual(new Set());
    expect(mountedBoxes({ ...job, events: events.slice(0, 5) })).toEqual(new Set(['b']));
  });
});

describe('conductors', () => {
  test('a new cable has the colours of its practice, each of its own', () => {
    let serial = 0;
    const cable = (practice: 'us' | 'gb' | 'modular') =>
      withNewCable(
        { cables: [], conductors: [] },
        { practice },
        '1.5mm2',
        () => `n${++serial}`,
      ).conductors.map(({ colour }) => colour);
    expect(cable('us')).toEqual(['black', 'white', 'bare']);
    expect(cable('modular')).toEqual(['red', 'black', 'green']);
    expect(cable('modular')).not.toContain('white');
    expect(cable('gb')).toEqual(['brown', 'blue', GB.colours.today.ground]);
    expect(MODULAR.colours.old).toBeNull();
  });

  test('aluminium and copper-clad stop alike: no connector is planned or found to take them', () => {
    expect(
      ['aluminium', 'copper-clad', 'copper', undefined].map((material) =>
        isAluminium({ material } as { material: 'copper' }),
      ),
    ).toEqual([true, true, false, false]);
    expect(materialStops({ material: 'copper-clad', insulation: 'cloth' })).toEqual(['copper-clad', 'cloth']);
    const joints = (material: 'copper' | 'aluminium' | 'copper-clad') => {
      const { job, box } = galley();
      for (const conductor of box.conductors) conductor.material = material;
      return planJoints(box, [], lookup(job)).joints.map(({ connector }) => connector?.id ?? null);
    };
    expect(joints('copper-clad')).toEqual(joints('aluminium'));
  });

  test('a label `unknown` tells nothing; grounds by colour are not asked for', () => {
    const { box } = galley();
    box.labels = [];
    const all = untoldCores(box).length;
    const [first] = untoldCores(box);
    box.labels = [{ conductorId: first?.id as string, role: 'unknown' }];
    expect(untoldCores(box)).toHaveLength(all);
    box.labels = [{ conductorId: first?.id as string, role: 'line' }];
    expect(untoldCores(box)).toHaveLength(all - 1);
    expect(untoldCores(box).some(({ colour }) => colour === 'bare')).toBe(false);
  });

  test('what passes through unbroken cannot be reached, a labelled ground neither', () => {
    const { box } = galley();
    box.labels = [];
    const [first, second] = reachableCores(box);
    Object.assign(first as object, { unbroken: true });
    box.labels = [{ conductorId: second?.id as string, role: 'ground' }];
    const left = reachableCores(box).map(({ id }) => id);
    expect(left).not.toContain(first?.id);
    expect(left).not.toContain(second?.id);
  });

  test('what nobody measured has one length, in the count as found and in the plan', () => {
    const { job, box } = galley();
    for (const conductor of box.conductors) delete conductor.freeLength;
    const { conductors } = contentsAsFound(box, lookup(job));
    expect(new Set(conductors.map(({ length }) => length))).toEqual(new Set([USUAL_LENGTH]));
    const made = planJoints(box, [], lookup(job)).made.map(({ length }) => length);
    for (const length of made) expect(length).toBe(USUAL_LENGTH);
  });
});

describe('as text', () => {
  test.each([
    [3900, 'USD', '$39.00'],
    [123450, 'USD', '$1,234.50'],
    [3900, 'JPY', '¥3,900'],
    [3900, 'KWD', 'KWD\u00a03.900'],
    [3900, undefined, '39.00'],
    [3900, 'shells', '39.00 shells'],
  ])('%d minor units of %s are %s, and come back as they went', (minor, currency, text) => {
    expect(moneyText(minor, currency)).toBe(text);
    expect(minorOf(moneyAmount(minor, currency), currency)).toBe(minor);
  });

  test.each([
    ['14AWG', '14 AWG'],
    ['1.5mm2', '1.5 mm²'],
    ['14AWG, 2 insulated bonding among them', '14 AWG, 2 insulated bonding among them'],
  ])('%s is written %s', (size, text) => {
    expect(wireSizeText(size)).toBe(text);
  });

  test('one is one, none and many are several', () => {
    expect([plural(0, 'side'), plural(1, 'box', 'boxes'), plural(3, 'box', 'boxes')]).toEqual([
      '0 sides',
      '1 box',
      '3 boxes',
    ]);
  });
});
