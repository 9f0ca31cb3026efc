import {
  CAUSE_WORDS,
  type DeviceStands,
  type DeviceTask,
  deviceName,
  PAIRING_STEP_WORDS,
  placeText,
  wayOf,
} from '@inventario/core';
import { Circle, CircleCheck, CircleDashed, CirclePause, CircleSlash2, type LucideIcon } from 'lucide-react';
import { useLive } from '../../data/live.js';
import { classes } from '../../ui/classes.js';

/** Rooms, their devices, and each app of the brief: where everything stands. */
export function RoomBoard({
  rooms,
  held,
  dark,
  onHold,
}: {
  rooms: { room: { id: string; name: string }; devices: DeviceStands[] }[];
  held: DeviceStands;
  /** The router’s circuit is off. */
  dark: boolean;
  onHold: (task: DeviceTask) => void;
}) {
  return (
    <div className="flex flex-col gap-3">
      {rooms.map(({ room, devices }) => (
        <section key={room.id} aria-label={room.name}>
          <h2 className="mb-1 flex items-baseline gap-2 font-bold">
            {room.name}
            <span className="text-sm font-normal text-soft">
              {devices.filter(({ joinedAt }) => joinedAt !== null).length} of {devices.length} joined
            </span>
          </h2>
          <ul className="grid gap-1.5 xl:grid-cols-2">
            {devices.map((stands) => (
              <li key={stands.task.key}>
                <Row stands={stands} isHeld={stands.task.key === held.task.key} dark={dark} onHold={onHold} />
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

/** What a device’s state looks like, and in a word. */
function stateOf(
  { step, parked, failing, joinedAt, task }: DeviceStands,
  dark: boolean,
): { Icon: LucideIcon; word: string } {
  if (parked) {
    const cause = CAUSE_WORDS[parked.reason as keyof typeof CAUSE_WORDS];
    return { Icon: CirclePause, word: `parked: ${cause?.name ?? parked.reason ?? 'later'}` };
  }
  if (step === 'done') return { Icon: CircleCheck, word: 'done' };
  if (dark && joinedAt === null && wayOf(task) === 'wifi')
    return { Icon: CirclePause, word: 'waits for the router' };
  if (failing) return { Icon: CircleSlash2, word: 'failed' };
  if (joinedAt !== null) return { Icon: Circle, word: `joined, next: ${PAIRING_STEP_WORDS[step]}` };
  return { Icon: CircleDashed, word: 'not joined' };
}

function Row({
  stands,
  isHeld,
  dark,
  onHold,
}: {
  stands: DeviceStands;
  isHeld: boolean;
  dark: boolean;
  onHold: (task: DeviceTask) => void;
}) {
  const { task, channels } = stands;
  const { Icon, word } = stateOf(stands, dark);
  const { states } = useLive();
  const names = channels.flatMap(({ name }) => (name === null ? [] : [name]));
  const platforms = channels[0]?.platforms ?? [];
  const lit = channels.filter(({ task: at }) => states.get(at.id)?.on).length;
  return (
    <button
      type="button"
      aria-pressed={isHeld}
      onClick={() => onHold(task)}
      className={classes(
        'flex min-h-13 w-full items-center gap-2 rounded-lg border bg-sheet px-3 py-1.5 text-left',
        isHeld ? 'border-2 border-ink' : 'border-rule',
      )}
    >
      <Icon aria-hidden className="size-6 shrink-0" />
      <span className="min-w-0 flex-1">
        <span className="font-semibold">{placeText(task)}</span>
        <span className="block truncate text-sm text-soft">
          {names.length > 0 ? names.join(', ') : deviceName(task.device)}
        </span>
      </span>
      <span className="flex max-w-1/2 flex-col items-end text-right text-sm">
        <span className="font-semibold">{word}</span>
        <span className="flex flex-wrap justify-end gap-x-2 text-soft">
          {platforms.map(({ platform, outcome, twice }) => (
            <span key={platform} className="whitespace-nowrap">
              {outcome === 'found' ? (twice ? '2×' : '✓') : outcome === 'missing' ? '✕' : '·'} {platform}
            </span>
          ))}
          {lit > 0 && <span>lit</span>}
        </span>
      </span>
    </button>
  );
}
