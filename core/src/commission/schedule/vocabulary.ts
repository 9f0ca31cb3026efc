import type { JobLookup } from '../../job/lookup.js';
import type { Automation } from '../../job/schema/commissioning.js';
import type { ChosenChannel } from '../../job/targets.js';
import type { Spot, SunDay, SunEvent } from './sun.js';
import type { ShownAt, WallClock } from './wall-clock.js';

/** What a rule does to a target in the end: the last of its actions there counts. */
export type Effect = 'on' | 'off' | 'toggle';

/** An enabled rule with what it comes to. */
export interface Rule {
  automation: Automation;
  id: string;
  /** By the target's id; a room stands for what is in it. */
  effects: ReadonlyMap<string, Effect>;
  /** Targets that a countdown turns over. */
  counted: readonly string[];
  /** The hours in which it holds, minutes of the day; null for all of them. */
  hours: { from: number; to: number } | null;
}

/** One firing by the clock or the sun. Minutes since the epoch; `wall` by the clock on the wall. */
export interface Firing {
  rule: Rule;
  at: number;
  wall: number;
  clock: ShownAt['clock'];
}

type ScheduleCode =
  | 'clash'
  | 'undone'
  | 'no-sun'
  | 'opposite-overlap'
  | 'opposite-gap'
  | 'never-off'
  | 'cut-supply'
  | 'not-there';

export interface ScheduleFinding {
  code: ScheduleCode;
  automationIds: string[];
  target: string | null;
  /** Minutes since the epoch. */
  at: number | null;
  until: number | null;
}

/** The sun over the range and as many dates about it as the farthest offset asks for. */
export interface SunGround {
  spot: Spot;
  events: readonly SunEvent[];
  days: readonly SunDay[];
}

/** Everything that a schedule is worked out from, over the local dates from `fromDay` up to `toDay`. */
export interface ScheduleGround {
  known: JobLookup;
  rules: Rule[];
  channels: ReadonlyMap<string, ChosenChannel>;
  clock: WallClock;
  fromDay: number;
  toDay: number;
  /** Null where the site is not known by latitude and longitude. */
  sun: SunGround | null;
}

/** What a rule costs in a year: hours it keeps things on, energy, money where a tariff is known. */
export interface RuleCost {
  automationId: string;
  /** Null where nothing tells when it fires: motion, a tap, somebody coming home. */
  hours: number | null;
  kWh: number | null;
  cost: number | null;
}

export interface Schedule {
  timeZone: string;
  /** The sun of each date; with nulls where the place is not known. */
  days: (SunDay | { day: number; sunrise: null; sunset: null; sun: null })[];
  firings: Firing[];
  findings: ScheduleFinding[];
  /** What the clock on the wall shows at an instant; both in minutes since the epoch. */
  wallAt: (at: number) => number;
  /** Of the rules that switch something on. */
  costs: RuleCost[];
}
