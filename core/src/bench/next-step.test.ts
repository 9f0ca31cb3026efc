import { describe, expect, test } from '@jest/globals';
import type { NextTest } from '../identify/asking/next-tests.js';
import { identifyBox } from '../identify/identify.js';
import { type JobLookup, lookup } from '../job/lookup.js';
import type { Job, JobEvent } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { powerOf, powerOfBox } from '../power/power.js';
import { provedEvent, provingHinders, provingRound } from '../power/prove.js';
import { readingGate } from '../power/reading-gate.js';
import { boxProgress } from '../progress/progress.js';
import { newBox } from '../survey/new-box.js';
import { presetContents, withPreset } from '../survey/presets.js';
import { exampleJob } from '../test-support/examples.js';
import { someBox } from '../test-support/followed.js';
import { type BoxInHand, nextStep, skipKey, stepKey } from './next-step.js';
import { standsEvent, standsNow } from './stands.js';
import type { NextStep } from './vocabulary.js';

/** A box worked on as the bar asks, by a hand that does each thing it is asked. */
class Hand {
  job: Job;
  private readonly boxId: string;
  private serial = 0;
  private instant = Date.parse('2026-05-04T09:00:00Z');
  switches: Record<string, string> = {};
  out: string[] = [];
  clips: string[] = [];
  stoodClear = false;
  by: 'eye' | 'test' = 'test';
  readonly skipped = new Set<string>();

  constructor(job: Job, boxId: string) {
    this.job = job;
    this.boxId = boxId;
  }

  readonly id = () => `made-${++this.serial}`;
  at(): string {
    this.instant += 1000;
    return new Date(this.instant).toISOString();
  }
  get box(): Box {
    return this.job.boxes.find(({ id }) => id === this.boxId) as Box;
  }
  get known(): JobLookup {
    return lookup(this.job);
  }
  set(more: Partial<Box>): void {
    this.job = {
      ...this.job,
      boxes: this.job.boxes.map((box) => (box.id === this.boxId ? { ...box, ...more } : box)),
    };
  }
  event(event: JobEvent): void {
    this.job = { ...this.job, events: [...this.job.events, event] };
  }
  /** What the bar knows now. */
  inHand(): BoxInHand {
    const { box, known, switches, out, clips, stoodClear, by, skipped } = this;
    const options = { now: this.instant, confirmedOf: () => new Map() };
    const { circuits, boxes } = powerOf(this.job, options);
    return {
      box,
      known,
      power: powerOfBox(this.job, box, options),
      circuits,
      powerOfBoxes: boxes,
      progress: boxProgress(box, known),
      said: identifyBox(box, known),
      stands: standsNow(box, this.job),
      switches,
      out,
      clips,
      stoodClear,
      by,
      skipped,
    };
  }
  switched(circuitId: string, state: 'on' | 'off'): void {
    this.event({ id: this.id(), at: this.at(), kind: 'switched', circuitId, state });
  }
  prove(stage: 'face' | 'device-out', { powerOfBoxes }: BoxInHand, boxId = this.boxId): void {
    const box = this.job.boxes.find(({ id }) => id === boxId) as Box;
    const power = powerOfBoxes.find((entry) => entry.boxId === boxId) as BoxInHand['power'];
    const { earth, neutral, lines } = provingRound(box);
    const made = {
      id: this.id(),
      at: this.at(),
      stage,
      volts: 119,
      voltsAfter: 119,
      under5: [...earth, ...neutral, ...lines],
    };
    const event = provedEvent(box, this.job, power, made);
    if (event) this.event(event);
  }
}

/** Does what a step asks, except for what only an eye can tell. @returns whether it could */
function did(hand: Hand, step: NextStep, now: BoxInHand): boolean {
  switch (step.kind) {
    case 'breaker':
      if (step.handsOff) hand.stoodClear = true;
      if (step.clips.length > 0) hand.clips = step.clips;
      hand.switched(step.circuitId, step.to);
      return true;
    case 'prove':
      if (provingHinders(now.power).length > 0) return false;
      hand.prove(step.stage, now, step.boxId ?? undefined);
      return true;
    case 'stands':
      hand.event(standsEvent(step.boxId ?? hand.box.id, step.to, { id: hand.id(), at: hand.at() }));
      hand.clips = [];
      hand.stoodClear = false;
      return true;
    case 'load':
      hand.out = step.out ? [...hand.out, step.loadId] : hand.out.filter((id) => id !== step.loadId);
      return true;
    case 'switch':
      hand.switches = { ...hand.switches, [step.key]: step.to };
      return true;
    default:
      return false;
  }
}

describe('boxes with hidden wiring, worked as the bar asks', () => {
  // Every box of the closed loop would take minutes; these hold each practice and each kind of test.
  test.each(Array.from({ length: 14 }, (_, at) => 400 + at))(
    'box %i: no hand touches what is not proved dead',
    (seed) => {
      const hidden = someBox(seed);
      const hand = new Hand(hidden.job, hidden.box.id);
      hand.set({
        ...hidden.box,
        signal: { bars: 3 },
        enclosure: { ...hidden.box.enclosure, capacity: { from: 'marked', mL: 400 }, depth: 70 },
      });
      let last = '';
      for (let turn = 0; turn < 220; turn++) {
        const now = hand.inHand();
        const step = nextStep(now) as NextStep;
        last = step.kind;
        const isOff = (id: string) => now.circuits.find(({ circuitId }) => circuitId === id)?.state === 'off';
        const isOpen = now.stands.arrangement !== 'in-place';
        // A device comes out, conductors are lifted, clips go on: only dead, and proved.
        if (step.kind === 'stands')
          expect({ seed, dead: now.power.dead }).not.toEqual({ seed, dead: 'none' });
        if (
          step.kind === 'breaker' &&
          step.to === 'on' &&
          (isOpen || step.clips.length > 0) &&
          now.power.circle.every(isOff)
        )
          expect({ seed, turn, dead: now.power.dead }).toEqual({ seed, turn, dead: 'device-out' });
        if (step.kind === 'breaker' && step.to === 'on' && isOpen && !hand.stoodClear)
          expect(step.handsOff).toBe(true);
        if (step.kind === 'sweep' || step.kind === 'read') {
          const { test: asked } = step;
          expect(asked.arrangement).toBe(now.stands.arrangement);
          for (const [id, state] of Object.entries(asked.breakers))
            expect(now.circuits.find(({ circuitId }) => circuitId === id)?.state).toBe(state);
          const gate = readingGate(
            { box: hand.box, job: hand.job, power: now.power, circuits: now.circuits },
            {
              tool: asked.tool,
              arrangement: asked.arrangement,
              ...(asked.position === null ? {} : { position: asked.position }),
              lifted: asked.lifted,
            },
            (id) => now.said?.conductors.find((one) => one.id === id)?.role,
          );
          expect(['open', 'stand-clear', 'neutral']).toContain(gate.kind);
          if (gate.kind === 'stand-clear') expect(hand.stoodClear).toBe(true);
          const reading = { ...hidden.answer(asked, hand.id()), at: hand.at() };
          hand.set({ readings: [...hand.box.readings, reading] });
        } else if (step.kind === 'lamp') {
          for (const state of ['on', 'off'] as const) {
            const asked = {
              ...(now.said?.next[0] as Extract<NextStep, { kind: 'read' }>['test']),
              tool: 'lamp' as const,
              arrangement: 'in-place' as const,
              position: null,
              lifted: [],
              loads: {},
              breakers: Object.fromEntries(step.circuitIds.map((id) => [id, 'on' as const])),
              switches: {
                [step.position]: state,
                ...(step.far === null ? {} : { [step.far]: 'up' as const }),
              },
              points: [step.loadId],
            };
            hand.set({
              readings: [...hand.box.readings, { ...hidden.answer(asked, hand.id()), at: hand.at() }],
            });
          }
        } else if (!did(hand, step, now)) break;
      }
      expect(['flag', 'marks', 'label', 'set', 'onward', 'done', 'prove', 'stop']).toContain(last);
      const proved = identifyBox(hand.box, hand.known).conductors.filter(
        ({ grade }) => grade === 'confirmed',
      );
      for (const { id, role } of proved)
        if (hidden.truth.has(id))
          expect({ seed, id, role }).toEqual({ seed, id, role: hidden.truth.get(id) });
    },
  );
});

describe('a pair of switches, the other one left out', () => {
  /** At the one box nothing was opened yet; the foot's device was taken out, dead. */
  function atTheHead(): Hand {
    const { job } = emptyBox();
    const [circuit] = job.circuits;
    const [load] = job.loads;
    const like = (id: string): Box => ({
      ...newBox({ id, roomId: job.rooms[0]?.id ?? '', name: `Stair, ${id}`, order: 1 }, 'us', [
        circuit?.id ?? '',
      ]),
      positions: [{ index: 1, existing: 'three-way', loadIds: [load?.id ?? ''], need: { smart: false } }],
    });
    const hand = new Hand(
      {
        ...job,
        boxes: [like('b'), like('foot')],
        groups: [
          {
            id: 'g',
            loadIds: [load?.id ?? ''],
            places: [
              { boxId: 'b', position: 1 },
              { boxId: 'foot', position: 1 },
            ],
          },
        ],
      },
      'b',
    );
    hand.switched(circuit?.id ?? '', 'off');
    hand.event(
      standsEvent('foot', { arrangement: 'device-out', position: 1 }, { id: hand.id(), at: hand.at() }),
    );
    return hand;
  }
  const back = { kind: 'stands', to: { arrangement: 'in-place', position: null }, lifted: [], boxId: 'foot' };

  test('it goes back before its switch is worked: dead, proved there, then on', () => {
    const hand = atTheHead();
    expect(nextStep(hand.inHand())).toEqual({ kind: 'prove', stage: 'device-out', boxId: 'foot' });
    hand.prove('device-out', hand.inHand(), 'foot');
    expect(nextStep(hand.inHand())).toEqual(back);
    expect(did(hand, nextStep(hand.inHand()) as NextStep, hand.inHand())).toBe(true);
    expect(nextStep(hand.inHand())).toMatchObject({ kind: 'breaker', to: 'on', handsOff: false });
  });

  test('with the breaker on it is switched off first', () => {
    const hand = atTheHead();
    hand.prove('device-out', hand.inHand(), 'foot');
    hand.switched(hand.job.circuits[0]?.id ?? '', 'on');
    expect(nextStep(hand.inHand())).toMatchObject({ kind: 'breaker', to: 'off' });
  });

  test('a test from here is made before one with a walk, where it costs no more than that', () => {
    const hand = atTheHead();
    hand.event(
      standsEvent('foot', { arrangement: 'in-place', position: null }, { id: hand.id(), at: hand.at() }),
    );
    hand.switched(hand.job.circuits[0]?.id ?? '', 'on');
    const contents = presetContents({ preset: 'three-way-load', practice: 'us', size: '12AWG' }, hand.id);
    hand.set({
      ...contents,
      positions: hand.box.positions,
      enclosure: { ...hand.box.enclosure, capacity: { from: 'marked', in3: 18 }, depth: 70 },
    });
    hand.skipped.add('lamp:1');
    const looked = (switches: NextTest['switches'], minutes: number): NextTest => ({
      tool: 'lamp',
      arrangement: 'in-place',
      position: null,
      lifted: [],
      joined: [],
      breakers: {},
      switches,
      boxes: {},
      loads: {},
      points: [hand.job.loads[0]?.id ?? ''],
      gainBits: 1,
      minutes,
      why: { code: 'tells-most', subject: '', purpose: 'load' },
    });
    const asked = (near: number) =>
      nextStep({
        ...hand.inHand(),
        said: {
          conductors: [],
          conflicts: [],
          next: [looked({ 'foot/1': 'up' }, 1), looked({ '1': 'up' }, near)],
        },
      });
    expect(asked(2)).toEqual({ kind: 'switch', key: '1', to: 'up' });
    expect(asked(6)).toEqual({ kind: 'switch', key: 'foot/1', to: 'up' });
  });

  test('put off with the look it is made for', () => {
    const hand = atTheHead();
    const step = nextStep(hand.inHand()) as NextStep;
    hand.skipped.add(skipKey(hand.inHand(), step));
    expect(nextStep(hand.inHand())).toMatchObject({ kind: 'prove', stage: 'face', boxId: null });
  });
});

/** A job with one box that holds nothing yet. */
function emptyBox(): Hand {
  const job = exampleJob('pantry');
  const box = newBox({ id: 'b', roomId: job.rooms[0]?.id ?? '', name: 'By the door', order: 1 }, 'us');
  return new Hand(
    { ...job, boxes: [box], selections: [], groups: [], runs: [], pairings: [], events: [], photos: [] },
    'b',
  );
}
const kindOf = (hand: Hand) => nextStep(hand.inHand())?.kind;

describe('what is asked first', () => {
  test('breaker, what it controls, signal, the lamp; then off, proved, out, contents, enclosure', () => {
    const hand = emptyBox();
    const [circuit] = hand.job.circuits;
    const [load] = hand.job.loads;
    expect(kindOf(hand)).toBe('circuit');
    hand.set({ circuitIds: [circuit?.id ?? ''] });
    expect(kindOf(hand)).toBe('controls');
    hand.set({
      positions: hand.box.positions.map((position) => ({ ...position, loadIds: [load?.id ?? ''] })),
    });
    expect(kindOf(hand)).toBe('signal');
    hand.set({ signal: { bars: 3 } });
    expect(nextStep(hand.inHand())).toMatchObject({ kind: 'breaker', to: 'on', handsOff: false });
    hand.switched(circuit?.id ?? '', 'on');
    expect(nextStep(hand.inHand())).toMatchObject({ kind: 'lamp', position: 1, loadId: load?.id });
    hand.skipped.add('lamp:1');
    expect(nextStep(hand.inHand())).toMatchObject({ kind: 'breaker', to: 'off' });
    hand.switched(circuit?.id ?? '', 'off');
    expect(nextStep(hand.inHand())).toEqual({ kind: 'prove', stage: 'face', boxId: null });
    hand.prove('face', hand.inHand());
    expect(nextStep(hand.inHand())).toMatchObject({
      kind: 'stands',
      to: { arrangement: 'device-out', position: 1 },
    });
    did(hand, nextStep(hand.inHand()) as NextStep, hand.inHand());
    expect(kindOf(hand)).toBe('contents');
    hand.set(
      withPreset(
        hand.box,
        presetContents({ preset: 'power-at-switch', practice: 'us', size: '12AWG' }, hand.id),
      ),
    );
    expect(nextStep(hand.inHand())).toEqual({ kind: 'enclosure', volume: true, depth: true });
  });

  test('the signal is not asked once the power is off, nor of a place that wants nothing connected', () => {
    const hand = emptyBox();
    const [circuit] = hand.job.circuits;
    hand.set({
      circuitIds: [circuit?.id ?? ''],
      positions: [
        { index: 1, existing: 'single-pole', loadIds: [hand.job.loads[0]?.id ?? ''], need: { smart: false } },
      ],
    });
    expect(kindOf(hand)).not.toBe('signal');
  });

  test('by eye nothing is opened for it: contents, enclosure, then labels', () => {
    const hand = emptyBox();
    hand.by = 'eye';
    hand.set({
      circuitIds: [hand.job.circuits[0]?.id ?? ''],
      positions: [
        { index: 1, existing: 'single-pole', loadIds: [hand.job.loads[0]?.id ?? ''], need: { smart: false } },
      ],
    });
    expect(kindOf(hand)).toBe('contents');
    hand.set(
      withPreset(
        hand.box,
        presetContents({ preset: 'power-at-switch', practice: 'us', size: '12AWG' }, hand.id),
      ),
    );
    hand.set({ enclosure: { ...hand.box.enclosure, capacity: { from: 'marked', in3: 18 }, depth: 70 } });
    expect(kindOf(hand)).toBe('marks');
    hand.skipped.add('marks');
    const [first, , , second] = hand.box.conductors;
    expect(nextStep(hand.inHand())).toEqual({ kind: 'label', conductorId: first?.id });
    hand.set({
      labels: [first, second].map((one, at) => ({
        conductorId: one?.id ?? '',
        role: at === 0 ? 'line' : 'load',
      })),
    });
    expect(nextStep(hand.inHand())).toMatchObject({ kind: 'set', role: 'neutral' });
  });

  test('a stop comes before everything, and labels that clash before every fact', () => {
    const hand = emptyBox();
    hand.set({ hazards: ['water'] });
    expect(nextStep(hand.inHand())).toEqual({ kind: 'stop', code: 'water' });
  });

  test('what is put off is not asked again until it is taken up', () => {
    const hand = emptyBox();
    const step = nextStep(hand.inHand()) as NextStep;
    hand.skipped.add(stepKey(step));
    expect(kindOf(hand)).not.toBe(step.kind);
    hand.skipped.clear();
    expect(kindOf(hand)).toBe(step.kind);
  });
});
