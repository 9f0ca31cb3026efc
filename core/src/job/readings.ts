import type { Reading } from './schema/survey.js';

/** How a box stood for a reading, breakers apart. */
export type Stance = Pick<
  Reading,
  'arrangement' | 'position' | 'lifted' | 'joined' | 'switches' | 'boxes' | 'loads'
>;

/**
 * Named states of a record, in the order of their names; what is not there is the same as an empty record.
 */
export function namedStates(record: Readonly<Record<string, string>> | undefined): [string, string][] {
  return Object.entries(record ?? {}).sort(([a], [b]) => (a < b ? -1 : 1));
}

/**
 * Equal for readings made with the box standing alike, breakers apart. Absent and empty are the same, so is
 * the order of what is named; which device is out counts only where one is, what is lifted only where
 * something is.
 */
export function stanceKey(reading: Stance): string {
  return JSON.stringify([
    reading.arrangement,
    reading.arrangement === 'device-out' ? (reading.position ?? null) : null,
    reading.arrangement === 'lifted' ? [...(reading.lifted ?? [])].sort() : [],
    reading.arrangement === 'parted' ? [...(reading.joined ?? [])].sort() : [],
    namedStates(reading.switches),
    namedStates(reading.boxes).filter(([, state]) => state !== 'in-place'),
    namedStates(reading.loads),
  ]);
}

export function breakersKey(reading: Pick<Reading, 'breakers'>): string {
  return JSON.stringify(namedStates(reading.breakers));
}

/** Where a reading looks, whichever lead was named first. */
export function pointsKey(reading: Pick<Reading, 'points'>): string {
  return [...reading.points].sort().join();
}
