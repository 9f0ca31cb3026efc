import { type JobLookup, placeKey } from '../job/lookup.js';
import type { JointPlan } from '../wire/joint-plan.js';
import { type DevicePromise, promiseOf } from '../wire/proof/promise.js';
import type { BoxToProve } from '../wire/proof/vocabulary.js';
import type { BoxWiring } from '../wire/wiring.js';

/** A box as its plan has it wired. */
export type WiredBox = BoxToProve & { plan: JointPlan };

/** The boxes as wired, and the place that is looked at. */
export interface Scene {
  boxes: readonly WiredBox[];
  devices: readonly DevicePromise[];
  /** The device at the place. */
  own: DevicePromise;
  known: JobLookup;
  /** Far switches that stay, whose two states are both looked at. */
  farSwitches: readonly string[];
  /** Devices of the same light elsewhere. */
  partners: readonly DevicePromise[];
}

/** The scene of a place; undefined: no device is planned there that hangs on wires. */
export function sceneAt(
  unit: readonly BoxWiring[],
  place: { boxId: string; position: number },
  known: JobLookup,
): Scene | undefined {
  const boxes = unit.map(({ box, places, plan }) => ({ box, places, plan, out: plan.wired.out }));
  const { devices } = promiseOf(boxes, known);
  const own = devices.find(({ boxId, position }) => boxId === place.boxId && position === place.position);
  if (!own) return undefined;
  const group = known.groups.get(placeKey(place.boxId, place.position));
  const isOfGroup = (boxId: string, position: number) =>
    group?.places.some((one) => one.boxId === boxId && one.position === position) === true &&
    !(boxId === place.boxId && position === place.position);
  return {
    boxes,
    devices,
    own,
    known,
    partners: devices.filter(({ boxId, position }) => isOfGroup(boxId, position)),
    farSwitches: boxes.flatMap(({ box, out }) =>
      box.positions
        .filter(
          ({ index, existing }) =>
            isOfGroup(box.id, index) &&
            !out.has(index) &&
            (existing === 'three-way' || existing === 'four-way'),
        )
        .map(({ index }) => placeKey(box.id, index)),
    ),
  };
}
