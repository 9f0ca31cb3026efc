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
 * Loads to channels. What the selection says stands; a device of one channel feeds everything on the
 * position; otherwise each load wire takes a channel of its own, so that together the channels carry as much
 * of it as they can: rated for the kind before not, within the rating before over it, a fan on a fan's
 * channel before any other, and in the order of both lists where nothing else decides.
 * @param margin share of a rating to keep to (`figuresInUse`)
 */
export function assignChannels(
  device: Device,
  loads: readonly Load[],
  margin: number,
  chosen: Readonly<Record<string, string>> = {},
): ChannelLoads {
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
  if (rest.length > 0) {
    const assigned = bestAssignment(
      rest,
      channels.filter((channel) => !taken.has(channel)),
      { volts: device.volts[0] ?? 0, margin },
    );
    for (const load of rest) {
      const channel = assigned.get(load);
      if (channel) taken.set(channel, [load]);
      else unfed.push(load);
    }
  }
  return {
    fed: channels.flatMap((channel) =>
      taken.has(channel) ? [{ channel, loads: taken.get(channel) ?? [] }] : [],
    ),
    unfed,
  };
}

/** What loads are judged at: the supply, and the share of a rating to keep to. */
interface Supply {
  volts: number;
  margin: number;
}

/** How well a channel carries a load, best above all: no sum of lesser marks reaches the next. */
function carries(channel: Channel, load: Load, { volts, margin }: Supply): number {
  const { unrated, verdict } = rateChannel(channel, [load], volts, 0, margin);
  const fan = FANS.has(load.kind) && channel.kind === 'fan-speed' && unrated.length === 0 ? 1 : 0;
  if (unrated.length > 0 || neverFeeds(channel.kind, load.kind)) return 1000;
  return { over: 2000, margin: 2900, ok: 3000 }[verdict] + fan * 50;
}

/**
 * Every load tried on every free channel: a device has few of them, and a switch seldom more than one load.
 */
function bestAssignment(
  loads: readonly Load[],
  free: readonly Channel[],
  supply: Supply,
): Map<Load, Channel> {
  const marks = loads.map((load) => free.map((channel) => carries(channel, load, supply)));
  const taken = free.map(() => false);
  const chosen: number[] = loads.map(() => -1);
  let best = -1;
  let bestChosen: number[] = [];
  const place = (at: number, left: number, mark: number): void => {
    if (at === loads.length || left === 0) {
      if (mark > best) {
        best = mark;
        bestChosen = [...chosen];
      }
      return;
    }
    for (let channel = 0; channel < free.length; channel++) {
      if (taken[channel]) continue;
      taken[channel] = true;
      chosen[at] = channel;
      place(at + 1, left - 1, mark + (marks[at]?.[channel] ?? 0));
      chosen[at] = -1;
      taken[channel] = false;
    }
    // More loads than channels: this one may be what is left over.
    if (loads.length - at > left) place(at + 1, left, mark);
  };
  place(0, free.length, 0);
  return new Map(
    loads.flatMap((load, at) => {
      const channel = free[bestChosen[at] ?? -1];
      return channel ? [[load, channel] as const] : [];
    }),
  );
}
