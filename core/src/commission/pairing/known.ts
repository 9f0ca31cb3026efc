import type { JobLookup } from '../../job/lookup.js';
import { circuitPower } from '../../power/power.js';
import { ENOUGH_BARS, signalAt } from '../../radio/signal.js';
import { hubRecord } from '../hubs.js';
import type { Cause, Way } from './causes.js';
import { isJoined } from './stands.js';
import { type DeviceTask, deviceTasks } from './tasks.js';

/** What the installer's screen knows beside the record. */
export interface PairingSurroundings {
  /** The band of the network the phone is on. */
  phoneBand?: '2.4' | '5' | undefined;
  /** What the router itself says. */
  router?: { clients: number; clientLimit: number } | undefined;
}

export const wayOf = ({ device }: Pick<DeviceTask, 'device'>): Way =>
  device.hubId === undefined && device.radio === 'wifi' ? 'wifi' : 'hub';

/** Almost surely so, and almost surely not. */
const SURELY = 0.95;
const HARDLY = 0.01;

/** What the record of the house says of some causes before a device is tried, as their probability. */
export function knownBeforehand(
  task: DeviceTask,
  known: JobLookup,
  around: PairingSurroundings = {},
): Partial<Record<Cause, number>> {
  return {
    ...ofPower(task, known),
    ...(wayOf(task) === 'wifi' ? ofRouter(task, known, around) : ofHub(task, known)),
    ...ofSignal(task),
  };
}

function ofPower({ box }: DeviceTask, known: JobLookup): Partial<Record<Cause, number>> {
  const states = circuitPower(known.job).filter(({ circuitId }) => box.circuitIds.includes(circuitId));
  if (states.some(({ state }) => state === 'off')) return { 'no-power': SURELY };
  return states.length > 0 && states.every(({ state }) => state === 'on') ? { 'no-power': HARDLY } : {};
}

function ofSignal({ box }: DeviceTask): Partial<Record<Cause, number>> {
  const signal = signalAt(box);
  if (!signal) return {};
  if (signal.bars > ENOUGH_BARS) return { 'weak-signal': 0.02 };
  return { 'weak-signal': signal.bars === ENOUGH_BARS ? 0.08 : signal.bars === 1 ? 0.35 : 0.8 };
}

function ofRouter(
  task: DeviceTask,
  known: JobLookup,
  { phoneBand, router }: PairingSurroundings,
): Partial<Record<Cause, number>> {
  const joined = deviceTasks(known).filter((other) => other.key !== task.key && isJoined(other));
  const overRouter = joined.filter((other) => wayOf(other) === 'wifi').length;
  const { clientsNow, clientLimit } = known.job.brief?.wifi ?? {};
  const [clients, limit] = router
    ? [router.clients, router.clientLimit]
    : [clientsNow === undefined ? undefined : clientsNow + overRouter, clientLimit];
  const bands = task.device.wifiBands;
  return {
    // The same phone and the same words have worked in this house already.
    ...(overRouter > 0 ? { 'wrong-password': 0.03, 'mobile-data': 0.02, 'wrong-band': 0.03 } : {}),
    ...(phoneBand !== undefined && bands
      ? { 'wrong-band': bands.includes(phoneBand) ? HARDLY : SURELY }
      : {}),
    ...(clients !== undefined && limit !== undefined
      ? { 'router-full': clients >= limit ? SURELY : clients > 0.8 * limit ? 0.06 : HARDLY }
      : {}),
  };
}

function ofHub(task: DeviceTask, known: JobLookup): Partial<Record<Cause, number>> {
  const { hubId } = task.device;
  const hub = known.hubs.get(hubId ?? '');
  if (!hub) return {};
  const onIt = deviceTasks(known).filter(
    (other) => other.key !== task.key && other.device.hubId === hubId && isJoined(other),
  ).length;
  const record = hubRecord(known, hub.id);
  return {
    'hub-missing': onIt > 0 || record?.online ? HARDLY : record ? 0.3 : 0.1,
    'hub-full': onIt >= hub.deviceLimit ? SURELY : HARDLY,
  };
}
