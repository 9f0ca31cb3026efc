import type { Blocker } from '../../progress/progress.js';
import type { HouseBlocker } from '../../progress/worst-blockers.js';
import { plural } from '../../units/plural.js';

const BLOCKER_TEXT: Record<Blocker['code'], (count: number) => string> = {
  stopped: () => 'work stops at this box',
  'labels-clash': () => 'labels of one joint exclude each other',
  'no-conductors': () => 'no conductors recorded',
  'no-positions': () => 'no positions recorded',
  'volume-not-read': () => 'box volume not read',
  'depth-not-read': () => 'box depth not measured',
  'loads-not-named': (count) =>
    `what ${count === 1 ? 'a position controls' : `${count} positions control`} is not named`,
  'no-circuit': () => 'no circuit named',
  'not-identified': (count) => `${plural(count, 'conductor')} not identified`,
  'not-chosen': (count) => `${plural(count, 'place')} without a device`,
  'over-full': () => 'box fill exceeded as planned',
  'too-deep': () => 'chosen device too deep',
  'not-mounted': () => 'not wired and mounted',
  'wiring-begun': (count) => `${plural(count, 'step')} of its wiring done, not mounted`,
  'not-paired': (count) => `${plural(count, 'channel')} to pair`,
  'pairing-failed': (count) => `pairing failed on ${plural(count, 'channel')}`,
};

/** `3 conductors not identified`. */
export function blockerText(blocker: Pick<Blocker, 'code' | 'count'>): string {
  return BLOCKER_TEXT[blocker.code](blocker.count);
}

/** `box depth not measured, and 2 more boxes like it`. */
export function houseBlockerText({ code, boxIds }: HouseBlocker): string {
  const more = boxIds.length - 1;
  const text = blockerText({ code, count: 1 });
  return more > 0 ? `${text}, and ${plural(more, 'more box', 'more boxes')} like it` : text;
}
