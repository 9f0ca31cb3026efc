import { mountedBoxes } from '../job/events.js';
import type { JobLookup } from '../job/lookup.js';
import type { CircuitPower, JobPower } from '../power/vocabulary.js';
import { stepHinders, wireProgress } from '../wire/progress.js';
import type { WireStep } from '../wire/steps.js';
import { holderOf, untried } from './site-record.js';

/** The wiring of a box, as far as a batch goes through it. */
export interface BoxToRun {
  boxId: string;
  steps: readonly WireStep[];
  /** Its plan is proved and nothing speaks against it: else its conductors are found out first. */
  ready: boolean;
}

/** What is done next in a batch, by whoever asks. */
export type RunStep =
  | { kind: 'switch'; circuitIds: readonly string[]; to: 'on' | 'off'; for: Stretch }
  | { kind: 'identify'; boxId: string }
  | { kind: 'wire'; boxId: string; step: WireStep }
  | { kind: 'wait'; boxIds: readonly string[] }
  | { kind: 'try'; boxId: string; position: number }
  | { kind: 'done' };

/** The stretches of a batch between trips to the panel. */
export type Stretch = 'wire' | 'test' | 'close' | 'after';

/** How the batch stands. */
export interface BatchStands {
  next: RunStep;
  stretch: Stretch;
  /** Trips to the panel still to be made, this one too. */
  tripsLeft: number;
  boxes: readonly BoxStands[];
}

interface BoxStands {
  boxId: string;
  /** Steps of its wiring done, and of how many. */
  done: number;
  of: number;
  holder: string | null;
  mounted: boolean;
}

export interface BatchToRun {
  boxes: readonly BoxToRun[];
  known: JobLookup;
  power: JobPower;
  /** The device that asks: what others hold is left to them. */
  by: string;
}

/**
 * The one thing to do now. A batch goes through its stretches with all its boxes: dead up to the test, on for
 * it, dead again to be closed, on to be tried; a box in other hands waits for nobody but the switching.
 *
 *     off ─► wire ─► on ─► test ─► off ─► close ─► on ─► try
 */
export function batchStands(batch: BatchToRun): BatchStands {
  const boxes = batch.boxes.map((box) => boxNow(box, batch));
  const circuits = circuitsOf(batch);
  const stretch = STRETCHES.find((entry) => boxes.some((box) => leftIn(box, entry).length > 0)) ?? 'after';
  return {
    next: nextIn(stretch, boxes, batch),
    stretch,
    tripsLeft: tripsLeft(boxes, circuits, batch),
    boxes: boxes.map(({ boxId, steps, done, holder, mounted }) => ({
      boxId,
      done: mounted ? steps.length : done.size,
      of: steps.length,
      holder,
      mounted,
    })),
  };
}

const STRETCHES: readonly Stretch[] = ['wire', 'test', 'close'];
/** What a stretch asks of the circuits. */
const ASKS: Readonly<Record<Stretch, 'on' | 'off'>> = { wire: 'off', test: 'on', close: 'off', after: 'on' };

interface BoxNow extends BoxToRun {
  done: ReadonlySet<string>;
  holder: string | null;
  mounted: boolean;
}

function boxNow(box: BoxToRun, { known, power }: BatchToRun): BoxNow {
  const { job } = known;
  const own = power.boxes.find(({ boxId }) => boxId === box.boxId);
  const mounted = mountedBoxes(job).has(box.boxId);
  const progress = own && wireProgress(box.steps, { job, power: own, circuits: power.circuits });
  const done = new Set(progress?.done.keys());
  return { ...box, done, holder: holderOf(job, box.boxId), mounted };
}

function leftIn(box: BoxNow, stretch: Stretch): WireStep[] {
  if (box.mounted) return [];
  const tests = box.steps.flatMap(({ kind }, at) => (kind === 'test' ? [at] : []));
  const [first, last] = [tests[0] ?? box.steps.length, tests.at(-1) ?? box.steps.length];
  const bounds = {
    wire: [0, first],
    test: [first, last + 1],
    close: [last + 1, box.steps.length],
    after: [0, 0],
  };
  return box.steps.slice(...bounds[stretch]).filter(({ key }) => !box.done.has(key));
}

function circuitsOf({ boxes, known, power }: BatchToRun): CircuitPower[] {
  const ids = new Set(boxes.flatMap(({ boxId }) => known.boxes.get(boxId)?.circuitIds ?? []));
  return power.circuits.filter(({ circuitId }) => ids.has(circuitId));
}

function nextIn(stretch: Stretch, boxes: readonly BoxNow[], batch: BatchToRun): RunStep {
  const to = ASKS[stretch];
  const wrong = circuitsOf(batch).filter(({ state }) => state !== to);
  const others = boxes.filter((box) => box.holder !== null && box.holder !== batch.by);
  if (wrong.length > 0)
    return { kind: 'switch', circuitIds: wrong.map(({ circuitId }) => circuitId), to, for: stretch };
  if (stretch === 'after') return tryNext(boxes, batch);
  const open = boxes.filter((box) => leftIn(box, stretch).length > 0);
  const mine = open.filter((box) => !others.includes(box));
  // What is in hand goes on; then what can be wired, before what has to be found out first.
  const box =
    mine.find(({ holder, ready }) => holder === batch.by && ready) ??
    mine.find(({ ready }) => ready) ??
    mine[0];
  if (!box) return { kind: 'wait', boxIds: open.map(({ boxId }) => boxId) };
  if (!box.ready) return { kind: 'identify', boxId: box.boxId };
  return { kind: 'wire', boxId: box.boxId, step: leftIn(box, stretch)[0] as WireStep };
}

function tryNext(boxes: readonly BoxNow[], { known }: BatchToRun): RunStep {
  for (const { boxId } of boxes) {
    const [position] = untried(known.job, boxId);
    if (position !== undefined) return { kind: 'try', boxId, position };
  }
  return { kind: 'done' };
}

/**
 * Boxes outside the batch that a switching brings to life although they are open: somebody has them in hand,
 * or they are proved dead with a device out and were not closed since.
 */
export function openElsewhere(
  { circuitIds, to }: Extract<RunStep, { kind: 'switch' }>,
  { boxes, known, power }: BatchToRun,
): string[] {
  if (to === 'off') return [];
  const own = new Set(boxes.map(({ boxId }) => boxId));
  return power.boxes
    .filter(({ boxId, circle, dead }) => {
      const reached = circle.some((id) => circuitIds.includes(id));
      return reached && !own.has(boxId) && (dead === 'device-out' || holderOf(known.job, boxId) !== null);
    })
    .map(({ boxId }) => boxId);
}

/** What the stretches still to come ask of the circuits, one after another, a trip for each change. */
function tripsLeft(
  boxes: readonly BoxNow[],
  circuits: readonly CircuitPower[],
  { known }: BatchToRun,
): number {
  const panels = new Set(circuits.flatMap(({ circuitId }) => known.circuits.get(circuitId)?.panel ?? []));
  const asked = STRETCHES.filter((stretch) => boxes.some((box) => leftIn(box, stretch).length > 0));
  let [state, trips] = [commonState(circuits), 0];
  for (const stretch of [...asked, 'after'] as const) {
    if (ASKS[stretch] === state) continue;
    state = ASKS[stretch];
    trips += 1;
  }
  return trips * panels.size;
}

function commonState(circuits: readonly CircuitPower[]): CircuitPower['state'] {
  const [first] = circuits;
  return first && circuits.every(({ state }) => state === first.state) ? first.state : 'unknown';
}

/** What keeps a hand from the step that is next: empty where nothing does. */
export function runHinders({ known, power }: BatchToRun, next: RunStep) {
  if (next.kind !== 'wire') return null;
  const own = power.boxes.find(({ boxId }) => boxId === next.boxId);
  return own ? stepHinders(next.step, { job: known.job, power: own, circuits: power.circuits }) : [];
}
