import { type JobLookup, placeKey } from '../../job/lookup.js';
import type { Device } from '../../job/schema/catalogue.js';
import { meshReach } from '../../radio/mesh.js';
import { ENOUGH_BARS, signalAt } from '../../radio/signal.js';
import { rounded } from '../../units/volume.js';
import type { BriefFacts, PlaceFacts } from '../place.js';
import { NO_REASONS, type Reason } from '../reason.js';

/** From this share of what the router can carry on, it is worth saying so. */
const ROUTER_MARGIN = 0.8;

/**
 * The radio itself: whether there is one, whether the client takes that kind, whether the router speaks its
 * band.
 */
export function radioRule(place: BriefFacts, device: Device): readonly Reason[] {
  const { brief } = place.known.job;
  if (device.radio === 'none') return [{ rule: 'radio', outcome: 'block', code: 'radio.none', facts: {} }];
  if (brief?.radios?.length && !brief.radios.includes(device.radio))
    return [
      {
        rule: 'radio',
        outcome: 'block',
        code: 'radio.not-wanted',
        facts: { radio: device.radio, wanted: brief.radios },
      },
    ];
  const only24 = device.radio === 'wifi' && device.wifiBands?.length === 1 && device.wifiBands[0] === '2.4';
  if (only24 && brief?.wifi?.band24 === false)
    return [{ rule: 'radio', outcome: 'block', code: 'radio.no-band', facts: {} }];
  return NO_REASONS;
}

export function signalRule(place: PlaceFacts, device: Device): readonly Reason[] {
  if (device.radio === 'wifi') return wifiSignal(place);
  if (device.radio !== 'mesh' || !device.hubId) return NO_REASONS;
  const room = place.known.rooms.get(place.box.roomId);
  const reach = room && meshReach(room, device, place.known, new Set(ownPlaces(place)));
  if (!reach || reach.near) return NO_REASONS;
  const facts = { metres: rounded(reach.metres, 1), floors: reach.floors };
  return [{ rule: 'signal', outcome: 'warn', code: 'signal.mesh-far', facts }];
}

function wifiSignal(place: PlaceFacts): readonly Reason[] {
  const signal = signalAt(place.box);
  if (!signal) return [{ rule: 'signal', outcome: 'unproved', code: 'signal.not-read', facts: {} }];
  if (signal.bars >= ENOUGH_BARS) return NO_REASONS;
  const facts = { bars: signal.bars, rssi: signal.rssi, lost: signal.lost };
  return signal.bars < 1
    ? [{ rule: 'signal', outcome: 'block', code: 'signal.none', facts }]
    : [{ rule: 'signal', outcome: 'unproved', code: 'signal.weak', facts }];
}

/** What is planned at other places and shares the air and the hubs with what would come here. */
export interface NetworkElsewhere {
  wifi: number;
  onHub: ReadonlyMap<string, number>;
}

export function networkElsewhere(place: PlaceFacts): NetworkElsewhere {
  const own = new Set(ownPlaces(place));
  const onHub = new Map<string, number>();
  let wifi = 0;
  for (const selection of place.known.job.selections) {
    const device = place.known.devices.get(selection.deviceId ?? '');
    if (!device || own.has(placeKey(selection.boxId, selection.position))) continue;
    if (device.radio === 'wifi') wifi += 1;
    if (device.hubId) onHub.set(device.hubId, (onHub.get(device.hubId) ?? 0) + 1);
  }
  return { wifi, onHub };
}

/** A place of a group is decided with the whole group. */
function ownPlaces({ box, position, group }: PlaceFacts): string[] {
  return [
    placeKey(box.id, position.index),
    ...(group?.places ?? []).map((place) => placeKey(place.boxId, place.position)),
  ];
}

/** The hubs of what would come here: whether each has room, and whether it is still to be bought. */
export function hubRule(
  known: JobLookup,
  devices: readonly Device[],
  elsewhere: NetworkElsewhere,
): readonly Reason[] {
  let reasons: Reason[] | undefined;
  for (let at = 0; at < devices.length; at++) {
    const hubId = devices[at]?.hubId;
    const hub = hubId === undefined ? undefined : known.hubs.get(hubId);
    if (!hub || devices.findIndex((device) => device.hubId === hubId) < at) continue;
    const others = elsewhere.onHub.get(hub.id) ?? 0;
    const on = others + devices.reduce((sum, device) => sum + (device.hubId === hubId ? 1 : 0), 0);
    const full = on > hub.deviceLimit;
    if (!full && (others > 0 || known.job.brief?.hubsOwned?.includes(hub.id))) continue;
    reasons ??= [];
    const facts = { hub: hub.name, devices: on, limit: hub.deviceLimit, price: hub.price };
    reasons.push(
      full
        ? { rule: 'hub', outcome: 'block', code: 'hub.full', facts }
        : { rule: 'hub', outcome: 'note', code: 'hub.to-buy', facts },
    );
  }
  return reasons ?? NO_REASONS;
}

/**
 * The router's clients with what would come here and what is planned elsewhere; an unwired hub still to be
 * bought is a client too.
 */
export function routerRule(
  known: JobLookup,
  devices: readonly Device[],
  elsewhere: NetworkElsewhere,
): readonly Reason[] {
  const wifi = known.job.brief?.wifi;
  if (wifi?.clientLimit === undefined) return NO_REASONS;
  const hubs = new Set([...elsewhere.onHub.keys(), ...devices.flatMap((device) => device.hubId ?? [])]);
  const here = devices.filter((device) => device.radio === 'wifi').length;
  const isClient = (hubId: string | undefined) =>
    hubId !== undefined &&
    known.hubs.get(hubId)?.wired === false &&
    !known.job.brief?.hubsOwned?.includes(hubId);
  const comes = here > 0 || devices.some((device) => isClient(device.hubId));
  if (!comes) return NO_REASONS;
  const newHubs = [...hubs].filter(isClient).length;
  const now = wifi.clientsNow ?? 0;
  const planned = elsewhere.wifi + here + newHubs;
  const facts = { now, planned, limit: wifi.clientLimit };
  if (now + planned > wifi.clientLimit)
    return [{ rule: 'router', outcome: 'block', code: 'router.full', facts }];
  return now + planned > ROUTER_MARGIN * wifi.clientLimit
    ? [{ rule: 'router', outcome: 'warn', code: 'router.near-limit', facts }]
    : NO_REASONS;
}
