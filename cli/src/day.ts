import { bestSheet, lookup } from '@inventario/core';
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
