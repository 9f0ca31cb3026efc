import type { JobLookup } from '../../job/lookup.js';
import { ENOUGH_BARS, signalAt } from '../../radio/signal.js';
import { type AccountTask, accountTasks, type HubTask, hubTasks, needsAccount } from '../hubs.js';
import { type Advice, nextAction } from './advice.js';
import { evidenceOf } from './evidence.js';
import { knownBeforehand, type PairingSurroundings, wayOf } from './known.js';
import type { ChannelStands, DeviceStands, PathStands } from './stands.js';

/** What comes next for one device. */
export type PairingNext =
  | { kind: 'parked'; reason: string | null }
  /** Its hub comes first. */
  | { kind: 'hub'; hub: HubTask }
  | { kind: 'join'; advice: Advice }
  /** `stuck`: how often an update has stopped so far; `help`: what to try before the next start of it. */
  | { kind: 'update'; stuck: number; help: UpdateHelp | null }
  | { kind: 'name'; channel: ChannelStands }
  /** Its maker's account comes before the apps: made, and linked to this platform. */
  | { kind: 'account'; account: AccountTask; platform: string }
  /** `twice`: it is there over two routes, and one has to go. */
  | { kind: 'reach'; channel: ChannelStands; platform: string; twice: boolean }
  | { kind: 'try'; channel: ChannelStands; path: PathStands }
  /** `wished`: an app that would be nice and was not looked in yet. */
  | { kind: 'done'; wished: { channel: ChannelStands; platform: string } | null };

/** The one thing to do next for a device, from where it stands. */
export function pairingNext(
  stands: DeviceStands,
  known: JobLookup,
  around: PairingSurroundings = {},
): PairingNext {
  if (stands.parked) return { kind: 'parked', reason: stands.parked.reason };
  if (stands.joinedAt === null) return joiningStep(stands, known, around);
  if (!stands.done.has('updated')) return updateStep(stands);
  const unnamed = stands.channels.find(({ name }) => name === null);
  if (unnamed) return { kind: 'name', channel: unnamed };
  for (const channel of stands.channels) {
    const due = channel.platforms.find(({ must, outcome, twice }) => twice || (must && outcome !== 'found'));
    if (!due) continue;
    const account = due.twice ? undefined : accountFirst(stands, due.platform, known);
    if (account) return { kind: 'account', account, platform: due.platform };
    return { kind: 'reach', channel, platform: due.platform, twice: due.twice };
  }
  for (const channel of stands.channels) {
    const path = channel.paths.find(({ ok }) => ok !== true);
    if (path) return { kind: 'try', channel, path };
  }
  return { kind: 'done', wished: wishedFor(stands) };
}

function wishedFor({ channels }: DeviceStands): { channel: ChannelStands; platform: string } | null {
  for (const channel of channels) {
    const open = channel.platforms.find(({ must, outcome }) => !must && outcome === null);
    if (open) return { channel, platform: open.platform };
  }
  return null;
}

function joiningStep(stands: DeviceStands, known: JobLookup, around: PairingSurroundings): PairingNext {
  const { hubId } = stands.task.device;
  const hub = hubId === undefined ? undefined : hubTasks(known).find((task) => task.hub.id === hubId);
  if (hub && (hub.step === 'placed' || hub.step === 'online')) return { kind: 'hub', hub };
  const beforehand = knownBeforehand(stands.task, known, around);
  return { kind: 'join', advice: nextAction(wayOf(stands.task), evidenceOf(stands.story), beforehand) };
}

/** The account over which an app would find the device, where it is not linked to that app yet. */
function accountFirst({ task }: DeviceStands, platform: string, known: JobLookup): AccountTask | undefined {
  const { device } = task;
  if (!needsAccount(device)) return undefined;
  const account = accountTasks(known).find(({ maker }) => maker === device.maker);
  const linked = account?.links.some((link) => link.platform === platform && link.outcome === 'linked');
  return linked ? undefined : account;
}

/** What helps an update that stops: power taken away, a better signal, or time. */
export type UpdateHelp = 'restart' | 'bring-closer' | 'overnight';

/** A weak signal is put right first where it was read; else what was not tried before this time. */
function updateStep({ story, task }: DeviceStands): PairingNext {
  const stuck = story.filter((entry) => 'mark' in entry && entry.mark.what === 'update-stuck').length;
  if (stuck === 0) return { kind: 'update', stuck, help: null };
  const isWeak = (signalAt(task.box)?.bars ?? ENOUGH_BARS) < ENOUGH_BARS;
  const ways: UpdateHelp[] = isWeak ? ['bring-closer', 'restart'] : ['restart', 'bring-closer'];
  return { kind: 'update', stuck, help: ways[stuck - 1] ?? 'overnight' };
}

/** Why a device is put aside before its next step was taken. */
export function parkingReasonOf(next: PairingNext): string {
  if (next.kind === 'join') return next.advice.causes[0]?.cause ?? 'later';
  return next.kind === 'update' && next.stuck > 0 ? 'update-stuck' : 'later';
}
