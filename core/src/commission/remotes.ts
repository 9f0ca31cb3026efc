import { instantOf } from '../job/events.js';
import type { JobLookup } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { ControlPoint } from '../job/schema/job.js';

type PointTarget = ControlPoint['targets'][number];

/** A battery remote or wall control without wires, and which of its targets it is bound to. */
export interface RemoteTask {
  point: ControlPoint;
  device: Device | undefined;
  targets: { target: PointTarget; bound: boolean | null; at: string | null }[];
  done: boolean;
}

/** Every control without a box: each binds straight to what it works, and shows it by a ramp. */
export function remoteTasks(known: JobLookup): RemoteTask[] {
  return (known.job.controlPoints ?? []).map((point) => {
    const targets = point.targets.map((target) => {
      const last = (point.bound ?? [])
        .filter((entry) => isSame(entry, target))
        .reduce<NonNullable<ControlPoint['bound']>[number] | null>(
          (latest, entry) => (latest && instantOf(latest) > instantOf(entry) ? latest : entry),
          null,
        );
      return { target, bound: last?.ok ?? null, at: last?.at ?? null };
    });
    return {
      point,
      device: known.devices.get(point.deviceId),
      targets,
      done: targets.every(({ bound }) => bound === true),
    };
  });
}

const isSame = (one: PointTarget, other: PointTarget) =>
  one.boxId === other.boxId && one.position === other.position && one.loadId === other.loadId;
