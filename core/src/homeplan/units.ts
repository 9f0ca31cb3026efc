import { type JobLookup, placeKey, wantsSmart } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Group, Job } from '../job/schema/job.js';
import type { Box, Position } from '../job/schema/survey.js';
import { waysAt } from '../match/ways-at.js';
import type { Option, PlanChoice } from './vocabulary.js';

/** What is decided as one: a place outside groups, or a group of which a place wants a device. */
export interface Unit {
  places: readonly { boxId: string; position: number; smart: boolean }[];
  /**
   * Ways to serve it that no rule stops as far as the unit itself goes; what shares its boxes is asked later.
   */
  ways: readonly Option[];
}

/** The places a plan decides, by key. */
export function plannedPlaces(known: JobLookup): Set<string> {
  const places = new Set<string>();
  for (const box of known.job.boxes)
    for (const position of box.positions) {
      const group = known.groups.get(placeKey(box.id, position.index));
      if (!wantsSmart(position)) continue;
      places.add(placeKey(box.id, position.index));
      for (const place of group?.places ?? []) places.add(placeKey(place.boxId, place.position));
    }
  return places;
}

/** @param known a lookup whose selections leave out the places that are to be decided */
export function unitsOf(known: JobLookup): Unit[] {
  const units: Unit[] = [];
  const groups = new Set<Group>();
  for (const box of known.job.boxes)
    for (const position of box.positions) {
      if (!wantsSmart(position)) continue;
      const group = known.groups.get(placeKey(box.id, position.index));
      if (!group) units.push(aloneUnit(box, position, known));
      else if (!groups.has(group)) {
        groups.add(group);
        units.push(groupUnit(group, known));
      }
    }
  return units;
}

function aloneUnit(box: Box, position: Position, known: JobLookup): Unit {
  const ways = waysAt({ box, position }, known).map((choices) => optionOf(choices, 1, known));
  const places = [{ boxId: box.id, position: position.index, smart: true }];
  return { places, ways: ways.filter((way) => allowed(way, known.job)) };
}

function groupUnit(group: Group, known: JobLookup): Unit {
  const places = group.places.flatMap(({ boxId, position: index }) => {
    const position = known.boxes.get(boxId)?.positions.find((entry) => entry.index === index);
    return position ? [{ boxId, position: index, smart: wantsSmart(position) }] : [];
  });
  const served = places.filter(({ smart }) => smart).length;
  const ways = waysAt({ group }, known).map((choices) => optionOf(choices, served, known));
  return { places, ways: ways.filter((way) => way.families.size <= 1 && allowed(way, known.job)) };
}

/** Pins and bans. */
function allowed(way: Option, { brief }: Job): boolean {
  return way.choices.every((choice) => {
    const here = (entry: { boxId?: string | undefined; position?: number | undefined }) =>
      (entry.boxId === undefined || entry.boxId === choice.boxId) &&
      (entry.position === undefined || entry.position === choice.position);
    const pinned = (brief?.pins ?? []).filter(here);
    const banned = (brief?.bans ?? []).some((ban) => ban.deviceId === choice.deviceId && here(ban));
    return (
      !banned &&
      pinned.every(
        (pin) =>
          (pin.deviceId === undefined || pin.deviceId === choice.deviceId) &&
          (pin.strategy === undefined || pin.strategy === choice.strategy),
      )
    );
  });
}

/**
 * Minutes to fit a device, to pair it over Wi-Fi or through a hub, and to link each platform there has to be.
 */
const MINUTES = { fit: 12, pair: 4, pairByHub: 3, link: 1 };

export function minutesOf(device: Device, job: Job): number {
  if (device.radio === 'none') return MINUTES.fit;
  const platforms = (job.brief?.platforms ?? []).filter((platform) => platform.want === 'must').length;
  return (
    MINUTES.fit + (device.hubId === undefined ? MINUTES.pair : MINUTES.pairByHub) + platforms * MINUTES.link
  );
}

/** @param served places that want a device and get one with these choices */
function optionOf(choices: readonly PlanChoice[], served: number, known: JobLookup): Option {
  const prices = new Map(known.job.catalogue.parts.map((part) => [part.id, part.price]));
  const onHub = new Map<string, number>();
  const families = new Set<string>();
  const radios = new Set<string>();
  let [devices, parts, minutes, wifi] = [0, 0, 0, 0];
  for (const choice of choices) {
    for (const id of choice.with) parts += prices.get(id) ?? 0;
    const device = known.devices.get(choice.deviceId ?? '');
    if (!device) continue;
    devices += device.price;
    minutes += minutesOf(device, known.job);
    families.add(device.family);
    if (device.radio === 'wifi') wifi += 1;
    if (device.radio !== 'none')
      radios.add(device.hubId === undefined ? `${device.radio} alone` : device.radio);
    if (device.hubId !== undefined) onHub.set(device.hubId, (onHub.get(device.hubId) ?? 0) + 1);
  }
  const cost = 60 * (devices + parts) + minutes * (known.job.money?.labourPerHour ?? 0);
  return { choices, served, devices, parts, minutes, cost, wifi, onHub, families, radios };
}
