import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Selection } from '../job/schema/job.js';
import { type Candidate, matchPlace } from '../match/match.js';
import { admits } from './schools.js';
import { optionOf } from './units.js';
import type { PlanChoice, School } from './vocabulary.js';

/** Reasons that speak of the way, not of the device: they count only where a device has no other way. */
const OF_THE_WAY: ReadonlySet<string> = new Set([
  'bulb-family.not-a-controller',
  'body.not-a-module',
  'body.at-the-fitting',
  'body.surface',
  'multi-location.not-offered',
  'multi-location.wrong-end',
]);

/**
 * For each place without a device, the rules that stop every one: the fewest that between them stop all, in the house as the plan
 * leaves it. `pin`, `ban` and the school's own rule (`hub`, `radio`) count like the rest.
 */
export function whyUnserved(
  school: School,
  places: readonly { boxId: string; position: number }[],
  choices: readonly PlanChoice[],
  known: JobLookup,
): Map<string, string> {
  const why = new Map<string, string>();
  if (places.length === 0) return why;
  const selections: Selection[] = [...known.job.selections, ...choices.map((choice) => ({ ...choice, with: [...choice.with] }))];
  const house: JobLookup = {
    ...known,
    job: { ...known.job, selections },
    selections: new Map(selections.map((entry) => [placeKey(entry.boxId, entry.position), entry])),
  };
  for (const place of places) {
    const box = house.boxes.get(place.boxId);
    const position = box?.positions.find((entry) => entry.index === place.position);
    if (!box || !position) continue;
    const candidates = matchPlace(box, position, house);
    why.set(placeKey(place.boxId, place.position), fewestRules(stopsByDevice(candidates, school, place, house)).join(', '));
  }
  return why;
}

/** What stops each device in the way that is stopped by least. */
function stopsByDevice(
  candidates: readonly Candidate[],
  school: School,
  place: { boxId: string; position: number },
  known: JobLookup,
): ReadonlySet<string>[] {
  const byDevice = new Map<string, { ofTheWay: boolean; stops: Set<string> }>();
  for (const candidate of candidates) {
    const device = known.devices.get(candidate.deviceId);
    if (!device) continue;
    const stopping = candidate.reasons.filter((reason) => reason.outcome === 'block' || reason.outcome === 'unproved');
    const stops = new Set<string>(stopping.map((reason) => reason.rule));
    const { brief } = known.job;
    const here = (entry: { boxId?: string | undefined; position?: number | undefined }) =>
      (entry.boxId ?? place.boxId) === place.boxId && (entry.position ?? place.position) === place.position;
    if (brief?.bans?.some((ban) => ban.deviceId === device.id && here(ban))) stops.add('ban');
    if (brief?.pins?.some((pin) => here(pin) && pin.deviceId !== undefined && pin.deviceId !== device.id)) stops.add('pin');
    const option = optionOf([{ ...place, deviceId: device.id, strategy: candidate.strategy, with: [] }], 1, known);
    if (!admits(school, option, device.hubId)) stops.add(school === 'no-hub' ? 'hub' : 'radio');
    // Nothing stops it here: what it would draw on is used up, or the rest of its group cannot be served.
    if (stops.size === 0) stops.add(candidate.partners.length > 0 ? 'multi-location' : device.hubId ? 'hub' : 'router');
    const ofTheWay = stopping.some((reason) => OF_THE_WAY.has(reason.code));
    const before = byDevice.get(device.id);
    const better = !before || (before.ofTheWay && !ofTheWay) || (before.ofTheWay === ofTheWay && stops.size < before.stops.size);
    if (better) byDevice.set(device.id, { ofTheWay, stops });
  }
  return [...byDevice.values()].map((entry) => entry.stops);
}

/** The smallest set of rules of which each device meets one; among equals the one whose rules stop the most. */
export function fewestRules(stops: readonly ReadonlySet<string>[]): string[] {
  const counts = new Map<string, number>();
  for (const own of stops) for (const rule of own) counts.set(rule, (counts.get(rule) ?? 0) + 1);
  const rules = [...counts.keys()].sort((a, b) => (counts.get(b) ?? 0) - (counts.get(a) ?? 0) || a.localeCompare(b));
  const covers = (chosen: readonly string[]) => stops.every((own) => chosen.some((rule) => own.has(rule)));
  const search = (chosen: readonly string[], from: number, size: number): string[] | undefined => {
    if (chosen.length === size) return covers(chosen) ? [...chosen] : undefined;
    for (let at = from; at < rules.length; at++) {
      const found = search([...chosen, rules[at] as string], at + 1, size);
      if (found) return found;
    }
    return undefined;
  };
  for (let size = 1; size <= Math.min(4, rules.length); size++) {
    const found = search([], 0, size);
    if (found) return found;
  }
  return rules;
}
