import { instantOf } from '../../job/events.js';
import type { PairingAttempt, PairingMark } from '../../job/schema/commissioning.js';
import type { Evidence } from './belief.js';
import {
  CAUSE_FACTS,
  CAUSES,
  type Cause,
  LOOK_FACTS,
  LOOKS,
  type Look,
  type Remedy,
  SEEN,
  type Seen,
} from './causes.js';
import type { DeviceTask } from './tasks.js';

/** One entry of a device's story: a try, or something seen or done between. */
export type Entry = { at: string } & ({ attempt: PairingAttempt } | { mark: PairingMark });

/** What was recorded of joining one device, of all its channels, by the clock. */
export function storyOf({ channels }: Pick<DeviceTask, 'channels'>): Entry[] {
  const entries = channels.flatMap(({ record }): Entry[] => [
    ...(record?.attempts ?? []).map((attempt) => ({ at: attempt.at, attempt })),
    ...(record?.marks ?? []).map((mark) => ({ at: mark.at, mark })),
  ]);
  return entries
    .map((entry, index) => ({ entry, index }))
    .sort((one, other) => instantOf(one.entry) - instantOf(other.entry) || one.index - other.index)
    .map(({ entry }) => entry);
}

/** What the story says of why it does not join: from the last joining, or from when it was set back. */
export function evidenceOf(story: readonly Entry[]): Evidence[] {
  const from = story.findLastIndex(
    (entry) =>
      ('attempt' in entry && entry.attempt.outcome === 'joined') ||
      ('mark' in entry && (entry.mark.what === 'reset' || entry.mark.what === 'resumed')),
  );
  return story
    .slice(from + 1)
    .flatMap((entry) => ('attempt' in entry ? triedAs(entry.attempt) : markedAs(entry.mark)));
}

/**
 * A try as evidence. Its reason is what the app said; where the installer or another program named the cause
 * itself, that counts as a look at it. One that never reached the site says nothing.
 */
function triedAs({ outcome, reason, listed, changed }: PairingAttempt): Evidence[] {
  const done = (changed ?? []).filter(isRemedy).map((remedy): Evidence => ({ kind: 'done', remedy }));
  if (outcome === 'joined') return [...done, { kind: 'tried', seen: 'joined' }];
  if (isSeen(reason)) return [...done, { kind: 'tried', seen: reason, listed }];
  if (!isCause(reason)) return done;
  const look = lookAt(reason);
  const likeliest = Object.entries(CAUSE_FACTS[reason].sees).sort(([, a], [, b]) => b - a)[0]?.[0];
  return [
    ...done,
    { kind: 'tried', seen: (likeliest ?? 'lost') as Seen },
    ...(look ? [{ kind: 'looked' as const, look, bad: true }] : []),
  ];
}

function markedAs({ what, reason, bad }: PairingMark): Evidence[] {
  if (what === 'ready') return [{ kind: 'looked', look: 'light', bad: false }];
  if (what === 'looked' && isLook(reason)) return [{ kind: 'looked', look: reason, bad: bad === true }];
  if (what === 'changed' && isRemedy(reason)) return [{ kind: 'done', remedy: reason }];
  if (what === 'cannot' && isRemedy(reason)) return [{ kind: 'cannot', remedy: reason }];
  return [];
}

/** The look that tells of a cause. */
const lookAt = (cause: Cause): Look | undefined =>
  LOOKS.find((look) => look !== 'listed' && LOOK_FACTS[look].cause === cause);

export const isSeen = (word: string | undefined): word is Seen =>
  word !== undefined && word !== 'joined' && (SEEN as readonly string[]).includes(word);
export const isCause = (word: string | undefined): word is Cause =>
  word !== undefined && (CAUSES as readonly string[]).includes(word);
const isLook = (word: string | undefined): word is Look =>
  word !== undefined && (LOOKS as readonly string[]).includes(word);
const isRemedy = (word: string | undefined): word is Remedy =>
  CAUSES.some((cause) => CAUSE_FACTS[cause].remedy === word);
