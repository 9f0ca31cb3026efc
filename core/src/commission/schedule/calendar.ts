import { DAYS } from '../../job/schema/commissioning.js';

/** Minutes of a day by the clock. */
export const DAY = 1440;
const MS_OF_MINUTE = 60_000;

/** The number of a date, counted from 1 January 1970; null where it is no date. */
export function dayNumber(date: string): number | null {
  const found = /^(\d{4})-(\d\d)-(\d\d)$/.exec(date);
  if (!found) return null;
  const day = Date.UTC(Number(found[1]), Number(found[2]) - 1, Number(found[3])) / (DAY * MS_OF_MINUTE);
  return dateText(day) === date ? day : null;
}

/** `2026-03-29` for the number of a date. */
export function dateText(day: number): string {
  return new Date(day * DAY * MS_OF_MINUTE).toISOString().slice(0, 10);
}

/** The day of the week of a date: 0 for Monday. The epoch fell on a Thursday. */
const weekday = (day: number) => (((day + 3) % 7) + 7) % 7;

/** Whether a rule with these days is for a date; without any it is for every one. */
export function isDayOf(day: number, days: readonly (typeof DAYS)[number][] | undefined): boolean {
  return days === undefined || days.includes(DAYS[weekday(day)] as (typeof DAYS)[number]);
}

/** Minutes after midnight of `22:05`. */
export function minuteOfDay(time: string): number {
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  return hours * 60 + minutes;
}

/** An instant in minutes since the epoch, as `2026-03-29T01:20:00Z`. */
export function instantText(at: number): string {
  return `${new Date(at * MS_OF_MINUTE).toISOString().slice(0, 19)}Z`;
}

/** What the clock shows, as minutes since the epoch of that clock: `2026-03-29T02:20`. */
export function wallText(wall: number): string {
  return new Date(wall * MS_OF_MINUTE).toISOString().slice(0, 16);
}
