import { deviceName } from '../catalogue/device-name.js';
import { minutesOf } from '../homeplan/units.js';
import { mountedBoxes } from '../job/events.js';
import type { JobLookup } from '../job/lookup.js';
import type { Connector, Device, Part } from '../job/schema/catalogue.js';
import type { Box } from '../job/schema/survey.js';
import { CONNECTOR_WORDS } from '../practice/words.js';
import { capital } from '../units/capital.js';
import { plural } from '../units/plural.js';
import { chosenPlaces, plannedDevices } from '../wire/comes-out.js';
import type { JointPlan } from '../wire/joint-plan.js';
import { planJoints } from '../wire/plan.js';
import { type MaterialLine, type Materials, SHELVES, type Shelf } from './vocabulary.js';

/** Screws that hold a device to its box. */
const SCREWS_A_DEVICE = 2;

interface Wanted {
  shelf: Shelf;
  item: string;
  what: string;
  detail: string;
  unit: MaterialLine['unit'];
  priceEach: number | null;
  count: number;
  fitted: number;
  boxIds: string[];
}

/**
 * What to buy for the devices chosen so far: devices, hubs and parts by the selections, connectors and tails
 * by the joints as far as the findings tell them, plates by what shares them; less what comes in the packages
 * and what is in hand. Minor units.
 */
export function materialsOf(known: JobLookup): Materials {
  const { job } = known;
  const mounted = mountedBoxes(job);
  const list = new Map<string, Wanted>();
  const want = (wanted: Omit<Wanted, 'count' | 'fitted' | 'boxIds'>, count: number, boxId?: string) => {
    const line = list.get(wanted.item) ?? { ...wanted, count: 0, fitted: 0, boxIds: [] };
    line.count += count;
    if (boxId && mounted.has(boxId)) line.fitted += count;
    if (boxId && !line.boxIds.includes(boxId)) line.boxIds.push(boxId);
    list.set(wanted.item, line);
  };
  const openBoxIds: string[] = [];
  const devices: Device[] = [];
  let jointMinutes = 0;
  for (const box of job.boxes) {
    const places = chosenPlaces(box, known);
    const planned = plannedDevices(places);
    for (const { device, selection } of planned) {
      devices.push(device);
      want(deviceLine(device), 1, box.id);
      for (const id of selection.with ?? []) {
        const part = job.catalogue.parts.find((entry) => entry.id === id);
        if (part) want(partLine(part), 1, box.id);
      }
    }
    if (places.length === 0) continue;
    jointMinutes += wantJoints(box, known, want);
    if (planned.some(({ device }) => device.mount === 'box')) wantPlate(box, known, want);
    if (planned.length > 0 && hasUnlabelled(box)) openBoxIds.push(box.id);
  }
  for (const point of job.controlPoints ?? []) {
    const device = known.devices.get(point.deviceId);
    if (!device) continue;
    devices.push(device);
    want(deviceLine(device), 1);
  }
  wantHubs(devices, known, want);
  const spares = job.brief?.spares ?? 0;
  for (const device of new Set(devices)) {
    if (spares > 0) want({ ...deviceLine(device), shelf: 'spares', item: `spare:${device.id}` }, spares);
  }
  return summed(list, packagesOf(devices, known), known, { devices, openBoxIds, jointMinutes });
}

const hasUnlabelled = (box: Box): boolean =>
  box.conductors.some(
    ({ id, cableId }) => cableId && !box.labels.some(({ conductorId }) => conductorId === id),
  );

/** Hubs that the devices work through, and that the client does not own. */
function wantHubs(devices: readonly Device[], known: JobLookup, want: Want): void {
  for (const id of new Set(devices.flatMap((device) => device.hubId ?? []))) {
    const hub = known.hubs.get(id);
    if (!hub || known.job.brief?.hubsOwned?.includes(id)) continue;
    const detail = hub.wired ? 'wired' : 'over the router';
    want(
      { shelf: 'hubs', item: `hub:${id}`, what: hub.name, detail, unit: 'piece', priceEach: hub.price },
      1,
    );
  }
}

type Want = (wanted: Omit<Wanted, 'count' | 'fitted' | 'boxIds'>, count: number, boxId?: string) => void;

function deviceLine(device: Device): Omit<Wanted, 'count' | 'fitted' | 'boxIds'> {
  return {
    shelf: 'devices',
    item: `device:${device.id}`,
    what: deviceName(device),
    detail: device.colours?.[0] ?? '',
    unit: 'piece',
    priceEach: device.price,
  };
}

function partLine(part: Part): Item {
  const detail = part.where === 'fitting' ? 'at the fitting' : part.where === 'box' ? 'in the box' : '';
  return {
    shelf: 'parts',
    item: `part:${part.id}`,
    what: part.name,
    detail,
    unit: 'piece',
    priceEach: part.price,
  };
}

/** A device's share of its time covers so many joints; each further one takes longer, minutes. */
const JOINTS_A_DEVICE = 3;
const MINUTES_A_JOINT = 2;

/**
 * Connectors by size, tails by section and use, flags for what is told apart, screws.
 * @returns minutes that its joints take beyond what each device's share covers
 */
function wantJoints(box: Box, known: JobLookup, want: Want): number {
  const places = chosenPlaces(box, known);
  const planned = plannedDevices(places);
  const plan = planJoints(box, places, known);
  // A switch that stays leaves the box as it is.
  if (planned.length === 0 && plan.wired.out.size === 0) return 0;
  wantConnectors(box, plan, known, want);
  wantTails(box, plan, want);
  const inBox = planned.filter(({ device }) => device.mount === 'box').length;
  if (inBox > 0) want(SCREWS, inBox * SCREWS_A_DEVICE, box.id);
  const told = box.conductors.filter((conductor) => conductor.cableId && conductor.colour !== 'bare').length;
  if (told > 0) want(FLAGS, told, box.id);
  want(PLATE_LABEL, 1, box.id);
  const made = plan.joints.filter(({ kept }) => !kept).length;
  return MINUTES_A_JOINT * Math.max(0, made - JOINTS_A_DEVICE * Math.max(1, inBox));
}

type Item = Omit<Wanted, 'count' | 'fitted' | 'boxIds'>;

const SCREWS: Item = {
  shelf: 'screws',
  item: 'screws',
  what: 'Mounting screws',
  detail: '',
  unit: 'piece',
  priceEach: null,
};
const FLAGS: Item = {
  shelf: 'labels',
  item: 'flags',
  what: 'Conductor flags',
  detail: '',
  unit: 'piece',
  priceEach: null,
};
const PLATE_LABEL: Item = {
  shelf: 'labels',
  item: 'plate-labels',
  what: 'Breaker label for the back of the plate',
  detail: '',
  unit: 'piece',
  priceEach: null,
};

function connectorItem(
  { id, kind, conductors }: Pick<Connector, 'id' | 'kind'> & { conductors: readonly [number, number] },
  priceEach: number | null,
): Item {
  return {
    shelf: 'connectors',
    item: `connector:${id}`,
    what: capital(CONNECTOR_WORDS[kind]),
    detail: `${id}, ${conductors[0]} to ${conductors[1]} conductors`,
    unit: 'piece',
    priceEach,
  };
}

/** One for each joint that is made anew, and the smallest there is as a cap for each loose end. */
function wantConnectors(box: Box, plan: JointPlan, known: JobLookup, want: Want): void {
  const { connectors } = known.job.catalogue;
  for (const { kept, connector } of plan.joints) {
    if (kept || !connector) continue;
    const price = connectors.find(({ id }) => id === connector.id)?.price ?? null;
    want(connectorItem(connector, price), 1, box.id);
  }
  const cap = connectors.find(({ kind }) => kind === 'twist-on' || kind === 'lever');
  if (cap && plan.capped.length > 0) {
    const [least = 2, most = 2] = cap.conductors ?? [];
    want(connectorItem({ ...cap, conductors: [least, most] }, cap.price), plan.capped.length, box.id);
  }
}

function wantTails(box: Box, plan: JointPlan, want: Want): void {
  const nets = new Map(
    plan.joints.flatMap((joint) => joint.members.map((member) => [member, joint.net] as const)),
  );
  for (const piece of plan.made) {
    const use = (nets.get(piece.id) ?? piece.from).split(':')[0] ?? '';
    want(
      {
        shelf: 'conductors',
        item: `tail:${piece.size}:${use}`,
        what: 'Tails and jumpers',
        detail: `${piece.size}, ${use}`,
        unit: 'mm',
        priceEach: null,
      },
      piece.length,
      box.id,
    );
  }
}

/** One plate over the box, unless what goes in brings its own. */
function wantPlate(box: Box, known: JobLookup, want: Want): void {
  const devices = chosenPlaces(box, known).flatMap(({ device }) => (device?.mount === 'box' ? [device] : []));
  if (devices.every((device) => device.ownPlate)) return;
  const { gangs } = box.enclosure;
  const opening = devices.find((device) => device.opening)?.opening ?? 'as found';
  const shade = devices.find((device) => device.shade)?.shade;
  const colour = known.job.brief?.colour ?? devices[0]?.colours?.[0] ?? '';
  const part = known.job.catalogue.parts.find(
    (entry) =>
      entry.kind === 'plate' &&
      entry.gangs === gangs &&
      (entry.opening === undefined || entry.opening === opening) &&
      (!entry.colours?.length || entry.colours.includes(colour)) &&
      (entry.shade === undefined || shade === undefined || entry.shade === shade),
  );
  const detail = [`opening ${opening}`, colour, shade].filter(Boolean).join(', ');
  want(
    {
      shelf: 'plates',
      item: part ? `part:${part.id}` : `plate:${gangs}:${opening}:${colour}:${shade ?? ''}`,
      what: part?.name ?? `Plate, ${plural(gangs, 'gang')}`,
      detail,
      unit: 'piece',
      priceEach: part?.price ?? null,
    },
    1,
    box.id,
  );
}

/** What the packages bring, by the item it saves. */
function packagesOf(devices: readonly Device[], known: JobLookup): Map<string, number> {
  const parts = new Map(known.job.catalogue.parts.map((part) => [part.id, part]));
  const saved = new Map<string, number>();
  for (const { includes } of devices)
    for (const { partId, count } of includes ?? []) {
      const part = parts.get(partId);
      const item = part?.connectorId
        ? `connector:${part.connectorId}`
        : part?.kind === 'screws'
          ? 'screws'
          : `part:${partId}`;
      saved.set(item, (saved.get(item) ?? 0) + (count ?? 1));
    }
  return saved;
}

function summed(
  list: ReadonlyMap<string, Wanted>,
  saved: ReadonlyMap<string, number>,
  known: JobLookup,
  {
    devices,
    openBoxIds,
    jointMinutes,
  }: { devices: readonly Device[]; openBoxIds: string[]; jointMinutes: number },
): Materials {
  const { job } = known;
  const lines = [...list.values()]
    .map(({ count, ...wanted }): MaterialLine => {
      const inPackages = Math.min(count, saved.get(wanted.item) ?? 0);
      const fitted = Math.min(wanted.fitted, count - inPackages);
      const inHand = Math.min(count - inPackages - fitted, job.inHand?.[wanted.item] ?? 0);
      const toBuy = count - inPackages - fitted - inHand;
      return {
        ...wanted,
        needed: count,
        inPackages,
        fitted,
        inHand,
        toBuy,
        price: wanted.priceEach === null ? null : wanted.priceEach * toBuy,
      };
    })
    .sort(
      (a, b) =>
        SHELVES.indexOf(a.shelf) - SHELVES.indexOf(b.shelf) ||
        a.what.localeCompare(b.what) ||
        a.detail.localeCompare(b.detail),
    );
  const total = lines.reduce((sum, line) => sum + (line.price ?? 0), 0);
  const minutes = devices.reduce((sum, device) => sum + minutesOf(device, job), jointMinutes);
  const cost = Math.floor((minutes * (job.money?.labourPerHour ?? 0)) / 60 + 0.5);
  const unpriced = lines.filter((line) => line.price === null && line.toBuy > 0).length;
  const whole = lines.reduce((sum, line) => sum + (line.priceEach ?? 0) * (line.needed - line.inPackages), 0);
  return { lines, total, unpriced, labour: { minutes, cost }, estimate: whole + cost, openBoxIds };
}
