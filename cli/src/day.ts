import {
  bestSheet,
  causeName,
  DANGER_TEXT,
  type Diagnosis,
  fixSteps,
  lookup,
  nextReadingWhy,
  placeInDoubtOf,
  type WiringInWords,
} from '@inventario/core';
import { type Doubt, UnusableError } from './arguments.js';
import { type Output, usable } from './commands.js';
import { table } from './table.js';

/** The day with the fewest trips, whatever somebody arranged by hand. */
export function runsheet(text: string): Output {
  const { job } = usable(text, undefined);
  const { batches, panelTrips, boxByBoxTrips, lowerBound, minutes } = bestSheet(lookup(job));
  const printed = batches.map((batch) => ({
    boxIds: batch.boxIds,
    circuitIds: batch.circuitIds,
    panelTrips: batch.panelTrips,
    minutes: Math.round(batch.minutes),
  }));
  return {
    json: { batches: printed, panelTrips, boxByBoxTrips, lowerBound, minutes: Math.round(minutes) },
    text: (width) =>
      [
        table(
          ['batch', 'boxes', 'circuits', 'trips', 'minutes'],
          printed.map((batch, at) => [
            at + 1,
            batch.boxIds.join(' '),
            batch.circuitIds.join(' '),
            batch.panelTrips,
            batch.minutes,
          ]),
          width,
        ),
        `${panelTrips} trips to the panel, box by box ${boxByBoxTrips}; ${
          lowerBound === panelTrips ? 'fewer are not possible' : `no plan has fewer than ${lowerBound}`
        }. About ${Math.round(minutes)} minutes.`,
      ].join('\n'),
  };
}

/** Why the device of a place does not work, by what was seen there. */
export function diagnose(text: string, { boxId, position, symptoms }: Doubt): Output {
  const { job } = usable(text, boxId);
  const known = lookup(job);
  const planned = job.selections.filter((one) => one.boxId === boxId && one.deviceId !== null);
  const at = position ?? (planned.length === 1 ? planned[0]?.position : undefined);
  if (at === undefined)
    throw new UnusableError(
      '',
      `the option --position is missing: ${boxId} has ${planned.length} planned devices, not one`,
    );
  const found = placeInDoubtOf({ boxId, position: at }, known);
  if (!found)
    throw new UnusableError('', `the option --position: no device is planned on wires at ${boxId}, ${at}`);
  const { place, wiring } = found;
  const diagnosis = place.diagnosis({ seen: symptoms, readings: [] });
  const printed = asPrinted(diagnosis, wiring, (entry) => causeName(entry, known), known);
  return {
    json: printed,
    text: (width) =>
      [
        ...(printed.stop === null ? [] : [printed.stop]),
        table(
          ['cause', 'p', 'conductors', 'fix'],
          printed.causes.map((cause) => [
            cause.cause,
            cause.probability.toFixed(4),
            cause.conductorIds.join(' '),
            cause.fix,
          ]),
          width,
        ),
        ...(printed.next
          ? [`next: ${printed.next.tool} ${printed.next.points.join(' to ')}. ${printed.next.why}`]
          : []),
      ].join('\n\n'),
  };
}

function asPrinted(
  { causes, next, stop }: Diagnosis,
  wiring: WiringInWords,
  nameOf: (cause: Diagnosis['causes'][number]['cause']) => string,
  known: Parameters<typeof fixSteps>[2],
) {
  return {
    causes: causes.map((cause) => ({
      cause: cause.cause,
      position: cause.position,
      conductorIds: cause.conductorIds,
      probability: cause.probability,
      stop: cause.stop,
      predicts: cause.predicts,
      fix: fixSteps(cause, wiring, known).join(' '),
    })),
    next: next && {
      tool: next.tool,
      arrangement: next.arrangement,
      position: next.position ?? null,
      lifted: [],
      points: next.points,
      method: next.method,
      breakers: next.breakers ?? {},
      switches: next.switches ?? {},
      minutes: next.minutes,
      why: nextReadingWhy(
        next,
        causes.slice(0, 3).map(({ cause }) => nameOf(cause)),
      ),
    },
    stop: stop ? DANGER_TEXT : null,
  };
}
