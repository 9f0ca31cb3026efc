import { type Box, capital, deviceName, type Job, profileOf, type WiringToDo } from '@inventario/core';

/** What a position of a drawing is called as it was found. */
export function oldName(box: Box, position: number | null, job: Job): string {
  const { existing } = profileOf(job).words;
  const found = box.positions.find(({ index }) => index === position);
  return found ? capital(existing[found.existing]) : 'Box';
}

/** The device that comes there, else what was found. */
export function panelName(
  box: Box,
  position: number | null,
  { places }: Pick<WiringToDo, 'places'>,
  job: Job,
): string {
  const place = places.find((entry) => entry.position.index === position);
  return place?.device ? deviceName(place.device) : oldName(box, position, job);
}
