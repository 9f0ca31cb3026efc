import { type JobLookup, radioChannels, type Target, targetId, targetWords } from '@inventario/core';

/** Everything a rule may act on or hear, as options; the value is what a target is known by. */
export function targetOptions(known: JobLookup, rooms: boolean): { value: string; label: string }[] {
  const targets: Target[] = [
    ...radioChannels(known).map(({ box, position, channel }) => ({
      boxId: box.id,
      position: position.index,
      channel: channel.id,
    })),
    ...(known.job.things ?? []).map(({ id }) => ({ thingId: id })),
    ...(rooms ? known.job.rooms.map(({ id }) => ({ roomId: id })) : []),
  ];
  return targets.map((target) => ({
    value: targetId(target),
    label: `${targetWords(target, known)}${target.roomId ? ', the whole room' : ''}`,
  }));
}

/** The target that is known by this. */
export function targetOf(value: string, known: JobLookup): Target {
  const [boxId, position, channel] = value.split('/');
  if (channel !== undefined)
    return { boxId: boxId ?? '', position: Number(position), channel: Number(channel) };
  return known.rooms.has(value) ? { roomId: value } : { thingId: value };
}
