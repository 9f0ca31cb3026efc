import type { JobLookup } from '../job/lookup.js';
import { placeKey } from '../job/lookup.js';
import type { Device, MultiLocation } from '../job/schema/catalogue.js';
import type { Strategy } from '../job/schema/primitives.js';
import { type GroupSeat, groupSeat, withoutDevice } from './multi-location.js';
import type { PlaceFacts } from './place.js';
import { type Reason, verdictOf } from './reason.js';

/** Another place of a group, and who judges a device there. */
export interface GroupPlace {
  place: PlaceFacts;
  judge: { inSeat: (device: Device, strategy: Strategy, seat: GroupSeat, parts: string[]) => Reason[] };
}

/** For which device a partner is sought. `asMain`: the partner is to feed the load. */
export interface Sought {
  device: Device;
  strategy: Strategy;
  seat: GroupSeat;
  asMain: boolean;
}

/** The first partner device that suits at another place of the group, or why none does. */
export function partnerAt(
  other: GroupPlace,
  sought: Sought,
): { boxId: string; position: number; deviceId: string | null; reason?: Reason } {
  const { strategy, seat, asMain } = sought;
  const { box, position } = other.place;
  const where = { boxId: box.id, position: position.index };
  const without = asMain ? undefined : withoutDevice(strategy, seat.entry, other.place);
  if (without) return { ...where, deviceId: null, ...(without.reason ? { reason: without.reason } : {}) };
  let worst: readonly Reason[] | undefined;
  let unproved: { deviceId: string; reasons: readonly Reason[] } | undefined;
  const candidates = partnerDevices(sought, other.place.known);
  for (const candidate of candidates) {
    const judged = judgePartner(other, candidate, strategy, asMain ? undefined : seat.entry);
    if ('block' in judged) {
      worst ??= [judged.block];
      continue;
    }
    const verdict = verdictOf(judged.reasons, []);
    if (verdict === 'fits') return { ...where, deviceId: candidate.id };
    const telling = judged.reasons.filter(
      (reason) => reason.outcome === (verdict === 'no' ? 'block' : 'unproved'),
    );
    if (verdict === 'unproved') unproved ??= { deviceId: candidate.id, reasons: telling };
    else worst ??= telling;
  }
  const facts = {
    box: box.name,
    position: position.index,
    // Every rule that stops it there, not the first.
    because:
      [...new Set((unproved?.reasons ?? worst ?? []).map(({ rule }) => rule))].join(', ') || 'multi-location',
    place: placeKey(box.id, position.index),
  };
  if (unproved)
    return {
      ...where,
      deviceId: unproved.deviceId,
      reason: { rule: 'multi-location', outcome: 'unproved', code: 'multi-location.partner-unproved', facts },
    };
  return {
    ...where,
    deviceId: candidates[0]?.id ?? null,
    reason: { rule: 'multi-location', outcome: 'block', code: 'multi-location.partner', facts },
  };
}

/**
 * A device in its seat at another place of the group.
 *
 * @param listedBy the main device's record, which speaks for a partner that has none of its own; undefined:
 * it is to be the main device
 * @param parts takes what a main device would need there
 */
export function judgePartner(
  other: GroupPlace,
  candidate: Device,
  strategy: Strategy,
  listedBy: MultiLocation | undefined,
  parts: string[] = [],
): { block: Reason } | { reasons: readonly Reason[] } {
  const answer = groupSeat(candidate, strategy, other.place);
  const own =
    'seat' in answer
      ? answer.seat.entry
      : answer.block.code === 'multi-location.not-offered'
        ? listedBy
        : undefined;
  if (!own) return answer as { block: Reason };
  return {
    reasons: other.judge.inSeat(
      candidate,
      strategy,
      { role: listedBy ? 'partner' : 'main', entry: own },
      parts,
    ),
  };
}

/**
 * Devices that may stand at another place of the group, in the order of the record: a partner asks for a main
 * device where the load is.
 */
export function partnerDevices({ device, strategy, seat, asMain }: Sought, known: JobLookup): Device[] {
  const listed = (seat.entry.partnerIds ?? []).flatMap((id) => known.devices.get(id) ?? []);
  if (asMain) {
    const naming = known.job.catalogue.devices.filter((other) =>
      other.multiLocation?.some(
        (entry) => entry.strategy === strategy && entry.partnerIds?.includes(device.id),
      ),
    );
    const alike = strategy === 'both-ends' || strategy === 'linked' ? [device] : [];
    return [...new Set([...listed, ...naming, ...alike])].filter(feedsLoad);
  }
  if (seat.role === 'partner') return [device, ...listed.filter((other) => !feedsLoad(other))];
  return listed.length > 0 ? listed : [device];
}

function feedsLoad(device: Device): boolean {
  return device.terminals.some((terminal) => terminal.role === 'load');
}
