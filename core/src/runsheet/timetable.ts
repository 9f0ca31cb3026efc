import { TIMES } from '../practice/times.js';
import { BOX_PHASES, type BoxMinutes, type BoxPhase, sumOf } from './minutes.js';
import type { Batch } from './vocabulary.js';

/** A stretch of the day in which one thing is done: a trip to the panels, or a part of the work at boxes. */
interface Stretch {
  what: 'off' | 'on' | BoxPhase;
  /** Minutes from the start of the day. */
  from: number;
  minutes: number;
}

/** When a batch is worked, and by whom. */
export interface BatchTime {
  from: number;
  to: number;
  stretches: readonly Stretch[];
  /** Boxes of each pair of hands, side by side. */
  hands: readonly (readonly string[])[];
  /** Minutes of it that its circuits are off. */
  dark: number;
}

/** What times are made of. */
export interface Timing {
  testBeforeFold: boolean;
  /** 1 or 2. */
  installers: number;
  minutesOf: (boxId: string, batch: Batch) => BoxMinutes;
}

/**
 * The day minute by minute. One pair of hands goes to the panel; at the boxes of a batch they work side by
 * side, each box in one pair of hands from its proof to its plate, so that nobody finds it otherwise than it
 * was left.
 */
export function timetable(batches: readonly Batch[], timing: Timing): BatchTime[] {
  let clock = 0;
  return batches.map((batch, at) => {
    const sameOff = at === 0 ? 0 : sharedPanels(batches[at - 1] as Batch, batch);
    const time = batchTime(batch, timing, { from: clock, sameOff });
    clock = time.to;
    return time;
  });
}

const sharedPanels = (one: Batch, other: Batch): number =>
  one.panels.filter((panel) => other.panels.includes(panel)).length;

function batchTime(batch: Batch, timing: Timing, at: { from: number; sameOff: number }): BatchTime {
  const minutes = new Map(batch.boxIds.map((id) => [id, timing.minutesOf(id, batch)]));
  const hands = sideBySide(batch.boxIds, minutes, timing.installers);
  const taken = (phase: BoxPhase) =>
    Math.max(
      0,
      ...hands.map((boxIds) => boxIds.reduce((sum, id) => sum + (minutes.get(id)?.[phase] ?? 0), 0)),
    );
  const stretches: Stretch[] = [];
  let clock = at.from;
  const add = (what: Stretch['what'], length: number) => {
    stretches.push({ what, from: clock, minutes: length });
    clock += length;
  };
  const trip = (what: 'off' | 'on', panels = batch.panels.length) => add(what, panels * TIMES.tripToPanel);
  // The trip that closed the batch before at the same panel opened this one.
  trip('off', batch.panels.length - at.sameOff);
  add('open', taken('open'));
  for (const phase of BOX_PHASES.slice(1, -1)) {
    const energised = phase === 'check' ? batch.needsCheck : phase === 'test' && timing.testBeforeFold;
    if (phase === 'check' && !batch.needsCheck) continue;
    if (phase === 'test' && !timing.testBeforeFold) continue;
    if (energised) trip('on');
    add(phase, taken(phase));
    if (energised) trip('off');
  }
  add('close', taken('close'));
  trip('on');
  if (!timing.testBeforeFold) add('test', taken('test'));
  const lit = stretches.reduce(
    (sum, { what, minutes }) => (what === 'check' || what === 'test' ? sum + minutes : sum),
    0,
  );
  return { from: at.from, to: clock, stretches, hands, dark: clock - at.from - lit };
}

/** The longest box first, each to whoever has least to do. */
function sideBySide(
  boxIds: readonly string[],
  minutes: ReadonlyMap<string, BoxMinutes>,
  installers: number,
): string[][] {
  const hands = Array.from({ length: Math.max(1, installers) }, () => ({ boxIds: [] as string[], sum: 0 }));
  const length = (id: string) => sumOf(minutes.get(id) as BoxMinutes);
  for (const id of [...boxIds].sort((a, b) => length(b) - length(a))) {
    const least = hands.reduce((best, one) => (one.sum < best.sum ? one : best));
    least.boxIds.push(id);
    least.sum += length(id);
  }
  return hands
    .filter((one) => one.boxIds.length > 0)
    .map((one) => boxIds.filter((id) => one.boxIds.includes(id)));
}
