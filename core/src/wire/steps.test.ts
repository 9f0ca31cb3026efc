import { describe, expect, test } from '@jest/globals';
import { wireStepWords } from '../findings/words/wire-steps.js';
import { lookup } from '../job/lookup.js';
import type { Job, JobEvent } from '../job/schema/job.js';
import { againstChoice } from '../match/against-choice.js';
import { powerOf } from '../power/power.js';
import { exampleJob } from '../test-support/examples.js';
import { type BoxNow, stepHinders, wiredEvent, wireProgress } from './progress.js';
import { foundWiring, type WireStep, wayBackSteps, wireSteps } from './steps.js';
import { type BoxWiring, wiringOfHouse } from './wiring.js';

function wiringOf(job: Job, boxId?: string): BoxWiring {
  const known = lookup(job);
  const wirings = wiringOfHouse(known, againstChoice(known));
  return wirings.find((wiring) => wiring.boxId === (boxId ?? wiring.boxId)) as BoxWiring;
}
const stepsOf = (job: Job, boxId?: string) => wireSteps(wiringOf(job, boxId), lookup(job));
const kinds = (steps: readonly WireStep[]) => steps.map(({ kind }) => kind);

describe('the steps of a box', () => {
  test('begin dead and photographed, join in the job’s order, and end with the plate', () => {
    const job = exampleJob('pantry');
    const steps = stepsOf(job);
    expect(kinds(steps).slice(0, 3)).toEqual(['prove', 'photograph', 'flags']);
    expect(kinds(steps).at(-1)).toBe('plate');
    const joints = steps.filter(({ kind }) => kind === 'joint').map(({ net }) => net);
    expect(joints).toEqual(['ground', 'neutral:c4', 'line:c4', 'load:l-pantry']);
    const turned = {
      ...job,
      run: { ...job.run, jointOrder: ['line', 'load', 'neutral', 'ground'] as const },
    };
    expect(
      stepsOf(turned as unknown as Job)
        .filter(({ kind }) => kind === 'joint')
        .map(({ net }) => net),
    ).toEqual(['line:c4', 'load:l-pantry', 'neutral:c4', 'ground']);
  });

  test('test before folding, and prove again, unless the job does not want it', () => {
    const job = exampleJob('pantry');
    const steps = kinds(stepsOf(job));
    expect(steps.indexOf('test')).toBeLessThan(steps.indexOf('fold'));
    expect(steps[steps.indexOf('test') + 1]).toBe('prove-again');
    const without = kinds(stepsOf({ ...job, run: { ...job.run, testBeforeFold: false } }));
    expect(without).not.toContain('test');
  });

  test('open a neutral only through the neutral’s gate', () => {
    for (const name of ['pantry', 'galley', 'shed', 'stairs'])
      for (const step of stepsOf(exampleJob(name)))
        if (step.net?.startsWith('neutral:') && (step.kind === 'joint' || step.kind === 'open-joint'))
          expect([name, step.key, step.gate]).toEqual([name, step.key, 'neutral']);
  });

  test('say by the gauge of the device how much is stripped, and what is soft among solid', () => {
    const job = exampleJob('pantry');
    const line = stepsOf(job).find(({ kind, net }) => kind === 'joint' && net === 'line:c4');
    expect(line).toMatchObject({ strip: 12, stranded: ['1.L'] });
  });

  test('have words that name what is in hand, each of them', () => {
    for (const name of ['pantry', 'galley', 'stairs', 'back-bedroom', 'lounge-plate', 'sail-loft']) {
      const job = exampleJob(name);
      const known = lookup(job);
      for (const wiring of wiringOfHouse(known, againstChoice(known)))
        for (const step of wireSteps(wiring, known)) {
          const { title, lines } = wireStepWords(wiring, step, known, 'inch');
          expect([step.kind, title]).not.toEqual([step.kind, '']);
          expect(lines.join(' ')).not.toMatch(/undefined|null|NaN/);
        }
    }
  });

  test('are other steps when the plan is another, and the same when it is not', () => {
    const job = exampleJob('pantry');
    const again = stepsOf(structuredClone(job));
    expect(again.map(({ key }) => key)).toEqual(stepsOf(job).map(({ key }) => key));
    const other = structuredClone(job);
    for (const device of other.catalogue.devices)
      device.terminals = device.terminals.map((terminal) => ({ ...terminal, id: `X${terminal.id}` }));
    const keys = new Set(stepsOf(job).map(({ key }) => key));
    const joints = stepsOf(other).filter(({ kind }) => kind === 'joint');
    expect(joints.every(({ key }) => !keys.has(key))).toBe(true);
    expect(new Set(stepsOf(job).map(({ key }) => key)).size).toBe(stepsOf(job).length);
  });
});

describe('the way back', () => {
  test('makes every joint and terminal as it was found, and takes out what came', () => {
    const job = exampleJob('sail-loft');
    const known = lookup(job);
    const wiring = wiringOf(job, 'bench');
    const steps = wayBackSteps(foundWiring(wiring.box, known), wiring, known);
    expect(kinds(steps)[0]).toBe('prove');
    expect(kinds(steps)).toContain('take-back');
    const joints = steps.filter(({ kind }) => kind === 'joint').map(({ jointId }) => jointId);
    expect(joints.sort()).toEqual(wiring.box.joints.map(({ id }) => id).sort());
    const landed = steps.filter(({ kind }) => kind === 'land').flatMap(({ ends }) => ends);
    for (const { id, at } of wiring.box.conductors)
      if (at?.position !== undefined) expect(landed).toContain(id);
    expect(kinds(steps)).not.toContain('test');
  });
});

describe('how far it is', () => {
  const at = (minute: number) => new Date(Date.UTC(2026, 4, 4, 9, minute)).toISOString();
  const now = (job: Job, boxId: string): BoxNow => {
    const power = powerOf(job, { at: Date.UTC(2026, 4, 4, 12) });
    const box = power.boxes.find((entry) => entry.boxId === boxId);
    if (!box) throw new Error('the box has no power');
    return { job, power: box, circuits: power.circuits };
  };
  const withEvents = (job: Job, ...events: JobEvent[]): Job => ({
    ...job,
    events: [...job.events, ...events],
  });
  const done = (job: Job, minute: number, step: WireStep) =>
    withEvents(job, wiredEvent('pantry', step, { id: `e-${minute}`, at: at(minute) }));

  test('is told by the record, with what each step took', () => {
    let job: Job = { ...exampleJob('pantry'), events: [] };
    const steps = stepsOf(job);
    expect(wireProgress(steps, now(job, 'pantry')).next?.kind).toBe('prove');
    const [, photograph, flags] = steps as [WireStep, WireStep, WireStep];
    job = done(done(job, 0, photograph), 3, flags);
    const progress = wireProgress(steps, now(job, 'pantry'));
    expect(progress.done.get(flags.key)).toMatchObject({ minutes: 3, note: null });
    // Hands were at it: the proof is asked for by the gate of what comes next.
    expect(progress.next?.kind).toBe('release');
    job = withEvents(job, { id: 'c1', kind: 'correction', of: 'e-3', at: at(4) });
    expect(wireProgress(steps, now(job, 'pantry')).next?.key).toBe(flags.key);
  });

  test('a mounted box has none left', () => {
    const job = withEvents(
      { ...exampleJob('pantry'), events: [] },
      { id: 'm', kind: 'mounted', boxId: 'pantry', at: at(9) },
    );
    const { next, done: all } = wireProgress(stepsOf(job), now(job, 'pantry'));
    expect([next, all.size]).toEqual([null, stepsOf(job).length]);
  });

  test('no hand goes in before the proof, and the test is open while its breaker is on', () => {
    const job: Job = { ...exampleJob('pantry'), events: [] };
    const steps = stepsOf(job);
    for (const step of steps)
      expect([step.kind, stepHinders(step, now(job, 'pantry')) === null]).toEqual([
        step.kind,
        step.gate === null,
      ]);
    const on = withEvents(job, { id: 's1', kind: 'switched', circuitId: 'c4', state: 'on', at: at(1) });
    const open = steps
      .filter((step) => stepHinders(step, now(on, 'pantry')) === null)
      .map(({ kind }) => kind);
    expect(open).toContain('test');
    expect(open).not.toContain('joint');
  });
});
