import type { Channel, Device } from '../job/schema/catalogue.js';
import type { Load } from '../job/schema/job.js';

/** Which loads each of a device's channels would feed. `unfed`: loads for which no channel is left. */
export interface ChannelLoads {
  fed: { channel: Channel; loads: Load[] }[];
  unfed: Load[];
}

const FANS = new Set<Load['kind']>(['fan-ac', 'fan-dc', 'fan-remote', 'exhaust-fan']);

function suits(channel: Channel, load: Load): boolean {
  return channel.ratings.some((rating) => rating.kinds.includes(load.kind));
}

/**
 * Loads to channels. What the selection says stands; a device of one channel feeds everything on the position; otherwise each
 * load wire takes a channel of its own, fans the fan channels first, each the first free one rated for its kind.
 */
export function assignChannels(device: Device, loads: readonly Load[], chosen: Readonly<Record<string, string>> = {}): ChannelLoads {
  const channels = device.channels;
  if (channels.length === 1 && channels[0])
    return { fed: loads.length > 0 ? [{ channel: channels[0], loads: [...loads] }] : [], unfed: [] };
  const taken = new Map<Channel, Load[]>();
  const rest: Load[] = [];
  for (const load of loads) {
    const named = channels.find((channel) => chosen[String(channel.id)] === load.id);
    if (named) taken.set(named, [...(taken.get(named) ?? []), load]);
    else rest.push(load);
  }
  const unfed: Load[] = [];
  rest.sort((a, b) => Number(FANS.has(b.kind)) - Number(FANS.has(a.kind)));
  for (const load of rest) {
    const free = channels.filter((channel) => !taken.has(channel));
    const channel =
      (FANS.has(load.kind) ? free.find((entry) => entry.kind === 'fan-speed' && suits(entry, load)) : undefined) ??
      free.find((entry) => suits(entry, load)) ??
      free[0];
    if (channel) taken.set(channel, [load]);
    else unfed.push(load);
  }
  return { fed: channels.flatMap((channel) => (taken.has(channel) ? [{ channel, loads: taken.get(channel) ?? [] }] : [])), unfed };
}
