import type { Cause, JoiningRemedy, Look, Seen } from '@inventario/core';

/** In which order a made-up device or network gives up; what is not there does not stop a try. */
export const STOPS: readonly Cause[] = [
  'no-power',
  'broken',
  'hub-missing',
  'hub-closed',
  'not-in-mode',
  'mobile-data',
  'needs-alternate',
  'registered-elsewhere',
  'wrong-band',
  'wrong-password',
  'weak-signal',
  'hub-full',
  'router-full',
];

/** What the app says when a try stops for a cause. Its makers were not always careful. */
export const SAYS: Readonly<Record<Cause | 'luck', Partial<Record<Seen, number>>>> = {
  'no-power': { 'not-found': 97, lost: 3 },
  broken: { 'not-found': 80, 'no-network': 10, lost: 10 },
  'hub-missing': { 'not-found': 88, 'no-network': 12 },
  'hub-closed': { 'not-found': 94, lost: 6 },
  'not-in-mode': { 'not-found': 96, lost: 4 },
  'mobile-data': { lost: 78, 'not-found': 22 },
  'needs-alternate': { 'not-found': 50, 'no-network': 45, lost: 5 },
  'registered-elsewhere': { owned: 76, lost: 14, 'not-found': 10 },
  'wrong-band': { 'no-network': 75, 'not-found': 17, lost: 8 },
  'wrong-password': { refused: 58, 'no-network': 40, lost: 2 },
  'weak-signal': { 'no-network': 45, lost: 33, 'not-found': 14, joined: 8 },
  'hub-full': { full: 82, 'no-network': 18 },
  'router-full': { full: 20, 'no-network': 72, lost: 8 },
  luck: { lost: 50, 'no-network': 30, 'not-found': 20 },
};

/** How often the list of clients names a device after a try that stopped for a cause. */
export const LISTS: Readonly<Record<Cause | 'luck', number>> = {
  'no-power': 0,
  broken: 0.05,
  'hub-missing': 0,
  'hub-closed': 0,
  'not-in-mode': 0,
  'mobile-data': 0.85,
  'needs-alternate': 0.04,
  'registered-elsewhere': 0.6,
  'wrong-band': 0.01,
  'wrong-password': 0.01,
  'weak-signal': 0.3,
  'hub-full': 0,
  'router-full': 0,
  luck: 0.45,
};

/** A try fails so often although nothing stands in its way. */
export const LUCK = 0.05;

/** What is seen wrong by a look, and how often the eye is mistaken. */
export const EYE: Readonly<
  Record<Exclude<Look, 'listed'>, { cause: Cause; misses: number; imagines: number }>
> = {
  power: { cause: 'no-power', misses: 0.03, imagines: 0.01 },
  'hub-there': { cause: 'hub-missing', misses: 0.04, imagines: 0.02 },
  'hub-open': { cause: 'hub-closed', misses: 0.04, imagines: 0.03 },
  light: { cause: 'not-in-mode', misses: 0.06, imagines: 0.04 },
  'mobile-data': { cause: 'mobile-data', misses: 0.03, imagines: 0.01 },
  band: { cause: 'wrong-band', misses: 0.04, imagines: 0.02 },
  password: { cause: 'wrong-password', misses: 0.15, imagines: 0.03 },
  owner: { cause: 'registered-elsewhere', misses: 0.1, imagines: 0.02 },
  signal: { cause: 'weak-signal', misses: 0.08, imagines: 0.06 },
  'hub-count': { cause: 'hub-full', misses: 0.02, imagines: 0.01 },
  'router-count': { cause: 'router-full', misses: 0.03, imagines: 0.01 },
};

/** What each deed puts right, and how often at the first go. */
export const DEEDS: Readonly<Partial<Record<JoiningRemedy, { cause: Cause; works: number }>>> = {
  'power-on': { cause: 'no-power', works: 1 },
  replace: { cause: 'broken', works: 1 },
  'set-up-hub': { cause: 'hub-missing', works: 0.97 },
  'open-hub': { cause: 'hub-closed', works: 0.97 },
  'press-mode': { cause: 'not-in-mode', works: 0.93 },
  'data-off': { cause: 'mobile-data', works: 0.98 },
  'alternate-mode': { cause: 'needs-alternate', works: 0.95 },
  release: { cause: 'registered-elsewhere', works: 0.95 },
  'join-24': { cause: 'wrong-band', works: 0.98 },
  'type-password': { cause: 'wrong-password', works: 0.94 },
  'bring-closer': { cause: 'weak-signal', works: 0.92 },
  'free-hub': { cause: 'hub-full', works: 0.97 },
  'free-router': { cause: 'router-full', works: 0.97 },
};
