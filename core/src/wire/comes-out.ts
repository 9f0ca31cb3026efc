import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Selection } from '../job/schema/job.js';
import type { Box, Position } from '../job/schema/survey.js';

/** What is planned for a position; without a device the mechanical one stays, or is wired out of the way. */
export interface PlannedPlace {
  position: Position;
  device: Device | null;
  selection: Pick<Selection, 'strategy' | 'with' | 'channels'>;
}

/** A device meant for a position. */
export type PlannedDevice = PlannedPlace & { device: Device };

/**
 * Whether the device goes by being put in: a module at the fitting may leave the switch where it is. A place
 * without one is told by its group.
 */
export function oldDeviceGoes({ position, device }: PlannedDevice): boolean {
  return device.mount !== 'fitting' || position.need?.keepSwitch !== true;
}

/**
 * Whether what the position works is to have power always: bulbs of a controller that switches no wire, and a
 * module at the fitting.
 */
export function joinsLineToLoad({ position, device, selection }: PlannedDevice): boolean {
  if (selection.strategy === 'module') return device.mount === 'fitting' && !position.need?.keepSwitch;
  if (selection.strategy !== 'bulb-controller') return false;
  return !device.channels.some((channel) => channel.alwaysOnMode && channel.kind !== 'dimmer');
}

/** What the job's selections make of a box, whether a device comes or the mechanical one stays. */
export function chosenPlaces(box: Box, known: JobLookup): PlannedPlace[] {
  return box.positions.flatMap((position) => {
    const selection = known.selections.get(placeKey(box.id, position.index));
    if (!selection) return [];
    return [{ position, device: known.devices.get(selection.deviceId ?? '') ?? null, selection }];
  });
}

export const plannedDevices = (places: readonly PlannedPlace[]): PlannedDevice[] =>
  places.filter((place): place is PlannedDevice => place.device !== null);
