import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Selection } from '../job/schema/job.js';
import { type Stopped, stopsAt } from '../match/ways-at.js';
import { admitsDevice } from './schools.js';
import type { PlanChoice, School } from './vocabulary.js';

/**
 * For places without a device, the rules that stop every one: the fewest that between them stop all, with the
 * box as the plan leaves it. `pin`, `ban` and the school's own rule (`hub`, `radio`) count like the rest.
 * Keeps what it judged: in most plans of a house the boxes of unserved places are left the same.
 */
export class WhyUnserved {
  private readonly judged = new Map<string, readonly DeviceStops[]>();

  constructor(private readonly known: JobLookup) {}

  /** @param choices of the whole plan */
  rules(school: School, place: { boxId: string; position: number }, choices: readonly PlanChoice[]): string {
    const group = this.known.groups.get(placeKey(place.boxId, place.position));
    const boxes = new Set([place.boxId, ...(group?.places ?? []).map((other) => other.boxId)]);
    const beside = choices.filter((choice) => boxes.has(choice.boxId));
    const key =
      `${placeKey(place.boxId, place.position)}: ` +
      `${beside.map((choice) => `${choice.boxId}/${choice.position}=${choice.deviceId}`).join()}`;
    let stops = this.judged.get(key);
    if (!stops) {
      stops = this.judge(place, beside);
      this.judged.set(key, stops);
    }
    // Two pins at odds, or a pin on what a place cannot have; with no pin, a catalogue without a device.
    if (stops.length === 0) return this.known.job.brief?.pins?.length ? 'pin' : 'practice';
    const ofSchool = school === 'no-hub' ? 'hub' : 'radio';
    return fewestRules(
      stops.map(({ device, stops: own, otherwise }) => {
        const all = admitsDevice(school, device) ? own : new Set([...own, ofSchool]);
        // Nothing stops it here: what it would draw on is used up, or the rest of its group cannot be served.
        return all.size > 0 ? all : new Set([otherwise]);
      }),
    ).join(', ');
  }

  private judge(place: { boxId: string; position: number }, beside: readonly PlanChoice[]): DeviceStops[] {
    const selections: Selection[] = [
      ...this.known.job.selections,
      ...beside.map((choice) => ({ ...choice, with: [...choice.with] })),
    ];
    const house: JobLookup = {
      ...this.known,
      job: { ...this.known.job, selections },
      selections: new Map(selections.map((entry) => [placeKey(entry.boxId, entry.position), entry])),
    };
    return stopsByDevice(stopsAt(place, house), place, house);
  }
}

interface DeviceStops {
  device: Device;
  stops: ReadonlySet<string>;
  otherwise: string;
}

/** What stops each device in the way that is stopped by least. */
function stopsByDevice(
  candidates: readonly Stopped[],
  place: { boxId: string; position: number },
  known: JobLookup,
): DeviceStops[] {
  const { brief } = known.job;
  const here = (entry: { boxId?: string | undefined; position?: number | undefined }) =>
    (entry.boxId ?? place.boxId) === place.boxId && (entry.position ?? place.position) === place.position;
  const bans = (brief?.bans ?? []).filter(here);
  // Where a device is pinned nothing else may stand: what stops that one is why.
  const pins = (brief?.pins ?? []).filter(here);
  const meets = ({ device, strategy }: Stopped) =>
    pins.every((pin) => (pin.deviceId ?? device.id) === device.id && (pin.strategy ?? strategy) === strategy);
  // What is made for another practice is stopped by that alone, and says nothing of the place, unless there
  // is nothing else.
  const { practice, catalogue } = known.job;
  const ours = catalogue.devices.some((device) => device.practices.includes(practice));
  const byDevice = new Map<string, DeviceStops & { ofTheWay: boolean }>();
  for (const candidate of candidates) {
    const { device, ofTheWay } = candidate;
    if (!meets(candidate) || (ours && !device.practices.includes(practice))) continue;
    const banned = bans.some((ban) => ban.deviceId === device.id);
    const stops = banned ? new Set([...candidate.rules, 'ban']) : candidate.rules;
    const before = byDevice.get(device.id);
    const better =
      !before ||
      (before.ofTheWay && !ofTheWay) ||
      (before.ofTheWay === ofTheWay && stops.size < before.stops.size);
    const otherwise = candidate.partnered ? 'multi-location' : device.hubId ? 'hub' : 'router';
    if (better) byDevice.set(device.id, { device, stops, otherwise, ofTheWay });
  }
  return [...byDevice.values()];
}

/**
 * The smallest set of rules of which each device meets one; among equals the one whose rules stop the most.
 */
export function fewestRules(stops: readonly ReadonlySet<string>[]): string[] {
  const counts = new Map<string, number>();
  for (const own of stops) for (const rule of own) counts.set(rule, (counts.get(rule) ?? 0) + 1);
  const rules = [...counts.keys()].sort(
    (a, b) => (counts.get(b) ?? 0) - (counts.get(a) ?? 0) || a.localeCompare(b),
  );
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
