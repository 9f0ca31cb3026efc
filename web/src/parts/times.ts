import { isSameDay, parseISO } from 'date-fns';

const TIME = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });
const DAY = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short' });

/** `at 14:05`, with the day when it is not today. */
export function timeOf(instant: string, now = new Date()): string {
  const date = parseISO(instant);
  return isSameDay(date, now) ? `at ${TIME.format(date)}` : `on ${DAY.format(date)} at ${TIME.format(date)}`;
}
