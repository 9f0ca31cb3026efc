import type { Device } from '../job/schema/catalogue.js';
import type { Strategy } from '../job/schema/primitives.js';
import { type Reason, type Verdict, verdictOf } from './reason.js';

/** What goes to one place: a device in a strategy with its parts, or none where the switch stays. */
export interface Choice {
  boxId: string;
  position: number;
  deviceId: string | null;
  strategy: Strategy;
  with: readonly string[];
}

/** One device, in one strategy, at one place. */
export interface Candidate {
  deviceId: string;
  strategy: Strategy;
  verdict: Verdict;
  with: readonly string[];
  partners: readonly { boxId: string; position: number; deviceId: string | null }[];
  reasons: readonly Reason[];
}

export interface PlaceMatch {
  boxId: string;
  position: number;
  devices: Candidate[];
}

export const ALONE: readonly Strategy[] = ['single', 'bulb-controller', 'module'];
export const IN_GROUP: readonly Strategy[] = [
  'both-ends',
  'keep-mechanical',
  'companion',
  'tie-through',
  'bulb-controller',
  'module',
  'linked',
];

/**
 * Reasons that speak of the way, not of the device: they tell less than what a possible way is stopped by.
 */
export const OF_THE_WAY: ReadonlySet<string> = new Set([
  'bulb-family.not-a-controller',
  'body.not-a-module',
  'body.at-the-fitting',
  'body.surface',
  'multi-location.not-offered',
  'multi-location.wrong-end',
]);

const NO_PARTS: readonly string[] = [];
const NO_PARTNERS: Candidate['partners'] = [];

/** What was asked of a device comes to its verdict. */
export function judged(
  device: Device,
  strategy: Strategy,
  reasons: readonly Reason[],
  parts: readonly string[] = NO_PARTS,
  partners: Candidate['partners'] = NO_PARTNERS,
): Candidate {
  return {
    deviceId: device.id,
    strategy,
    verdict: verdictOf(reasons, parts),
    with: parts,
    partners,
    reasons,
  };
}
