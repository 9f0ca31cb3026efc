import type { JobLookup } from '../job/lookup.js';
import { circuitPower } from '../power/power.js';
import { routerCircuits } from '../radio/router-circuits.js';
import { wayOf } from './pairing/known.js';
import { type DeviceStands, deviceStands } from './pairing/stands.js';
import { type DeviceTask, deviceTasks } from './pairing/tasks.js';

/** A floor is as far as so many rooms. */
const FLOOR = 3;
/** So many metres on the plan are as far as the next room. */
const ROOM_METRES = 5;

/**
 * The device to be paired next, by the shortest walk from where one stands: in the same box, then the same
 * room, then the nearest room by the plan, or by the order of the walk where no plan is known. Parked ones
 * and those behind a dark circuit are left out; when all are joined, what is not finished comes.
 * @param from the place one is at, `BOX/POSITION`; absent: the door
 */
export function nextToPair(known: JobLookup, from?: string): DeviceTask | null {
  const tasks = deviceTasks(known);
  const dark = routerDark(known);
  const here = tasks.find(({ key }) => key === from);
  const others = tasks.filter(({ key }) => key !== from).map((task) => deviceStands(task, known));
  const waits = ({ task }: DeviceStands) => (dark && wayOf(task) === 'wifi') || hasNoPower(task, known);
  const unjoined = others.filter((one) => one.joinedAt === null && !one.parked && !waits(one));
  const unfinished = others.filter(
    ({ joinedAt, parked, step }) => joinedAt !== null && !parked && step !== 'done',
  );
  const open = (unjoined.length > 0 ? unjoined : unfinished).map(({ task }) => task);
  if (!here) return open[0] ?? null;
  const ordered = open.map((task, rank) => ({ task, far: apart(here, task, known) + rank / 1e6 }));
  return ordered.sort((one, other) => one.far - other.far)[0]?.task ?? null;
}

function apart(here: DeviceTask, there: DeviceTask, known: JobLookup): number {
  if (here.box.id === there.box.id) return 0;
  const [from, to] = [known.rooms.get(here.box.roomId), known.rooms.get(there.box.roomId)];
  if (!from || !to || from.id === to.id) return 0.1;
  const floors = FLOOR * Math.abs(from.floor - to.floor);
  if (from.plan && to.plan)
    return 0.2 + floors + Math.hypot(from.plan.x - to.plan.x, from.plan.y - to.plan.y) / ROOM_METRES;
  return 0.2 + floors + Math.abs(from.order - to.order);
}

const hasNoPower = ({ box }: DeviceTask, { job }: JobLookup) =>
  circuitPower(job).some(({ circuitId, state }) => box.circuitIds.includes(circuitId) && state === 'off');

/** The circuits the router may hang on, when all of them are recorded off: then nothing joins over it. */
export function routerDark(known: JobLookup): string[] | null {
  const circuits = routerCircuits(known);
  const states = circuitPower(known.job).filter(({ circuitId }) => circuits.includes(circuitId));
  return states.length > 0 && states.every(({ state }) => state === 'off') ? circuits : null;
}
