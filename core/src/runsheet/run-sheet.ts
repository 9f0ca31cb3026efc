import type { JobLookup } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';
import { TIMES } from '../practice/times.js';
import { routerCircuits } from '../radio/router-circuits.js';
import { perObject } from '../units/kept.js';
import { chosenPlaces, plannedDevices } from '../wire/comes-out.js';
import { arrangedUnits, moved, unitOfBox } from './by-hand.js';
import { Costs } from './cost.js';
import { dayOf } from './day.js';
import { houseOrder } from './house-order.js';
import { minutesOf, sumOf } from './minutes.js';
import { planDay, planOf } from './plan-day.js';
import { batchInHand } from './site-record.js';
import { type BatchTime, timetable } from './timetable.js';
import type { ApartBecause, Batch, DayPlan, DayToPlan } from './vocabulary.js';

/** A batch with what it takes and what it takes away. */
export interface SheetBatch extends Batch {
  /** Its boxes and its trips before any is shared, one pair of hands. */
  minutes: number;
  /** Rooms in which a light is out with its circuits. */
  darkRooms: readonly string[];
  /** Those of its circuits that the router may hang on. */
  routerCircuits: readonly string[];
}

/** When devices can be paired. */
interface PairingTime {
  /** Number of the last batch that takes the router away; null: none does, each is paired after its batch. */
  afterBatch: number | null;
  devices: number;
  minutes: number;
}

/** The day: batches in their order, when each is, and what it costs. */
export interface RunSheet extends Omit<DayPlan, 'batches'> {
  batches: readonly SheetBatch[];
  /** One pair of hands, with shared trips made once. */
  minutes: number;
  times: readonly BatchTime[];
  pairing: PairingTime;
}

/** The sheet with the fewest trips, of everything that is not mounted. */
export const bestSheet = perObject((known: JobLookup): RunSheet => bestOf(dayOf(known), known));

/**
 * The sheet as it is worked from now on: without what is in hand, as somebody arranged it, else with the
 * fewest trips.
 */
export const runSheet = perObject((known: JobLookup): RunSheet => {
  const { batches } = known.job.run ?? {};
  const day = dayOf(known, inHand(known));
  const best = bestOf(day, known);
  if (batches === undefined) return best;
  const costs = new Costs(day);
  const plan = planOf(arrangedUnits(batches, costs), costs);
  return sheetOf({ ...plan, lowerBound: best.lowerBound }, day, known);
});

const inHand = ({ job }: JobLookup) => new Set(batchInHand(job)?.boxIds ?? []);

function bestOf(day: DayToPlan, known: JobLookup): RunSheet {
  const plan = planDay(day);
  const router = routerCircuits(known);
  const batches = houseOrder(plan.batches, ({ circuitIds }) => circuitIds.some((id) => router.includes(id)));
  return sheetOf({ ...plan, batches }, day, known);
}

/** What comes of putting a box, and those bound to it, into another batch of the sheet. */
export interface MovedSheet {
  because: ApartBecause | null;
  /** The arrangement then. */
  batches: string[][];
  /** Trips more than now; fewer where it is less than nothing. */
  moreTrips: number;
}

/** @param to number of the batch; one beyond the last makes a batch of its own. Null: no such box is on it */
export function movedSheet(boxId: string, to: number, known: JobLookup): MovedSheet | null {
  const sheet = runSheet(known);
  const costs = new Costs(dayOf(known, inHand(known)));
  const unit = unitOfBox(boxId, costs.day);
  if (unit === null) return null;
  const now = arrangedUnits(
    sheet.batches.map(({ boxIds }) => boxIds),
    costs,
  );
  const { batches, because } = moved(now, unit, to, costs);
  const plan = planOf(batches, costs);
  return {
    because,
    batches: plan.batches.map(({ boxIds }) => [...boxIds]),
    moreTrips: plan.panelTrips - sheet.panelTrips,
  };
}

function sheetOf(plan: DayPlan, day: DayToPlan, known: JobLookup): RunSheet {
  const { testBeforeFold } = day;
  const minutesIn = (boxId: string, { needsCheck }: Batch) =>
    minutesOf(known.boxes.get(boxId) as Box, known, { needsCheck, testBeforeFold });
  const router = routerCircuits(known);
  const batches = plan.batches.map((batch) => ({
    ...batch,
    minutes:
      batch.boxIds.reduce((sum, id) => sum + sumOf(minutesIn(id, batch)), 0) +
      batch.panelTrips * TIMES.tripToPanel,
    darkRooms: roomsDark(batch.circuitIds, known),
    routerCircuits: batch.circuitIds.filter((id) => router.includes(id)),
  }));
  const before = batches.reduce((sum, { panelTrips }) => sum + panelTrips, 0);
  const installers = known.job.run?.installers ?? 1;
  return {
    ...plan,
    batches,
    minutes:
      batches.reduce((sum, { minutes }) => sum + minutes, 0) - (before - plan.panelTrips) * TIMES.tripToPanel,
    times: timetable(plan.batches, { testBeforeFold, installers, minutesOf: minutesIn }),
    pairing: pairingAfter(batches, known),
  };
}

/** Rooms in which something is worked from a box on one of these circuits. */
function roomsDark(circuitIds: readonly string[], { job, loads }: JobLookup): string[] {
  const rooms = job.boxes
    .filter((box) => box.circuitIds.some((id) => circuitIds.includes(id)))
    .flatMap((box) => box.positions.flatMap(({ loadIds }) => loadIds))
    .flatMap((id) => loads.get(id)?.roomId ?? []);
  return [...new Set(rooms)];
}

function pairingAfter(batches: readonly SheetBatch[], known: JobLookup): PairingTime {
  const platforms = known.job.brief?.platforms?.length ?? 0;
  const devices = batches
    .flatMap(({ boxIds }) => boxIds)
    .flatMap((id) => plannedDevices(chosenPlaces(known.boxes.get(id) as Box, known)))
    .filter(({ device }) => device.radio !== 'none');
  const last = batches.findLastIndex((batch) => batch.routerCircuits.length > 0);
  return {
    afterBatch: last < 0 ? null : last,
    devices: devices.length,
    minutes: devices.reduce(
      (sum, { device }) =>
        sum + (device.radio === 'wifi' ? TIMES.pair.wifi : TIMES.pair.hub) + TIMES.pair.platform * platforms,
      0,
    ),
  };
}
