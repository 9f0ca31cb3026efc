import { describe, expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Reading } from '../job/schema/survey.js';
import { type DoubtedPlace, doubtedPlace, followed, seededFault } from '../test-support/doubted-place.js';
import { exampleJob } from '../test-support/examples.js';
import { type PlaceInDoubt, placeInDoubtOf } from './diagnose.js';
import { FAULT_CAUSES, SYMPTOM_KINDS, SYMPTOMS, type Symptoms } from './vocabulary.js';

function bench(change: (job: Job) => void = () => undefined): PlaceInDoubt {
  const job = exampleJob('sail-loft');
  change(job);
  return placeInDoubtOf({ boxId: 'bench', position: 1 }, lookup(job))?.place as PlaceInDoubt;
}

const DARK: Symptoms = { indicator: 'off', control: 'none', load: 'off', breaker: 'holds' };

describe('faults of seeded boxes', () => {
  test('show on the model what they show on plain copper', () => {
    let faults = 0;
    for (let seed = 1, places = 0; places < 40; seed++) {
      const doubted = doubtedPlace(seed);
      if (!doubted) continue;
      places += 1;
      const { plain, found } = doubted;
      const sound = JSON.stringify(plain.symptoms({ cause: 'danger' }));
      for (const fault of plain.faults()) {
        const seen = plain.symptoms(fault);
        if (!seen || JSON.stringify(seen) === sound) continue;
        faults += 1;
        const { causes } = found.diagnosis({ seen, readings: [] }, false);
        const entry = causes.find(({ cause }) => cause === fault.cause);
        expect([seed, fault, entry?.predicts]).toEqual([seed, fault, seen]);
      }
    }
    expect(faults).toBeGreaterThan(300);
  });

  test('show the same where nobody knows which is the line, at a device that takes it either way', () => {
    // A switch loop with one of its two cores labelled.
    const { plain, found } = doubtedPlace(360, false) as DoubtedPlace;
    for (const fault of plain.faults()) {
      const seen = plain.symptoms(fault) as Symptoms;
      const { causes } = found.diagnosis({ seen, readings: [] }, false);
      const entry = causes.find(({ cause }) => cause === fault.cause);
      expect([fault.cause, entry?.predicts]).toEqual([fault.cause, seen]);
    }
  });

  test('are found by the proposed tests, with hardly more than one who knows the fault would need', () => {
    let [count, tests, fewest] = [0, 0, 0];
    for (let seed = 1; count < 60; seed++) {
      const seeded = seededFault(seed);
      if (!seeded) continue;
      count += 1;
      const found = followed(seeded.doubted, seeded.fault, seeded.seen);
      expect([seed, found.cause, found.ends]).not.toContain('wrong');
      tests += found.tests;
      fewest += found.fewest;
      const isStopped = (seeded.seen.breaker ?? 'holds') !== 'holds';
      for (const asked of found.proposed) {
        expect([asked.method, asked.tool]).not.toContain('probed');
        if (isStopped) expect([seed, asked.stage]).toEqual([seed, 'dead']);
        if (asked.tool === 'ohms') expect([seed, Object.values(asked.breakers ?? {})]).not.toContain('on');
      }
    }
    expect(tests / fewest).toBeLessThanOrEqual(1.2);
  });
});

describe('causes', () => {
  test('what contradicts something seen stands below what shows it all, whatever is named', () => {
    const place = bench();
    for (const kind of SYMPTOM_KINDS)
      for (const value of SYMPTOMS[kind]) {
        const { causes } = place.diagnosis({ seen: { [kind]: value }, readings: [] }, false);
        expect(causes.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1);
        const last = causes.findLastIndex(({ fits }) => fits === 'shows');
        const first = causes.findIndex(({ fits }) => fits === 'contradicts');
        if (first >= 0) expect([kind, value, first > last]).toEqual([kind, value, true]);
        for (const { cause, predicts } of causes) {
          expect(FAULT_CAUSES).toContain(cause);
          expect(Object.keys(predicts)).toEqual([kind]);
        }
      }
  });

  test('danger goes to the stop card, and nothing is tried with power on', () => {
    const place = bench();
    for (const seen of [
      { feel: 'heat' },
      { feel: 'tingle' },
      { breaker: 'trips-at-on' },
      { breaker: 'trips-at-switching' },
    ] as Symptoms[]) {
      const { stop, next } = place.diagnosis({ seen, readings: [] });
      expect(stop).toBe(true);
      if (next) expect(Object.values(next.breakers ?? {})).toEqual(['off']);
    }
    expect(place.diagnosis({ seen: DARK, readings: [] }).stop).toBe(false);
    const { causes } = place.diagnosis({ seen: { feel: 'crackle' }, readings: [] });
    expect(causes[0]).toMatchObject({ cause: 'danger', stop: true });
  });

  test('what it was before on this job is likelier now; struck, it is not', () => {
    const chance = (events: object[]) => {
      const place = bench((job) => {
        job.events = [...job.events, ...(events as Job['events'])];
      });
      const { causes } = place.diagnosis({ seen: DARK, readings: [] });
      return causes.find(({ cause }) => cause === 'cut-out-pulled')?.probability ?? 0;
    };
    const was = { id: 'k1', kind: 'cause', boxId: 'rack', at: '2026-05-04T10:00:00Z' };
    const before = chance([]);
    expect(chance([{ ...was, cause: 'cut-out-pulled' }])).toBeGreaterThan(before * 1.5);
    expect(chance([{ ...was, cause: 'line-load-exchanged' }])).toBeLessThan(before);
    expect(
      chance([
        { ...was, cause: 'cut-out-pulled' },
        { id: 'k2', kind: 'correction', of: 'k1' },
      ]),
    ).toBe(before);
  });

  test('a reading counts as it was made, and is not asked for again', () => {
    const place = bench();
    const seen: Symptoms = { indicator: 'on', control: 'none', load: 'on', breaker: 'holds' };
    const { next } = place.diagnosis({ seen, readings: [] });
    expect(next).toMatchObject({ tool: 'lamp', arrangement: 'device-out', points: ['bench-lamp'] });
    const made = (value: Reading['value']): Reading => ({
      id: 'm1',
      at: '2026-05-04T10:00:00Z',
      tool: 'lamp',
      arrangement: 'device-out',
      position: 1,
      breakers: { s4: 'on' },
      points: ['bench-lamp'],
      value,
    });
    const first = (value: Reading['value']) => place.diagnosis({ seen, readings: [made(value)] });
    expect(first('dark').causes[0]?.cause).toBe('relay-welded');
    expect(first('lit').causes[0]?.cause).toBe('line-load-joined');
    expect(first('lit').next?.points).not.toEqual(['bench-lamp']);
    // With the breaker off a lamp that is dark says nothing.
    const off = { ...made('dark'), breakers: { s4: 'off' as const } };
    expect(place.diagnosis({ seen, readings: [off] }).causes[0]?.cause).toBe('line-load-joined');
  });

  test('no place without a device on wires', () => {
    const job = exampleJob('sail-loft');
    expect(placeInDoubtOf({ boxId: 'bench', position: 2 }, lookup(job))).toBeUndefined();
    expect(placeInDoubtOf({ boxId: 'nowhere', position: 1 }, lookup(job))).toBeUndefined();
  });
});
