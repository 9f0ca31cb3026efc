/** What keeps a device from joining, in the order in which it stops a try. */
export const CAUSES = [
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
] as const;
export type Cause = (typeof CAUSES)[number];

/** What a try comes to, as the app or the hub says it. */
export const SEEN = ['not-found', 'no-network', 'refused', 'full', 'owned', 'lost', 'joined'] as const;
export type Seen = (typeof SEEN)[number];

/** What is done about a cause before the next try. `again`: nothing but the try itself. */
export type Remedy =
  | 'power-on'
  | 'replace'
  | 'set-up-hub'
  | 'open-hub'
  | 'press-mode'
  | 'data-off'
  | 'alternate-mode'
  | 'release'
  | 'join-24'
  | 'type-password'
  | 'bring-closer'
  | 'free-hub'
  | 'free-router'
  | 'again';

/** What one can look at between tries. `listed`: whether the router's or hub's list names the device. */
export const LOOKS = [
  'listed',
  'power',
  'hub-there',
  'hub-open',
  'light',
  'mobile-data',
  'band',
  'password',
  'owner',
  'signal',
  'hub-count',
  'router-count',
] as const;
export type Look = (typeof LOOKS)[number];

/** Looks that the router or the hub can answer; the rest is for eyes. */
export const MACHINE_LOOKS: ReadonlySet<Look> = new Set([
  'listed',
  'hub-there',
  'hub-open',
  'signal',
  'hub-count',
  'router-count',
]);

/** The way a device joins: over the router, or through a hub of its radio. */
export type Way = 'wifi' | 'hub';

interface CauseFacts {
  ways: readonly Way[];
  /** How often it is there at the first try of a device, where nothing else is known. */
  prior: Partial<Record<Way, number>>;
  remedy: Remedy;
  /** What the try then comes to; what is not named shares the rest. */
  sees: Partial<Record<Seen, number>>;
  /** How often the list of clients names the device after such a try. */
  listed: number;
}

/**
 * Estimates of how often each cause is met in houses and what the apps then say; the house's own record
 * shifts them. Not from any maker: messages differ, so none is certain.
 */
export const CAUSE_FACTS: Readonly<Record<Cause, CauseFacts>> = {
  'no-power': {
    ways: ['wifi', 'hub'],
    prior: { wifi: 0.02, hub: 0.02 },
    remedy: 'power-on',
    sees: { 'not-found': 0.95 },
    listed: 0.01,
  },
  broken: {
    ways: ['wifi', 'hub'],
    prior: { wifi: 0.01, hub: 0.01 },
    remedy: 'replace',
    sees: { 'not-found': 0.75, 'no-network': 0.12, lost: 0.1 },
    listed: 0.05,
  },
  'hub-missing': {
    ways: ['hub'],
    prior: { hub: 0.02 },
    remedy: 'set-up-hub',
    sees: { 'not-found': 0.9 },
    listed: 0.01,
  },
  'hub-closed': {
    ways: ['hub'],
    prior: { hub: 0.12 },
    remedy: 'open-hub',
    sees: { 'not-found': 0.9 },
    listed: 0.01,
  },
  'not-in-mode': {
    ways: ['wifi', 'hub'],
    prior: { wifi: 0.12, hub: 0.14 },
    remedy: 'press-mode',
    sees: { 'not-found': 0.93 },
    listed: 0.02,
  },
  'mobile-data': {
    ways: ['wifi'],
    prior: { wifi: 0.06 },
    remedy: 'data-off',
    sees: { lost: 0.7, 'not-found': 0.2 },
    listed: 0.75,
  },
  'needs-alternate': {
    ways: ['wifi', 'hub'],
    prior: { wifi: 0.05, hub: 0.03 },
    remedy: 'alternate-mode',
    sees: { 'not-found': 0.45, 'no-network': 0.4 },
    listed: 0.05,
  },
  'registered-elsewhere': {
    ways: ['wifi', 'hub'],
    prior: { wifi: 0.05, hub: 0.1 },
    remedy: 'release',
    sees: { owned: 0.7, lost: 0.12, 'not-found': 0.12 },
    listed: 0.5,
  },
  'wrong-band': {
    ways: ['wifi'],
    prior: { wifi: 0.12 },
    remedy: 'join-24',
    sees: { 'no-network': 0.7, 'not-found': 0.15, lost: 0.1 },
    listed: 0.02,
  },
  'wrong-password': {
    ways: ['wifi'],
    prior: { wifi: 0.12 },
    remedy: 'type-password',
    sees: { refused: 0.5, 'no-network': 0.42 },
    listed: 0.02,
  },
  'weak-signal': {
    ways: ['wifi', 'hub'],
    prior: { wifi: 0.1, hub: 0.1 },
    remedy: 'bring-closer',
    sees: { 'no-network': 0.4, lost: 0.3, 'not-found': 0.15, joined: 0.1 },
    listed: 0.25,
  },
  'hub-full': {
    ways: ['hub'],
    prior: { hub: 0.03 },
    remedy: 'free-hub',
    sees: { full: 0.75, 'no-network': 0.15 },
    listed: 0.02,
  },
  'router-full': {
    ways: ['wifi'],
    prior: { wifi: 0.04 },
    remedy: 'free-router',
    sees: { full: 0.25, 'no-network': 0.6 },
    listed: 0.03,
  },
};

/** A try fails now and then although nothing is wrong, and then comes to one of these. */
export const CHANCE = {
  fails: 0.07,
  sees: { lost: 0.45, 'no-network': 0.3, 'not-found': 0.2 } as Partial<Record<Seen, number>>,
  listed: 0.4,
};

/** How well a remedy works once done, and how long it takes, minutes. */
export const REMEDY_FACTS: Readonly<Record<Remedy, { works: number; minutes: number }>> = {
  'power-on': { works: 0.98, minutes: 3 },
  replace: { works: 0.98, minutes: 25 },
  'set-up-hub': { works: 0.95, minutes: 15 },
  'open-hub': { works: 0.95, minutes: 0.5 },
  'press-mode': { works: 0.92, minutes: 0.5 },
  'data-off': { works: 0.97, minutes: 0.3 },
  'alternate-mode': { works: 0.93, minutes: 1 },
  release: { works: 0.93, minutes: 4 },
  'join-24': { works: 0.96, minutes: 1 },
  'type-password': { works: 0.93, minutes: 1 },
  'bring-closer': { works: 0.9, minutes: 4 },
  'free-hub': { works: 0.95, minutes: 3 },
  'free-router': { works: 0.95, minutes: 4 },
  again: { works: 1, minutes: 0 },
};

/**
 * What a look tells of its cause: how often it looks bad where the cause is there, and where it is not.
 * `listed` tells of all causes at once, by {@link CAUSE_FACTS}.
 */
export const LOOK_FACTS: Readonly<
  Record<Exclude<Look, 'listed'>, { cause: Cause; hit: number; falseAlarm: number; minutes: number }>
> = {
  power: { cause: 'no-power', hit: 0.95, falseAlarm: 0.02, minutes: 0.2 },
  'hub-there': { cause: 'hub-missing', hit: 0.95, falseAlarm: 0.03, minutes: 0.5 },
  'hub-open': { cause: 'hub-closed', hit: 0.94, falseAlarm: 0.03, minutes: 0.3 },
  light: { cause: 'not-in-mode', hit: 0.92, falseAlarm: 0.04, minutes: 0.2 },
  'mobile-data': { cause: 'mobile-data', hit: 0.96, falseAlarm: 0.02, minutes: 0.2 },
  band: { cause: 'wrong-band', hit: 0.95, falseAlarm: 0.02, minutes: 0.4 },
  password: { cause: 'wrong-password', hit: 0.8, falseAlarm: 0.03, minutes: 0.6 },
  owner: { cause: 'registered-elsewhere', hit: 0.85, falseAlarm: 0.03, minutes: 1 },
  signal: { cause: 'weak-signal', hit: 0.9, falseAlarm: 0.07, minutes: 0.5 },
  'hub-count': { cause: 'hub-full', hit: 0.96, falseAlarm: 0.02, minutes: 0.5 },
  'router-count': { cause: 'router-full', hit: 0.95, falseAlarm: 0.02, minutes: 0.6 },
};

export const LISTED_MINUTES = 0.5;
/** A try itself, minutes. */
export const TRY_MINUTES: Readonly<Record<Way, number>> = { wifi: 2.5, hub: 1.5 };
