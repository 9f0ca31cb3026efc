import {
  type ChannelTask,
  channelText,
  deviceName,
  nameFindingText,
  namesOf,
  namingParts,
  plural,
  putPart,
  tasksByRoom,
} from '@inventario/core';
import { CircleCheck, CircleSlash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { NameKeys } from '../../parts/name-keys.js';
import { Button } from '../../ui/button.js';
import { classes } from '../../ui/classes.js';
import { Empty } from '../../ui/empty.js';
import { TextField } from '../../ui/field.js';
import { WordsThatWork } from './words-that-work.js';

type Named = ReturnType<typeof namesOf>[number];

/** Will it understand? */
export function NamesView() {
  const { known } = useJob();
  const names = useMemo(() => namesOf(known), [known]);
  const byChannel = new Map(names.map((entry) => [keyOf(entry), entry]));
  const rooms = tasksByRoom(known).map(({ room, tasks }) => ({
    room,
    channels: tasks.flatMap(({ channels }) => channels).filter((at) => byChannel.has(at.id)),
  }));
  const [held, setHeld] = useState<string | null>(null);
  const open = names.filter(({ findings }) => findings.length > 0).length;
  const inWords =
    names.length === 0
      ? 'no devices with a name'
      : open === 0
        ? 'every name will be understood'
        : `${open} of ${plural(names.length, 'name')} will trouble somebody`;
  const first = rooms
    .flatMap(({ channels }) => channels)
    .find((at) => (byChannel.get(at.id)?.findings.length ?? 0) > 0);
  const heldAt = rooms.flatMap(({ channels }) => channels).find((at) => at.id === held) ?? first;
  return (
    <Bench title="Names" glance={inWords} reckoning={<WordsThatWork names={names} />}>
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <div className="mr-auto">
          <h1 className="text-xl font-bold">Names</h1>
          <p className="text-soft">{inWords}</p>
        </div>
      </div>
      {names.length === 0 && (
        <Empty title="Nothing to name yet">
          <p>Channels of chosen devices with a radio come up here.</p>
        </Empty>
      )}
      {heldAt && <InHand key={heldAt.id} at={heldAt} entry={byChannel.get(heldAt.id)} />}
      <div className="flex flex-col gap-3">
        {rooms.map(({ room, channels }) => (
          <section key={room.id} aria-label={room.name}>
            <h2 className="mb-1 font-bold">{room.name}</h2>
            <ul className="flex flex-col gap-1">
              {channels.map((at) => (
                <li key={at.id}>
                  <Row
                    at={at}
                    entry={byChannel.get(at.id)}
                    isHeld={at.id === heldAt?.id}
                    onHold={() => setHeld(at.id)}
                  />
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </Bench>
  );
}

const keyOf = ({ boxId, position, channel }: Named) => `${boxId}/${position}/${channel}`;

function Row({
  at,
  entry,
  isHeld,
  onHold,
}: {
  at: ChannelTask;
  entry: Named | undefined;
  isHeld: boolean;
  onHold: () => void;
}) {
  const { known } = useJob();
  const findings = entry?.findings ?? [];
  const Icon = findings.length === 0 ? CircleCheck : CircleSlash2;
  return (
    <button
      type="button"
      aria-pressed={isHeld}
      onClick={onHold}
      className={classes(
        'flex min-h-12 w-full items-center gap-2 rounded-lg border bg-sheet px-3 py-1 text-left',
        isHeld ? 'border-2 border-ink' : 'border-rule',
      )}
    >
      <Icon aria-hidden className="size-5 shrink-0" />
      <span className="min-w-0 flex-1">
        <b>{entry?.name ?? 'no name'}</b>
        <span className="ml-2 text-sm text-soft">{channelText(at)}</span>
      </span>
      <span className="max-w-1/2 text-right text-sm">
        {findings.length === 0 ? 'OK' : findings.map((finding) => nameFindingText(finding, known)).join(' ')}
      </span>
    </button>
  );
}

/** The name in the hand: what it is, what speaks against it while typing, what each app shows. */
function InHand({ at, entry }: { at: ChannelTask; entry: Named | undefined }) {
  const { known, job, apply } = useJob();
  const { replaces } = at.position;
  const oldFirst = entry?.findings.some(({ code }) => code === 'old-still-there');
  const platforms = (job.brief?.platforms ?? []).filter(({ name }) => at.device.platforms.includes(name));
  const takeOut = () => {
    const positions = at.box.positions.map((position) =>
      position.index === at.position.index && replaces
        ? { ...position, replaces: { ...replaces, removed: true } }
        : position,
    );
    apply(
      [putPart('box', at.box.id, { ...at.box, positions })],
      `The old ${replaces?.name} is out of its hub`,
    );
  };
  return (
    <section aria-label="In the hand" className="mb-4 rounded-lg border-2 border-ink bg-sheet p-3">
      <h2 className="text-lg font-bold">{channelText(at)}</h2>
      <p className="mb-2 text-soft">
        {deviceName(at.device)}, {known.rooms.get(at.box.roomId)?.name}
      </p>
      {replaces && (
        <div className="mb-2 rounded-md border border-edge p-2">
          <p>
            It replaces “{replaces.name}”{replaces.hub ? ` on ${replaces.hub}` : ''}.{' '}
            {replaces.removed
              ? 'The old one is out of its hub: its name is free.'
              : 'Take the old one out of its hub first, then give this one the name: its rules go on working.'}
          </p>
          {!replaces.removed && (
            <Button className="mt-1" onClick={takeOut}>
              The old one is out
            </Button>
          )}
        </div>
      )}
      {oldFirst && <p className="sr-only">The old device comes out of its hub first.</p>}
      <NameKeys at={at} />
      {platforms.length > 0 && (
        <div className="mt-3 grid gap-2 sm:grid-cols-2">
          {platforms.map(({ name }) => (
            <Shown key={name} at={at} platform={name} />
          ))}
        </div>
      )}
    </section>
  );
}

/** What one app shows, where that is another name. */
function Shown({ at, platform }: { at: ChannelTask; platform: string }) {
  const { apply } = useJob();
  const shown = at.record?.names?.[platform] ?? '';
  return (
    <TextField
      label={`${platform} shows it as`}
      value={shown}
      placeholder={at.record?.name ?? ''}
      maxLength={100}
      onText={(text) => {
        const { [platform]: _, ...others } = at.record?.names ?? {};
        const names = text === '' ? others : { ...others, [platform]: text };
        apply(
          namingParts(at, { names }, newId),
          `${platform} shows ${text || 'the same'}`,
          `${at.id}${platform}`,
        );
      }}
    />
  );
}
