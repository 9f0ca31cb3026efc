import type { Device, MultiLocation } from '../job/schema/catalogue.js';
import type { Strategy } from '../job/schema/primitives.js';
import type { PlaceFacts } from './place.js';
import { NO_REASONS, type Reason } from './reason.js';

/** How a device takes part at a place of a group: as the one that feeds the load, or as its partner. */
export interface GroupSeat {
  role: 'main' | 'partner';
  entry: MultiLocation;
}

export type GroupAnswer = { seat: GroupSeat } | { block: Reason };

/**
 * A place of a group that gets no device with this strategy, because its switch stays, is tied through or
 * stands before bulbs that are always fed; with what stands in the way of that. Undefined: the place wants a
 * partner device.
 */
export function withoutDevice(
  strategy: Strategy,
  entry: MultiLocation,
  there: PlaceFacts,
): { reason: Reason | null } | undefined {
  if (strategy === 'module' || strategy === 'bulb-controller') return { reason: null };
  const middle = isMiddle(there) ? entry.middle : undefined;
  const stays = strategy === 'keep-mechanical' || middle === 'keep';
  const tied = (strategy === 'tie-through' && !entry.partnerIds?.length) || middle === 'tie';
  if (stays && middle !== 'tie')
    return { reason: mechanical(there, strategy) ?? farTravelers(there, entry, strategy) };
  return tied ? { reason: farTravelers(there, entry, strategy) } : undefined;
}

/** Neither end of the group: a four-way switch, or a place between the first and the last. */
function isMiddle(there: PlaceFacts): boolean {
  const places = there.group?.places ?? [];
  const at = places.findIndex(
    (place) => place.boxId === there.box.id && place.position === there.position.index,
  );
  return there.position.existing === 'four-way' || (places.length > 2 && at > 0 && at < places.length - 1);
}

function mechanical(there: PlaceFacts, strategy: Strategy): Reason | null {
  const { existing } = there.position;
  if (existing === 'three-way' || existing === 'four-way') return null;
  const facts = { strategy, box: there.box.name, position: there.position.index };
  return { rule: 'multi-location', outcome: 'block', code: 'multi-location.no-mechanical', facts };
}

/** What stays or is tied through works over the travelers that come there. */
function farTravelers(there: PlaceFacts, entry: MultiLocation, strategy: Strategy): Reason | null {
  const [reason] = travelerRule(there, { role: 'partner', entry }, strategy);
  return reason
    ? { ...reason, code: 'multi-location.far-travelers', facts: { ...reason.facts, box: there.box.name } }
    : null;
}

/**
 * Whether and how a device can take part with a strategy at one place of its group, before any other rule is
 * asked. `here` is the place; `mainHere` tells whether the load (or line) the strategy wants for its main
 * device is at this place.
 */
export function groupSeat(device: Device, strategy: Strategy, here: PlaceFacts): GroupAnswer {
  const entry = device.multiLocation?.find((candidate) => candidate.strategy === strategy);
  if (!entry)
    return {
      block: {
        rule: 'multi-location',
        outcome: 'block',
        code: 'multi-location.not-offered',
        facts: { strategy },
      },
    };
  const feeds = device.terminals.some((terminal) => terminal.role === 'load');
  if (!feeds) return { seat: { role: 'partner', entry } };
  const mainAt = entry.mainAt ?? 'either';
  if (mainAt === 'load' && here.load === 'absent') return wrongEnd(strategy, mainAt);
  if (mainAt === 'line' && here.line === 'absent') return wrongEnd(strategy, mainAt);
  // With both ends alike, the end without the load is the partner's.
  if ((strategy === 'both-ends' || strategy === 'linked') && here.load !== 'present')
    return { seat: { role: 'partner', entry } };
  return { seat: { role: 'main', entry } };
}

function wrongEnd(strategy: Strategy, mainAt: 'line' | 'load'): GroupAnswer {
  return {
    block: {
      rule: 'multi-location',
      outcome: 'block',
      code: 'multi-location.wrong-end',
      facts: { strategy, mainAt },
    },
  };
}

/** Travelers the strategy runs its partner over, against those found here. */
export function travelerRule(place: PlaceFacts, seat: GroupSeat, strategy: Strategy): readonly Reason[] {
  const wanted = seat.entry.partner?.travelers ?? 0;
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
