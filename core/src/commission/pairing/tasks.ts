import { boxesOfRoom, type JobLookup, placeKey, roomsInOrder } from '../../job/lookup.js';
import type { Channel, Device } from '../../job/schema/catalogue.js';
import type { Pairing } from '../../job/schema/commissioning.js';
import type { Room } from '../../job/schema/job.js';
import type { Box, Position } from '../../job/schema/survey.js';
import { type ChosenChannel, channelId } from '../../job/targets.js';
import { pairingOf } from './record.js';

/** One channel of a device, with what was recorded of it. */
export interface ChannelTask extends ChosenChannel {
  record: Pairing | undefined;
}

/** One device to be joined, at its place. */
export interface DeviceTask {
  /** `BOX/POSITION`. */
  key: string;
  box: Box;
  position: Position;
  device: Device;
  channels: ChannelTask[];
}

/** Every chosen device with a radio, in walking order: by room, then by box and position. */
export function deviceTasks(known: JobLookup): DeviceTask[] {
  return roomsInOrder(known.job).flatMap((room) =>
    boxesOfRoom(known.job, room.id).flatMap((box) => tasksOfBox(box, known)),
  );
}

/** Those of one box, by position. A device without channels, a wall control say, joins as one. */
export function tasksOfBox(box: Box, known: JobLookup): DeviceTask[] {
  return box.positions.flatMap((position): DeviceTask[] => {
    const key = placeKey(box.id, position.index);
    const device = known.devices.get(known.selections.get(key)?.deviceId ?? '');
    if (!device || device.radio === 'none') return [];
    const channels = (device.channels.length > 0 ? device.channels : [CONTROLS]).map((channel) => {
      const chosen = { id: channelId(box.id, position.index, channel.id), box, position, device, channel };
      return { ...chosen, record: pairingOf(known.job, chosen) };
    });
    return [{ key, box, position, device, channels }];
  });
}

const CONTROLS: Channel = { id: 1, name: 'Controls', kind: 'relay', ratings: [] };

/** The same by room, rooms without any left out. */
export function tasksByRoom(known: JobLookup): { room: Room; tasks: DeviceTask[] }[] {
  const tasks = deviceTasks(known);
  return roomsInOrder(known.job)
    .map((room) => ({ room, tasks: tasks.filter(({ box }) => box.roomId === room.id) }))
    .filter((entry) => entry.tasks.length > 0);
}
