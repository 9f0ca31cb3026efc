import { minutesOf } from '../homeplan/units.js';
import type { PlanChoice } from '../homeplan/vocabulary.js';
import { boxesOfRoom, type JobLookup, placeKey, roomsInOrder, wantsSmart } from '../job/lookup.js';
import type { Part } from '../job/schema/catalogue.js';
import type { Load, Room } from '../job/schema/job.js';
import type { Box, Position } from '../job/schema/survey.js';
import { LAMP_KINDS } from '../loads/lamp-kinds.js';

/** Minutes to change a bulb and to join it. */
const BULB_MINUTES = { change: 2, pair: 4 };

export interface SideCost {
  /** Minor units. */
  units: number;
  parts: number;
  labour: number;
  total: number;
  pieces: number;
  /** Clients of the router it would make. */
  clients: number;
}

/** Switches, bulbs, or nothing: what the room's lights would cost either way, and what speaks for which. */
export interface RoomAdvice {
  roomId: string;
  advice: 'switch' | 'bulbs' | 'leave';
  /** Fittings, lamps in them. */
  lamps: number;
  /** Null where no device of the plan serves the room. */
  switches: SideCost | null;
  /** Null where the catalogue has no bulb that suits. */
  bulbs: (SideCost & { bulb: string; bulbPartId: string; controls: number }) | null;
  because: AdviceReason[];
}

export type AdviceReason =
  | 'nobody-asks'
  | 'reckoned-elsewhere'
  | 'no-lamps'
  | 'colour'
  | 'constant-power'
  | 'smart-bulbs-there'
  | 'many-lamps'
  | 'cheaper-switch'
  | 'cheaper-bulbs'
  | 'guests'
  | 'nothing-fits';

/**
 * @param choices of the plan the switches are taken from
 * Prices of bulbs and of a control that keeps guests able to work them come from the catalogue; labour at the
 * job's rate.
 */
export function roomAdvice(room: Room, choices: readonly PlanChoice[], known: JobLookup): RoomAdvice {
  const wanted = wantedPlaces(known).filter((place) => roomOf(place, known) === room.id);
  const loads = [...new Set(wanted.flatMap(({ position }) => position.loadIds))].flatMap(
    (id) => known.loads.get(id) ?? [],
  );
  const lamps = loads.filter((load) => LAMP_KINDS.has(load.kind));
  const count = lamps.reduce((sum, load) => sum + load.count, 0);
  // Either way is reckoned for the places that work lamps; what works a fan stays a matter of switches.
  const lit =
    count > 0
      ? wanted.filter(({ position }) => position.loadIds.some((id) => lamps.some((load) => load.id === id)))
      : wanted;
  const keys = new Set(lit.map(({ box, position }) => placeKey(box.id, position.index)));
  const switches = switchCost(
    choices.filter((choice) => keys.has(placeKey(choice.boxId, choice.position))),
    known,
  );
  const wantsColour = wanted.some(({ position }) => position.need?.colour);
  const bulbs = count > 0 ? bulbCost(lamps, lit.length, wantsColour, known) : null;
  const base = { roomId: room.id, lamps: count, switches, bulbs };
  if (wanted.length === 0) {
    const here = wantedPlaces(known).some(({ box }) => box.roomId === room.id);
    return { ...base, advice: 'leave', because: [here ? 'reckoned-elsewhere' : 'nobody-asks'] };
  }
  if (count === 0)
    return {
      ...base,
      advice: switches ? 'switch' : 'leave',
      because: [switches ? 'no-lamps' : 'nothing-fits'],
    };
  if (bulbs && wantsColour) return { ...base, advice: 'bulbs', because: ['colour', 'guests'] };
  if (bulbs && wanted.some(({ position }) => position.need?.constantPower))
    return { ...base, advice: 'bulbs', because: ['constant-power', 'guests'] };
  if (lamps.every((load) => load.kind === 'smart-bulb'))
    return { ...base, advice: 'bulbs', because: ['smart-bulbs-there', 'guests'] };
  if (!switches)
    return { ...base, advice: bulbs ? 'bulbs' : 'leave', because: [bulbs ? 'guests' : 'nothing-fits'] };
  if (!bulbs || switches.total <= bulbs.total)
    return {
      ...base,
      advice: 'switch',
      because: ['cheaper-switch', ...(count >= 4 ? (['many-lamps'] as const) : [])],
    };
  return { ...base, advice: 'bulbs', because: ['cheaper-bulbs', 'guests'] };
}

interface WantedPlace {
  box: Box;
  position: Position;
}

function wantedPlaces(known: JobLookup): WantedPlace[] {
  return roomsInOrder(known.job).flatMap((room) =>
    boxesOfRoom(known.job, room.id).flatMap((box) =>
      box.positions.filter(wantsSmart).map((position) => ({ box, position })),
    ),
  );
}

/**
 * The room that a place is reckoned with. A lamp counts once, however many switches of however many rooms
 * work it: in the room it hangs in where one of them is there, else with the first of them in walking order;
 * and its switches with it.
 */
function roomOf({ box, position }: WantedPlace, known: JobLookup): string {
  const group = known.groups.get(placeKey(box.id, position.index));
  if (!group) return box.roomId;
  const rooms = wantedPlaces(known).flatMap((place) =>
    known.groups.get(placeKey(place.box.id, place.position.index)) === group ? [place.box.roomId] : [],
  );
  const home = position.loadIds
    .map((id) => known.loads.get(id)?.roomId)
    .find((id) => id !== undefined && rooms.includes(id));
  return home ?? rooms[0] ?? box.roomId;
}

function labourCost(minutes: number, known: JobLookup): number {
  return Math.floor((minutes * (known.job.money?.labourPerHour ?? 0)) / 60 + 0.5);
}

function switchCost(choices: readonly PlanChoice[], known: JobLookup): SideCost | null {
  const devices = choices.flatMap((choice) => known.devices.get(choice.deviceId ?? '') ?? []);
  if (devices.length === 0) return null;
  const units = devices.reduce((sum, device) => sum + device.price, 0);
  const parts = choices
    .flatMap((choice) => choice.with)
    .reduce((sum, id) => sum + (known.job.catalogue.parts.find((part) => part.id === id)?.price ?? 0), 0);
  const labour = labourCost(
    devices.reduce((sum, device) => sum + minutesOf(device, known.job), 0),
    known,
  );
  const clients = devices.filter((device) => device.radio === 'wifi').length;
  return { units, parts, labour, total: units + parts + labour, pieces: devices.length, clients };
}

/**
 * Every lamp of the room changed for the cheapest bulb that does what is asked, and a wireless control at
 * each switch for guests.
 */
function bulbCost(
  lamps: readonly Load[],
  controls: number,
  colour: boolean,
  known: JobLookup,
): RoomAdvice['bulbs'] {
  const { catalogue } = known.job;
  const controllers = catalogue.devices.filter(
    (device) => device.bulbController && device.practices.includes(known.job.practice),
  );
  let best: RoomAdvice['bulbs'] = null;
  for (const bulb of catalogue.parts.filter((part) => part.kind === 'bulb' && (!colour || part.fullColour))) {
    const control = cheapestControl(bulb, controllers);
    if (!control) continue;
    const fresh = lamps
      .filter((load) => load.bulbFamily !== bulb.bulbFamily || load.kind !== 'smart-bulb')
      .reduce((sum, load) => sum + load.count, 0);
    const units = fresh * bulb.price;
    const parts = controls * control.price;
    const labour = labourCost(
      fresh * (BULB_MINUTES.change + BULB_MINUTES.pair) + controls * minutesOf(control, known.job),
      known,
    );
    const total = units + parts + labour;
    if (!best || total < best.total)
      best = {
        units,
        parts,
        labour,
        total,
        pieces: fresh,
        clients: control.hubId ? 0 : fresh,
        bulb: bulb.name,
        bulbPartId: bulb.id,
        controls,
      };
  }
  return best;
}

function cheapestControl(bulb: Part, controllers: JobLookup['job']['catalogue']['devices']) {
  return controllers
    .filter((device) => device.bulbFamilies?.includes(bulb.bulbFamily ?? ''))
    .reduce<(typeof controllers)[number] | undefined>(
      (least, device) => (!least || device.price < least.price ? device : least),
      undefined,
    );
}
