import type { Choice } from '../match/ways-at.js';

export const SCHOOLS = ['lowest-cost', 'no-hub', 'one-mesh-hub', 'makers-hub', 'fewest-families'] as const;
export type School = (typeof SCHOOLS)[number];

/** What a plan puts at one place. */
export type PlanChoice = Choice;

/**
 * A way of serving a unit, or of serving a cluster: its choices and what they take of money, time, air and
 * hubs.
 */
export interface Option {
  choices: readonly PlanChoice[];
  /** Places that want a device and get one. */
  served: number;
  /** Minor units. */
  devices: number;
  parts: number;
  minutes: number;
  /** Sixtieths of a minor unit, hubs apart: one rounding of labour over the whole plan keeps the order. */
  cost: number;
  /** Devices that are clients of the router. */
  wifi: number;
  /** Devices on each hub. */
  onHub: ReadonlyMap<string, number>;
  families: ReadonlySet<string>;
  /** Radios of its devices, `none` left out; a device that names no hub stands as `mesh` or `mesh alone`. */
  radios: ReadonlySet<string>;
}

interface UnservedPlace {
  boxId: string;
  position: number;
  /** The rules that stop every device, fewest first: one where one stops them all. */
  why: string;
}

export interface HousePlan {
  school: School;
  /** Minor units: devices + hubs + parts + labour. */
  total: number;
  devices: number;
  hubs: number;
  parts: number;
  labour: number;
  labourMinutes: number;
  served: number;
  unserved: UnservedPlace[];
  choices: PlanChoice[];
  /** Every hub the plan works through, owned ones too. */
  hubIds: string[];
  families: string[];
  /** Clients of the router with the plan in place, against its limit. */
  router: { clients: number; limit: number | null };
  /** Bought beside the plan, after it was found. */
  spares: { deviceId: string; count: number; price: number }[];
  proof: 'optimal' | { gap: number };
}
