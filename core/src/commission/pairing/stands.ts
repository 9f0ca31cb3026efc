import { instantOf, lastByClock, mountedBoxes } from '../../job/events.js';
import type { JobLookup } from '../../job/lookup.js';
import { circuitPower } from '../../power/power.js';
import { wiredSteps } from '../../wire/progress.js';
import { folded } from '../names/fold.js';
import { type Entry, storyOf } from './evidence.js';
import type { ChannelTask, DeviceTask } from './tasks.js';

/** The way of a device from its box to the client's words, in order. */
export const PAIRING_STEPS = [
  'wired',
  'powered',
  'ready',
  'joined',
  'updated',
  'named',
  'reached',
  'tried',
] as const;
export type PairingStep = (typeof PAIRING_STEPS)[number];

/** One platform of the brief that the device lists. */
interface PlatformStands {
  platform: string;
  must: boolean;
  outcome: 'found' | 'missing' | null;
  at: string | null;
  /** It is there over two routes: one of them has to go. */
  twice: boolean;
}

export type ControlPath = 'wall' | 'app' | 'voice' | 'remote' | 'automation';

/** One way in which the client works a channel, and how its last trial went. */
export interface PathStands {
  path: ControlPath;
  platform: string | null;
  ok: boolean | null;
  ms: number | null;
  at: string | null;
}

export interface ChannelStands {
  task: ChannelTask;
  name: string | null;
  platforms: PlatformStands[];
  paths: PathStands[];
}

/** Where one device stands, derived from what was recorded. */
export interface DeviceStands {
  task: DeviceTask;
  story: Entry[];
  /** Which steps are done. Joined tells that it was wired, powered and ready. */
  done: ReadonlySet<PairingStep>;
  /** The first step that is not done; `done` when none is left. */
  step: PairingStep | 'done';
  parked: { reason: string | null; at: string } | null;
  joinedAt: string | null;
  attempts: number;
  /** Circuits of its box that are recorded off. */
  dark: string[];
  /** The last try failed, and nothing has joined it since. */
  failing: boolean;
  channels: ChannelStands[];
}

/** Whether a device is in its network now. */
export function isJoined(task: DeviceTask): boolean {
  return joining(task, storyOf(task)) !== null;
}

/** When it joined, if nothing has taken it out since; a word without any try counts as it stands. */
function joining({ channels }: DeviceTask, story: readonly Entry[]): string | null {
  const last = story.findLast(
    (entry) => 'attempt' in entry || ('mark' in entry && entry.mark.what === 'reset'),
  );
  if (last) return 'attempt' in last && last.attempt.outcome === 'joined' ? last.at : wasJoined(story);
  return channels.some(({ record }) => record?.state === 'joined') ? NO_INSTANT : null;
}

/** A later try that failed does not take a device out; setting it back does. */
function wasJoined(story: readonly Entry[]): string | null {
  const reset = story.findLastIndex((entry) => 'mark' in entry && entry.mark.what === 'reset');
  const joined = story
    .slice(reset + 1)
    .findLast((entry) => 'attempt' in entry && entry.attempt.outcome === 'joined');
  return joined?.at ?? null;
}

/** Joined by the word of another program, which does not say when. */
const NO_INSTANT = '';

export function deviceStands(task: DeviceTask, known: JobLookup): DeviceStands {
  const story = storyOf(task);
  const joinedAt = joining(task, story);
  const marks = story.flatMap((entry) => ('mark' in entry ? [entry.mark] : []));
  const park = marks.findLast(({ what }) => what === 'parked' || what === 'resumed');
  const attempts = story.flatMap((entry) => ('attempt' in entry ? [entry.attempt] : []));
  const channels = task.channels.map((channel) => channelStands(channel, joinedAt, known));
  const done = stepsDone({ task, joinedAt, channels, story }, known);
  return {
    task,
    story,
    done,
    step: PAIRING_STEPS.find((step) => !done.has(step)) ?? 'done',
    parked: park?.what === 'parked' ? { reason: park.reason ?? null, at: park.at } : null,
    joinedAt,
    attempts: attempts.length,
    dark: circuitPower(known.job)
      .filter(({ circuitId, state }) => task.box.circuitIds.includes(circuitId) && state === 'off')
      .map(({ circuitId }) => circuitId),
    failing: joinedAt === null && attempts.at(-1)?.outcome === 'failed',
    channels,
  };
}

function stepsDone(
  { task, joinedAt, channels, story }: Pick<DeviceStands, 'task' | 'joinedAt' | 'channels' | 'story'>,
  known: JobLookup,
): ReadonlySet<PairingStep> {
  const joined = joinedAt !== null;
  const mounted = mountedBoxes(known.job).has(task.box.id) || wiredSteps(known.job, task.box.id) > 0;
  const circuits = circuitPower(known.job).filter(({ circuitId }) => task.box.circuitIds.includes(circuitId));
  const powered = circuits.length > 0 && circuits.every(({ state }) => state === 'on');
  const since = joined ? joinedAt : '';
  const isUpdated = story.some(
    (entry) => 'mark' in entry && entry.mark.what === 'updated' && isSince(entry.at, since),
  );
  const facts: Record<PairingStep, boolean> = {
    wired: joined || mounted,
    powered: joined || powered,
    ready: joined || isReady(story),
    joined,
    updated: joined && isUpdated,
    named: channels.every(({ name }) => name !== null),
    reached:
      joined && channels.every(({ platforms }) => platforms.every((one) => !one.must || isReached(one))),
    tried: joined && channels.every(({ paths }) => paths.every(({ ok }) => ok === true)),
  };
  return new Set(PAIRING_STEPS.filter((step) => facts[step]));
}

const isReached = ({ outcome, twice }: PlatformStands) => outcome === 'found' && !twice;

/** Its light was seen in pairing mode, and nothing was tried since. */
function isReady(story: readonly Entry[]): boolean {
  const last = story.findLast((entry) => 'attempt' in entry || entry.mark.what === 'ready');
  return last !== undefined && 'mark' in last;
}

function channelStands(task: ChannelTask, joinedAt: string | null, known: JobLookup): ChannelStands {
  const { record } = task;
  const name = record?.name !== undefined && folded(record.name) !== '' ? record.name : null;
  const since = joinedAt ?? '';
  const reached = (record?.reached ?? []).filter(({ at }) => isSince(at, since));
  const wanted = (known.job.brief?.platforms ?? []).filter((one) => task.device.platforms.includes(one.name));
  const platforms = wanted.map(({ name: platform, want }): PlatformStands => {
    const own = reached.filter((entry) => entry.platform === platform);
    const last = lastByClock(own);
    return {
      platform,
      must: want === 'must',
      outcome: last?.outcome ?? null,
      at: last?.at ?? null,
      twice: routesFound(own) > 1,
    };
  });
  return { task, name, platforms, paths: pathsOf(task, platforms, known) };
}

/** Over how many routes it was found at last. */
function routesFound(reached: NonNullable<NonNullable<ChannelTask['record']>['reached']>): number {
  const routes = new Set(reached.map(({ route }) => route));
  return [...routes].filter(
    (route) => lastByClock(reached.filter((entry) => entry.route === route))?.outcome === 'found',
  ).length;
}

/** Every way in which the client will work this channel. */
function pathsOf(task: ChannelTask, platforms: readonly PlatformStands[], { job }: JobLookup): PathStands[] {
  const remote = job.controlPoints?.some(({ targets }) =>
    targets.some(({ boxId, position }) => boxId === task.box.id && position === task.position.index),
  );
  const rule = job.automations.some(
    ({ enabled, then }) =>
      enabled !== false &&
      then?.some(
        ({ target }) =>
          target.boxId === task.box.id &&
          target.position === task.position.index &&
          target.channel === task.channel.id,
      ),
  );
  const wanted: [ControlPath, string | null][] = [
    ...(task.device.mount === 'fitting' ? [] : [['wall', null] as [ControlPath, null]]),
    ['app', null],
    ...platforms.filter(({ must }) => must).map(({ platform }): [ControlPath, string] => ['voice', platform]),
    ...(remote ? [['remote', null] as [ControlPath, null]] : []),
    ...(rule ? [['automation', null] as [ControlPath, null]] : []),
  ];
  return wanted.map(([path, platform]) => {
    const trials = (task.record?.tried ?? []).filter(
      (trial) => trial.path === path && (platform === null || trial.platform === platform),
    );
    const last = lastByClock(trials);
    return { path, platform, ok: last?.ok ?? null, ms: last?.ms ?? null, at: last?.at ?? null };
  });
}

const isSince = (at: string, since: string) => since === '' || instantOf({ at }) >= instantOf({ at: since });
