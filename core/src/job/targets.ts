import type { JobLookup } from './lookup.js';
import { placeKey } from './lookup.js';
import type { Channel, Device } from './schema/catalogue.js';
import type { Automation, Target, Thing } from './schema/commissioning.js';
import type { Job } from './schema/job.js';
import type { Box, Position } from './schema/survey.js';

/** One channel of a device that is chosen for a place. */
export interface ChosenChannel {
  /** `BOX/POSITION/CHANNEL`. */
  id: string;
  box: Box;
  position: Position;
  device: Device;
  channel: Channel;
}

export const channelId = (boxId: string, position: number, channel: number) =>
  `${placeKey(boxId, position)}/${channel}`;

/**
 * Every channel of every chosen device, in the file's order of boxes and positions and the device's of
 * channels.
 */
export function chosenChannels(known: JobLookup, boxes: readonly Box[] = known.job.boxes): ChosenChannel[] {
  return boxes.flatMap((box) =>
    box.positions.flatMap((position) => {
      const deviceId = known.selections.get(placeKey(box.id, position.index))?.deviceId;
      const device = known.devices.get(deviceId ?? '');
      if (!device) return [];
      return device.channels.map((channel) => ({
        id: channelId(box.id, position.index, channel.id),
        box,
        position,
        device,
        channel,
      }));
    }),
  );
}

/** Those that one can speak to: the channels of devices with a radio. */
export const radioChannels = (known: JobLookup, boxes?: readonly Box[]): ChosenChannel[] =>
  chosenChannels(known, boxes).filter(({ device }) => device.radio !== 'none');

/** What of a target is not in the job: the field that names it, or null where all is there. */
export type Dangling = 'boxId' | 'position' | 'channel' | 'thingId' | 'roomId';

/** The readers by which targets are told: of a job, by its lookup, or of a file that is just read. */
export interface TargetGround {
  rooms: { has(id: string): boolean };
  things: { has(id: string): boolean };
  boxes: { has(id: string): boolean };
  /** The channels of the device chosen for a place; undefined where none is. */
  channelsAt(boxId: string, position: number): readonly Channel[] | undefined;
}

export function dangling(target: Target, ground: TargetGround): Dangling | null {
  if (target.roomId !== undefined) return ground.rooms.has(target.roomId) ? null : 'roomId';
  if (target.thingId !== undefined) return ground.things.has(target.thingId) ? null : 'thingId';
  if (target.boxId === undefined || !ground.boxes.has(target.boxId)) return 'boxId';
  const channels = ground.channelsAt(target.boxId, target.position ?? 0);
  if (!channels) return 'position';
  return channels.some(({ id }) => id === target.channel) ? null : 'channel';
}

export function targetGround(job: Job): TargetGround {
  const devices = new Map(job.catalogue.devices.map((device) => [device.id, device]));
  const chosen = new Map(
    job.selections.map(({ boxId, position, deviceId }) => [placeKey(boxId, position), deviceId]),
  );
  const ids = (records: readonly { id: string }[]) => new Set(records.map(({ id }) => id));
  return {
    rooms: ids(job.rooms),
    things: ids(job.things ?? []),
    boxes: ids(job.boxes),
    channelsAt: (boxId, position) => devices.get(chosen.get(placeKey(boxId, position)) ?? '')?.channels,
  };
}

/** Every target that a rule names, with the way to it from the rule. */
export function targetsOf(automation: Automation): { target: Target; path: (string | number)[] }[] {
  const { when } = automation;
  const heard = (['motion', 'humidity', 'tap', 'of'] as const).flatMap((field) => {
    const target = when[field];
    return target ? [{ target, path: ['when', field] }] : [];
  });
  const acted = (automation.then ?? []).map(({ target }, index) => ({
    target,
    path: ['then', index, 'target'],
  }));
  return [...heard, ...acted];
}

/** By what a target is known in answers: `BOX/POSITION/CHANNEL`, or the id of the thing or room. */
export function targetId(target: Target): string {
  return (
    target.thingId ??
    target.roomId ??
    channelId(target.boxId ?? '', target.position ?? 0, target.channel ?? 0)
  );
}

/** A room stands for the channels (by their box's room) and the things in it, sensors apart. */
export function targetsIn(target: Target, channels: readonly ChosenChannel[], things: readonly Thing[]) {
  if (target.roomId === undefined) return [targetId(target)];
  return [
    ...channels.filter(({ box }) => box.roomId === target.roomId).map(({ id }) => id),
    ...things.filter(({ roomId, kind }) => roomId === target.roomId && kind !== 'sensor').map(({ id }) => id),
  ];
}
