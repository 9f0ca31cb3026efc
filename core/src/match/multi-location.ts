import { NO_REASONS, type Reason } from '../findings/finding.js';
import type { Device, MultiLocation } from '../job/schema/catalogue.js';
import type { Strategy } from '../job/schema/primitives.js';
import type { PlaceFacts } from './place.js';

/** How a device takes part at a place of a group: as the one that feeds the load, or as its partner. */
export interface GroupPart {
  role: 'main' | 'partner';
  entry: MultiLocation;
}

export type GroupAnswer = { part: GroupPart } | { block: Reason };

/** Strategies in which the other places keep a mechanical switch or lose their switch altogether. */
export const WITHOUT_PARTNER_DEVICE: ReadonlySet<Strategy> = new Set(['keep-mechanical', 'tie-through', 'module', 'bulb-controller']);

/**
 * Whether and how a device can take part with a strategy at one place of its group, before any other rule is asked.
 * `here` is the place; `mainHere` tells whether the load (or line) the strategy wants for its main device is at this place.
 */
export function groupPart(device: Device, strategy: Strategy, here: PlaceFacts): GroupAnswer {
  const entry = device.multiLocation?.find((candidate) => candidate.strategy === strategy);
  if (!entry) return { block: { rule: 'multi-location', outcome: 'block', code: 'multi-location.not-offered', facts: { strategy } } };
  const feeds = device.terminals.some((terminal) => terminal.role === 'load');
  if (!feeds) return { part: { role: 'partner', entry } };
  const mainAt = entry.mainAt ?? 'either';
  if (mainAt === 'load' && here.load === 'absent') return wrongEnd(strategy, mainAt);
  if (mainAt === 'line' && here.line === 'absent') return wrongEnd(strategy, mainAt);
  // With both ends alike, the end without the load is the partner's.
  if (strategy === 'both-ends' && here.load !== 'present') return { part: { role: 'partner', entry } };
  return { part: { role: 'main', entry } };
}

function wrongEnd(strategy: Strategy, mainAt: 'line' | 'load'): GroupAnswer {
  return { block: { rule: 'multi-location', outcome: 'block', code: 'multi-location.wrong-end', facts: { strategy, mainAt } } };
}

/** Travelers the strategy runs its partner over, against those found here. */
export function travelerRule(place: PlaceFacts, part: GroupPart, strategy: Strategy): readonly Reason[] {
  const wanted = part.entry.partner?.travelers ?? 0;
  if (wanted <= place.travelers) return NO_REASONS;
  const unsure = place.line === 'unknown' || place.load === 'unknown' || place.neutral === 'unknown';
  return [
    {
      rule: 'multi-location',
      outcome: unsure ? 'unproved' : 'block',
      code: 'multi-location.travelers',
      facts: { strategy, wanted, found: place.travelers },
    },
  ];
}
