import { figuresInUse } from '../../job/figures.js';
import type { Channel, Device } from '../../job/schema/catalogue.js';
import type { Load } from '../../job/schema/job.js';
import type { LoadKind, Strategy } from '../../job/schema/primitives.js';
import { assignChannels } from '../../loads/channels.js';
import { removedSides } from '../../loads/fins.js';
import { neverFeeds, uneasyOn } from '../../loads/never-feeds.js';
import { type RatingResult, rateChannel } from '../../loads/rating.js';
import { isTwoWire } from '../../loads/terminal-needs.js';
import { profileOf } from '../../practice/profiles.js';
import { rounded } from '../../units/volume.js';
import type { PlaceFacts } from '../place.js';
import { NO_REASONS, type Reason } from '../reason.js';

/** What a device fed through its lamps may feed. */
const TWO_WIRE_KINDS: ReadonlySet<LoadKind> = new Set([
  'led',
  'resistive',
  'fluorescent',
  'magnetic',
  'electronic',
]);

/**
 * Rules about what the device feeds: kind, channels, rating, minimum load, dimmable. Adds a bypass part to
 * `parts` where one helps.
 * @param sides fins taken off for neighbours; undefined: by what is, or will be, beside it
 */
export function loadRules(
  place: PlaceFacts,
  device: Device,
  strategy: Strategy,
  parts: string[],
  sides?: number,
): readonly Reason[] {
  if (strategy === 'bulb-controller' && device.bulbController) return bulbFamily(place, device);
  if (device.channels.length === 0) {
    // A control that switches no wire has to have something that does it elsewhere in its group.
    const idle = strategy === 'single' && place.loads.length > 0;
    return idle
      ? [
          {
            rule: 'channels',
            outcome: 'block',
            code: 'channels.none',
            facts: { loads: place.loads.map((load) => load.name) },
          },
        ]
      : NO_REASONS;
  }
  if (place.loads.length === 0)
    return [{ rule: 'load-kind', outcome: 'unproved', code: 'load-kind.unknown', facts: {} }];
  const selection = place.known.selections.get(`${place.box.id}/${place.position.index}`);
  const chosen = selection?.deviceId === device.id ? selection.channels : undefined;
  const { fed, unfed } = assignChannels(device, place.loads, figuresInUse(place.known.job).margin, chosen);
  const reasons: Reason[] = [];
  if (unfed.length > 0) {
    const facts = {
      channels: device.channels.length,
      loads: place.loads.length,
      left: unfed.map((load) => load.name),
    };
    reasons.push({ rule: 'channels', outcome: 'block', code: 'channels.too-few', facts });
  }
  // Two loads on one wire reach a device together: they cannot be put on two channels.
  if (fed.length > 1 && place.oneWire) {
    reasons.push({
      rule: 'channels',
      outcome: 'block',
      code: 'channels.one-wire',
      facts: { loads: place.loads.map((load) => load.name) },
    });
  }
  for (const entry of fed) reasons.push(...channelRules(place, device, entry, parts, sides));
  return reasons;
}

/** One channel of the device with what it would feed. */
interface Fed {
  channel: Channel;
  loads: readonly Load[];
}

/** @param takenOff sides surely removed; undefined: as the box stands */
function channelRules(
  place: PlaceFacts,
  device: Device,
  { channel, loads }: Fed,
  parts: string[],
  takenOff: number | undefined,
): readonly Reason[] {
  const volts = place.circuits[0]?.volts ?? device.volts[0] ?? 0;
  const sides = takenOff ?? removedSides(place.box, place.position, device, place.known);
  const { margin } = figuresInUse(place.known.job);
  const rating = rateChannel(channel, loads, volts, sides, margin);
  const reasons: Reason[] = [];
  for (const load of loads) {
    reasons.push(...kindRules(device, channel, load, rating.unrated.includes(load)));
    if (channel.kind === 'dimmer') reasons.push(...dimmable(load));
    if (channel.kind === 'fan-speed') reasons.push(...speeds(load, channel));
    if (load.kind === 'receptacle') reasons.push(...socketRating(place, channel, volts));
  }
  reasons.push(...ratingRule(rating, sides, margin));
  if (isTwoWire(device)) reasons.push(...minimumLoad(place, channel, loads, parts));
  return reasons;
}

/** Whether a channel may feed such a load at all, and whether it likes to. */
function kindRules(device: Device, channel: Channel, load: Load, unrated: boolean): readonly Reason[] {
  const blocked = blockedKind(device, channel, load, unrated);
  const uneasy = uneasyOn(channel.kind, load.kind) && !heldOn(channel);
  if (blocked === null && !uneasy) return NO_REASONS;
  const facts = { load: load.name, kind: load.kind, channel: channel.kind };
  const reasons: Reason[] = [];
  if (blocked !== null) reasons.push({ rule: 'load-kind', outcome: 'block', code: blocked, facts });
  if (uneasy) reasons.push({ rule: 'load-kind', outcome: 'warn', code: 'load-kind.uneasy', facts });
  return reasons;
}

function blockedKind(device: Device, channel: Channel, load: Load, unrated: boolean): string | null {
  if (unrated) return 'load-kind.unrated';
  const own = load.kind === 'smart-bulb' && ownFamily(device, load);
  if (neverFeeds(channel.kind, load.kind) && !own) return 'load-kind.never';
  return isTwoWire(device) && !TWO_WIRE_KINDS.has(load.kind) ? 'load-kind.two-wire' : null;
}

function ratingRule(rating: RatingResult, sides: number, margin: number): readonly Reason[] {
  if (rating.verdict === 'ok') return NO_REASONS;
  const first = rating.shares[0];
  const facts = {
    percent: rounded(rating.share * 100, 1),
    limitPercent: rounded(rating.limit * 100, 1),
    marginPercent: rounded(margin * 100, 1),
    quantity: rounded(
      rating.shares.reduce((sum, entry) => sum + (entry.unit === first?.unit ? entry.quantity : 0), 0),
      1,
    ),
    limit: first?.limit ?? 0,
    unit: first?.unit ?? 'W',
    removedSides: sides,
    mixed: rating.shares.some((entry) => entry.unit !== first?.unit || entry.limit !== first?.limit),
  };
  return [
    rating.verdict === 'over'
      ? { rule: 'rating', outcome: 'block', code: 'rating.over', facts }
      : { rule: 'rating', outcome: 'warn', code: 'rating.margin', facts },
  ];
}

/** A channel that is kept on does not cut what hangs on it. */
const heldOn = (channel: Channel) => channel.alwaysOnMode === true;

/** A dimmer that steers bulbs of its family does not dim their supply. */
function ownFamily(device: Device, load: Load): boolean {
  return load.bulbFamily !== undefined && device.bulbFamilies?.includes(load.bulbFamily) === true;
}

function dimmable(load: Load): readonly Reason[] {
  if (load.dimmable === false)
    return [{ rule: 'dimmable', outcome: 'block', code: 'dimmable.not', facts: { load: load.name } }];
  if (load.dimmable === undefined && load.kind !== 'resistive')
    return [{ rule: 'dimmable', outcome: 'unproved', code: 'dimmable.unknown', facts: { load: load.name } }];
  return NO_REASONS;
}

function minimumLoad(
  place: PlaceFacts,
  channel: Channel,
  loads: readonly Load[],
  parts: string[],
): readonly Reason[] {
  const minimum = channel.minWatts ?? 0;
  const watts = loads.reduce((sum, load) => sum + load.count * load.wattsEach, 0);
  if (watts >= minimum) return NO_REASONS;
  const { bypassPartId } = channel;
  const facts = { watts: rounded(watts, 1), minimum };
  if (bypassPartId === undefined)
    return [{ rule: 'minimum-load', outcome: 'block', code: 'minimum-load.under', facts }];
  if (!loads.some((load) => load.fitted?.includes(bypassPartId))) {
    parts.push(bypassPartId);
    const part = place.known.job.catalogue.parts.find((entry) => entry.id === bypassPartId);
    return [
      {
        rule: 'minimum-load',
        outcome: 'note',
        code: 'minimum-load.bypass',
        facts: { ...facts, part: part?.name ?? bypassPartId },
      },
    ];
  }
  return NO_REASONS;
}

function speeds(load: Load, channel: Channel): readonly Reason[] {
  if (load.speeds === undefined || channel.speeds === undefined || channel.speeds >= load.speeds)
    return NO_REASONS;
  const facts = { load: load.name, speeds: load.speeds, offers: channel.speeds };
  return [{ rule: 'speeds', outcome: 'warn', code: 'speeds.fewer', facts }];
}

/** A socket goes only on a channel of its full rating: nobody knows what will be plugged in. */
function socketRating(place: PlaceFacts, channel: Channel, volts: number): readonly Reason[] {
  const amps = channel.ratings
    .filter((rating) => rating.kinds.includes('receptacle'))
    .map(({ limit, unit }) => (unit === 'A' ? (limit[0] ?? 0) : volts > 0 ? (limit[0] ?? 0) / volts : 0));
  if (amps.length === 0) return NO_REASONS;
  const rated = Math.min(...amps);
  const full =
    profileOf(place.known.job).socketAmps ?? Math.max(0, ...place.circuits.map((circuit) => circuit.amps));
  if (full > 0 && rated + 1e-9 < full)
    return [
      {
        rule: 'socket-rating',
        outcome: 'block',
        code: 'socket-rating.under',
        facts: { rated: rounded(rated, 1), full },
      },
    ];
  return NO_REASONS;
}

/** A controller steers bulbs of its own family, kept on constant power: line joined to load in the box. */
function bulbFamily(place: PlaceFacts, device: Device): readonly Reason[] {
  if (place.loads.length === 0)
    return [{ rule: 'load-kind', outcome: 'unproved', code: 'load-kind.unknown', facts: {} }];
  const reasons: Reason[] = [];
  for (const load of place.loads) {
    const facts = { load: load.name, family: load.bulbFamily ?? '', families: device.bulbFamilies ?? [] };
    if (load.kind !== 'smart-bulb')
      reasons.push({ rule: 'bulb-family', outcome: 'block', code: 'bulb-family.plain-lamps', facts });
    else if (load.bulbFamily === undefined)
      reasons.push({ rule: 'bulb-family', outcome: 'unproved', code: 'bulb-family.unknown', facts });
    else if (!device.bulbFamilies?.includes(load.bulbFamily))
      reasons.push({ rule: 'bulb-family', outcome: 'block', code: 'bulb-family.other', facts });
  }
  return reasons;
}
