import { figuresInUse } from '../job/figures.js';
import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Channel, Device } from '../job/schema/catalogue.js';
import type { Circuit, Job, Load } from '../job/schema/job.js';
import type { WireSize } from '../job/schema/primitives.js';
import type { Box, Position } from '../job/schema/survey.js';
import { smallConductors } from '../power/small-conductors.js';
import { WIRE } from '../practice/wire.js';
import { assignChannels } from './channels.js';
import { demand } from './demand.js';
import { removedSides } from './fins.js';
import { type RatingResult, rateChannel } from './rating.js';
import { isTwoWire } from './terminal-needs.js';

/** What a channel of a device would carry at a place. */
export interface ChannelCarry {
  boxId: string;
  position: number;
  deviceId: string;
  channel: number;
  loads: Load[];
  rating: RatingResult;
  /** Sides broken off for neighbours. */
  removedSides: number;
  /** Of a single kind of lamp: how many the channel allows at most, and how many within its margin. */
  most: { loadId: string; allowed: number; withinMargin: number } | null;
  /** Of a device fed through its lamps: whether they draw enough for it. */
  minimum: {
    watts: number;
    needed: number;
    enough: boolean;
    bypassPartId: string | null;
    bypassed: boolean;
  } | null;
}

const MOST_LAMPS = 999;

/** Each channel of a device at a place, with the loads it would feed. Volts of the box's first circuit. */
export function carryAt(box: Box, position: Position, device: Device, known: JobLookup): ChannelCarry[] {
  const loads = position.loadIds.flatMap((id) => known.loads.get(id) ?? []);
  const volts = known.circuits.get(box.circuitIds[0] ?? '')?.volts ?? device.volts[0] ?? 0;
  const selection = known.selections.get(placeKey(box.id, position.index));
  const sides = removedSides(box, position, device, known);
  const { margin } = figuresInUse(known.job);
  const { fed } = assignChannels(
    device,
    loads,
    margin,
    selection?.deviceId === device.id ? selection.channels : undefined,
  );
  return fed.map(({ channel, loads: own }) => ({
    boxId: box.id,
    position: position.index,
    deviceId: device.id,
    channel: channel.id,
    loads: own,
    rating: rateChannel(channel, own, volts, sides, margin),
    removedSides: sides,
    most: own.length === 1 && own[0] ? mostLamps(channel, own[0], volts, sides, margin) : null,
    minimum: isTwoWire(device) ? minimumOf(channel, own, selection?.with ?? []) : null,
  }));
}

/**
 * How many such lamps a channel allows: the largest count that its rating does not refuse, and that keeps the
 * margin.
 */
function mostLamps(
  channel: Channel,
  load: Load,
  volts: number,
  sides: number,
  margin: number,
): ChannelCarry['most'] {
  if (load.wattsEach <= 0) return null;
  const one = rateChannel(channel, [{ ...load, count: 1 }], volts, sides, margin);
  if (one.unrated.length > 0 || one.share <= 0) return null;
  const count = (limit: number) => Math.min(MOST_LAMPS, Math.floor(limit / one.share + 1e-9));
  return { loadId: load.id, allowed: count(one.limit), withinMargin: count(Math.min(one.limit, margin)) };
}

function minimumOf(
  channel: Channel,
  loads: readonly Load[],
  parts: readonly string[],
): NonNullable<ChannelCarry['minimum']> {
  const watts = loads.reduce((sum, load) => sum + load.count * load.wattsEach, 0);
  const needed = channel.minWatts ?? 0;
  const { bypassPartId = null } = channel;
  const bypassed =
    bypassPartId !== null &&
    (parts.includes(bypassPartId) || loads.some((load) => load.fitted?.includes(bypassPartId)));
  return { watts, needed, enough: watts >= needed || bypassed, bypassPartId, bypassed };
}

/** Every channel of the devices chosen so far. */
export function carryOfHouse(known: JobLookup): ChannelCarry[] {
  return known.job.boxes.flatMap((box) =>
    box.positions.flatMap((position) => {
      const device = known.devices.get(
        known.selections.get(placeKey(box.id, position.index))?.deviceId ?? '',
      );
      return device ? carryAt(box, position, device, known) : [];
    }),
  );
}

/** What is known to hang on a breaker. Receptacles and what no box works are not in it. */
export interface CircuitCarry {
  circuitId: string;
  loads: Load[];
  watts: number;
  amps: number;
  /** Share of the breaker's rating. */
  share: number;
  verdict: 'ok' | 'margin' | 'over';
  /** Loads of boxes on two breakers: which one they hang on is not known. */
  unsure: Load[];
  /** The smallest conductor recorded in its boxes, where its usual breaker is smaller than this one. */
  conductor: { size: WireSize; amps: number; boxId: string } | null;
}

export function carryOfCircuit(circuit: Circuit, known: JobLookup): CircuitCarry {
  const boxes = known.job.boxes.filter((box) => box.circuitIds.includes(circuit.id));
  const sure = new Map<string, Load>();
  const unsure = new Map<string, Load>();
  for (const box of boxes)
    for (const load of box.positions
      .flatMap((position) => position.loadIds)
      .flatMap((id) => known.loads.get(id) ?? []))
      (box.circuitIds.length === 1 ? sure : unsure).set(load.id, load);
  const loads = [...sure.values()];
  const drawn = loads.map((load) => demand(load, circuit.volts));
  const amps = drawn.reduce((sum, entry) => sum + entry.amps, 0);
  const share = circuit.amps > 0 ? amps / circuit.amps : 0;
  return {
    circuitId: circuit.id,
    loads,
    watts: drawn.reduce((sum, entry) => sum + entry.watts, 0),
    amps,
    share,
    verdict: share > 1 + 1e-9 ? 'over' : share > figuresInUse(known.job).margin + 1e-9 ? 'margin' : 'ok',
    unsure: [...unsure.values()].filter((load) => !sure.has(load.id)),
    conductor: weakestConductor(circuit, boxes, known.job),
  };
}

/** Copper against its breaker: the thinnest core that it lets be overloaded. */
function weakestConductor(circuit: Circuit, boxes: readonly Box[], job: Job): CircuitCarry['conductor'] {
  let weakest: CircuitCarry['conductor'] = null;
  for (const box of boxes)
    for (const { circuitId, size, amps } of smallConductors(box, job)) {
      if (circuitId !== circuit.id) continue;
      if (!weakest || WIRE[size].section < WIRE[weakest.size].section)
        weakest = { size, amps, boxId: box.id };
    }
  return weakest;
}

/** Energy of the house in a year, kWh, and its cost in minor units where a tariff is known. */
export interface EnergyUse {
  running: { loadId: string; kWh: number; cost: number | null }[];
  standby: { boxId: string; position: number; deviceId: string; kWh: number; cost: number | null }[];
  total: { runningKWh: number; standbyKWh: number; cost: number | null };
}

const DAYS = 365;

/**
 * @param hoursOf hours a day a load is on
 * @param tariff minor units a kWh; null: cost is not told
 */
export function energyOfHouse(
  known: JobLookup,
  hoursOf: (load: Load) => number,
  tariff: number | null,
): EnergyUse {
  const cost = (kWh: number) => (tariff === null ? null : kWh * tariff);
  const running = known.job.loads.map((load) => {
    const kWh = (load.count * load.wattsEach * hoursOf(load) * DAYS) / 1000;
    return { loadId: load.id, kWh, cost: cost(kWh) };
  });
  const standby = known.job.selections.flatMap((selection) => {
    const device = known.devices.get(selection.deviceId ?? '');
    if (!device?.standbyW) return [];
    const kWh = (device.standbyW * 24 * DAYS) / 1000;
    return [
      { boxId: selection.boxId, position: selection.position, deviceId: device.id, kWh, cost: cost(kWh) },
    ];
  });
  const runningKWh = running.reduce((sum, entry) => sum + entry.kWh, 0);
  const standbyKWh = standby.reduce((sum, entry) => sum + entry.kWh, 0);
  return { running, standby, total: { runningKWh, standbyKWh, cost: cost(runningKWh + standbyKWh) } };
}
