import { expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import type { Job, JobEvent } from '../job/schema/job.js';
import { powerOf } from '../power/power.js';
import { bareStep } from '../test-support/bare-step.js';
import { exampleJob } from '../test-support/examples.js';
import type { WireStep } from '../wire/steps.js';
import { batchStands, openElsewhere, type RunStep } from './batch-steps.js';
import { holdEvent } from './site-record.js';

const START = Date.parse('2026-05-04T08:00:00Z');
const STEPS = [bareStep('joint'), bareStep('test', 'energise'), bareStep('fold'), bareStep('plate')];

/** Two boxes of one panel on circuits of their own: what is recorded, one thing after another. */
class Morning {
  private readonly events: JobEvent[] = [];
  ready = true;

  constructor(private readonly steps: readonly WireStep[] = STEPS) {}

  record(
    ...kinds: (Partial<JobEvent> & { kind: string; step?: string; position?: number; result?: string })[]
  ) {
    for (const event of kinds) {
      const at = new Date(START + this.events.length * 60_000).toISOString();
      this.events.push({ id: `e${this.events.length}`, at, ...event });
    }
    return this;
  }

  switched(state: 'on' | 'off') {
    return this.record(
      ...['s1', 's2', 's4', 's5'].map((circuitId) => ({ kind: 'switched', circuitId, state })),
    );
  }

  done(...steps: string[]) {
    for (const boxId of ['foot', 'bench'])
      for (const name of steps) this.record({ kind: 'wired', boxId, step: name });
    return this;
  }

  /** Boxes outside the batch that are open where power comes on. */
  openAt(to: 'on' | 'off') {
    return openElsewhere(
      { kind: 'switch', circuitIds: ['s1', 's2', 's4', 's5'], to, for: 'test' },
      this.batch('me'),
    );
  }

  stands(by = 'me') {
    return batchStands(this.batch(by));
  }

  private batch(by: string) {
    const job: Job = { ...exampleJob('sail-loft'), events: [...this.events] };
    const boxes = ['foot', 'bench'].map((boxId) => ({ boxId, steps: this.steps, ready: this.ready }));
    return { boxes, known: lookup(job), power: powerOf(job, { now: START + 3_600_000 }), by };
  }
}

const what = (next: RunStep) =>
  next.kind === 'switch'
    ? `switch ${next.to}`
    : next.kind === 'wire'
      ? `${next.boxId} ${next.step.kind}`
      : next.kind;

test('off, wire, on, test, off, close, on, try: a trip for each change, at each panel', () => {
  const morning = new Morning();
  const panels = new Set(
    exampleJob('sail-loft')
      .circuits.filter(({ id }) => ['s1', 's4'].includes(id))
      .map(({ panel }) => panel),
  ).size;
  const seen: [string, number][] = [];
  const look = () => {
    const { next, tripsLeft } = morning.stands();
    seen.push([what(next), tripsLeft / panels]);
  };
  look();
  morning.switched('off');
  look();
  morning.done('joint');
  look();
  morning.switched('on');
  look();
  morning.done('test');
  look();
  morning.switched('off');
  look();
  morning
    .done('fold', 'plate')
    .record({ kind: 'mounted', boxId: 'foot' }, { kind: 'mounted', boxId: 'bench' });
  look();
  morning.switched('on');
  look();
  expect(seen).toEqual([
    ['switch off', 4],
    ['foot joint', 3],
    ['switch on', 3],
    ['foot test', 2],
    ['switch off', 2],
    ['foot fold', 1],
    ['switch on', 1],
    ['try', 0],
  ]);
});

test('without a test before folding a batch is off and on', () => {
  const morning = new Morning([bareStep('joint'), bareStep('fold')]);
  const { tripsLeft } = morning.stands();
  expect(tripsLeft).toBe(morning.switched('off').stands().tripsLeft * 2);
});

test('what is in hand goes on first; what another holds is left to them', () => {
  const morning = new Morning().switched('off');
  morning.record(holdEvent('taken', 'bench', { id: 'h1', at: '2026-05-04T08:30:00Z', by: 'me' }));
  expect(what(morning.stands('me').next)).toBe('bench joint');
  expect(what(morning.stands('other').next)).toBe('foot joint');
  morning.record(holdEvent('taken', 'foot', { id: 'h2', at: '2026-05-04T08:30:00Z', by: 'other' }), {
    kind: 'wired',
    boxId: 'bench',
    step: 'joint',
  });
  expect(morning.stands('me').next).toEqual({ kind: 'wait', boxIds: ['foot'] });
  expect(what(morning.stands('other').next)).toBe('foot joint');
});

test('a box that is not ready is found out first', () => {
  const morning = new Morning().switched('off');
  morning.ready = false;
  expect(what(morning.stands().next)).toBe('identify');
});

test('with every device seen to work nothing is left', () => {
  const morning = new Morning().done('joint', 'test', 'fold', 'plate').switched('on');
  morning.record({ kind: 'mounted', boxId: 'foot' }, { kind: 'mounted', boxId: 'bench' });
  expect(what(morning.stands().next)).toBe('try');
  for (const boxId of ['foot', 'bench'])
    morning.record({ kind: 'tried', boxId, position: 1, result: 'works' });
  expect(morning.stands()).toMatchObject({ next: { kind: 'done' }, tripsLeft: 0 });
});

test('what is open outside the batch is named before power comes on', () => {
  const morning = new Morning().switched('off');
  expect(morning.openAt('on')).toEqual([]);
  morning.record(holdEvent('taken', 'rack', { id: 'h1', at: '2026-05-04T08:30:00Z', by: 'other' }));
  expect(morning.openAt('on')).toEqual(['rack']);
  expect(morning.openAt('off')).toEqual([]);
  morning.record({ kind: 'mounted', boxId: 'rack' });
  expect(morning.openAt('on')).toEqual([]);
});
