import type { JobLookup } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';
import { chosenPlaces, plannedDevices } from '../wire/comes-out.js';

/** Boxes are alike in the time they take when as wide, with as many devices. */
export function kindOfBox(box: Box, known: JobLookup): string {
  return `${box.enclosure.gangs} gang, ${devicesIn(box, known)} devices`;
}

/** Devices that go into the box. */
export function devicesIn(box: Box, known: JobLookup): number {
  return plannedDevices(chosenPlaces(box, known)).filter(({ device }) => device.mount === 'box').length;
}
