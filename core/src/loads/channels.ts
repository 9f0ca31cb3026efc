import type { Channel, Device } from '../job/schema/catalogue.js';
import type { Load } from '../job/schema/job.js';
import { neverFeeds } from './never-feeds.js';
import { rateChannel } from './rating.js';

/** Which loads each of a device's channels would feed. `unfed`: loads for which no channel is left. */
export interface ChannelLoads {
  fed: { channel: Channel; loads: Load[] }[];
  unfed: Load[];
}

const FANS = new Set<Load['kind']>(['fan-ac', 'fan-dc', 'fan-remote', 'exhaust-fan']);

/**
 * Loads to channels. What the selection says stands; a device of one channel feeds everything on the position; otherwise each load wire
 * takes a channel of its own, so that together the channels carry as much of it as they can: rated for the kind before not, within the
 * rating before over it, a fan on a fan's channel before any other, and in the order of both lists where nothing else decides.
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
  const free = channels.filter((channel) => !taken.has(channel));
  const assigned = bestAssignment(rest, free, device.volts[0] ?? 0);
  for (const [channel, load] of assigned) taken.set(channel, [load]);
  const unfed = rest.filter((load) => ![...assigned.values()].includes(load));
  return { fed: channels.flatMap((channel) => (taken.has(channel) ? [{ channel, loads: taken.get(channel) ?? [] }] : [])), unfed };
}

/** How well a channel carries a load, best above all: no sum of lesser marks reaches the next. */
function carries(channel: Channel, load: Load, volts: number): number {
  const { unrated, verdict } = rateChannel(channel, [load], volts, 0);
  const fan = FANS.has(load.kind) && channel.kind === 'fan-speed' && unrated.length === 0 ? 1 : 0;
  if (unrated.length > 0 || neverFeeds(channel.kind, load.kind)) return 1000;
  return { over: 2000, margin: 2900, ok: 3000 }[verdict] + fan * 50;
}

/** Every load tried on every free channel: a device has few of them. */
function bestAssignment(loads: readonly Load[], free: readonly Channel[], volts: number): Map<Channel, Load> {
  let best: { mark: number; pairs: [Channel, Load][] } = { mark: -1, pairs: [] };
  const place = (at: number, left: readonly Channel[], pairs: [Channel, Load][], mark: number): void => {
    const load = loads[at];
    if (!load || left.length === 0) {
      if (mark > best.mark) best = { mark, pairs };
      return;
    }
    for (const channel of left) {
      const others = left.filter((other) => other !== channel);
      place(at + 1, others, [...pairs, [channel, load]], mark + carries(channel, load, volts));
    }
    // More loads than channels: this one may be what is left over.
    if (loads.length - at > left.length) place(at + 1, left, pairs, mark);
  };
  if (loads.length > 0) place(0, free, [], 0);
  return new Map(best.pairs);
}
