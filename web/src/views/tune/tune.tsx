import {
  additionParts,
  type ChannelTask,
  channelText,
  deviceName,
  type SettingTask,
  settingTasks,
  tasksByRoom,
} from '@inventario/core';
import { CircleCheck, CircleDashed } from 'lucide-react';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { LiveWatts } from '../../parts/live-watts.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';
import { PickOne, Segments } from '../../ui/choice.js';
import { classes } from '../../ui/classes.js';
import { Empty } from '../../ui/empty.js';
import { TextField } from '../../ui/field.js';
import { TrimKeys } from './trim-keys.js';

interface Tuned {
  at: ChannelTask;
  settings: SettingTask[];
  open: number;
}

/** Is it set the way they like? */
export function TuneView() {
  const { job, known } = useJob();
  const rooms = tasksByRoom(known).map(({ room, tasks }) => ({
    room,
    channels: tasks
      .flatMap(({ channels }) => channels)
      .map((at): Tuned => {
        const settings = settingTasks(at, known);
        return { at, settings, open: settings.filter(({ value }) => value === null).length };
      }),
  }));
  const channels = rooms.flatMap((entry) => entry.channels);
  const [search, setSearch] = useSearchParams();
  const asked = search.get('at');
  const held =
    channels.find(({ at }) => at.id === asked || at.id.startsWith(`${asked}/`)) ??
    channels.find(({ open }) => open > 0) ??
    channels[0];
  const done = channels.filter(({ open }) => open === 0).length;
  const inWords = `${done} of ${channels.length} set`;
  return (
    <Bench title="Tune" glance={inWords} reckoning={held ? <Recorded at={held.at} /> : null}>
      <h1 className="text-xl font-bold">Tune</h1>
      <p className="mb-3 text-soft">{inWords}</p>
      {!held && (
        <Empty title="Nothing to set yet">
          <p>Channels of chosen devices come up here, with the settings that matter for their loads.</p>
          <Link className="underline" to={paths.board(job.id)}>
            To the board
          </Link>
        </Empty>
      )}
      {held && <InHand key={held.at.id} tuned={held} />}
      {rooms.map(({ room, channels: own }) => (
        <section key={room.id} aria-label={room.name} className="mb-3">
          <h2 className="mb-1 font-bold">{room.name}</h2>
          <ul className="grid gap-1.5 xl:grid-cols-2">
            {own.map(({ at, settings, open }) => (
              <li key={at.id}>
                <button
                  type="button"
                  aria-pressed={at.id === held?.at.id}
                  onClick={() => setSearch({ at: at.id }, { replace: true })}
                  className={classes(
                    'flex min-h-12 w-full items-center gap-2 rounded-lg border bg-sheet px-3 py-1 text-left',
                    at.id === held?.at.id ? 'border-2 border-ink' : 'border-rule',
                  )}
                >
                  {open === 0 ? (
                    <CircleCheck aria-hidden className="size-5" />
                  ) : (
                    <CircleDashed aria-hidden className="size-5" />
                  )}
                  <span className="min-w-0 flex-1 font-semibold">{at.record?.name ?? channelText(at)}</span>
                  <span className="text-sm text-soft">
                    {settings.length - open} of {settings.length}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </Bench>
  );
}

const WHO = ['the client', 'the installer'] as const;

/** The settings of one channel, the ones that can spoil its light or its load first. */
function InHand({ tuned: { at, settings } }: { tuned: Tuned }) {
  const { apply } = useJob();
  const [who, setWho] = useState<(typeof WHO)[number]>('the client');
  const record = (name: string, value: string | number) =>
    apply(
      additionParts(at, { settings: [{ name, value, at: instant(), for: who }] }, newId),
      `${name}: ${value}`,
    );
  return (
    <section aria-label="In the hand" className="mb-4 rounded-lg border-2 border-ink bg-sheet p-3">
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <div className="mr-auto">
          <h2 className="text-lg font-bold">{at.record?.name ?? channelText(at)}</h2>
          <p className="text-soft">{deviceName(at.device)}</p>
          <LiveWatts at={at} />
        </div>
        <Segments
          label="Asked for by"
          value={who}
          options={WHO.map((value) => ({ value, label: value }))}
          onChoice={setWho}
        />
      </div>
      <ol className="flex flex-col gap-2">
        {settings.map((setting) => (
          <li key={setting.name} className="border-t border-rule pt-2">
            {setting.bySearch ? (
              <TrimKeys at={at} setting={setting} onFound={(level) => record(setting.name, level)} />
            ) : (
              <OneSetting setting={setting} onValue={(value) => record(setting.name, value)} />
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

function OneSetting({ setting, onValue }: { setting: SettingTask; onValue: (value: string) => void }) {
  const [typed, setTyped] = useState('');
  const value = setting.value === null ? '' : String(setting.value);
  const said = setting.for ? `, asked for by ${setting.for}` : '';
  if (setting.values)
    return (
      <div className="grid items-end gap-2 sm:grid-cols-[1fr_1fr]">
        <PickOne
          label={setting.name}
          value={value}
          placeholder="not set yet"
          options={setting.values.map((one) => ({ value: one, label: one }))}
          onChoice={onValue}
        />
        {value !== '' && (
          <p className="pb-2 text-soft">
            {value}
            {said}
          </p>
        )}
      </div>
    );
  return (
    <div className="grid items-end gap-2 sm:grid-cols-[1fr_auto_1fr]">
      <TextField label={setting.name} value={typed} placeholder={value} maxLength={60} onText={setTyped} />
      <Button
        disabled={typed.trim() === ''}
        onClick={() => {
          onValue(typed.trim());
          setTyped('');
        }}
      >
        Keep
      </Button>
      <p className="pb-2 text-soft">{value === '' ? 'not set yet' : `${value}${said}`}</p>
    </div>
  );
}

/** Everything that was recorded of a channel, the latest first. */
function Recorded({ at }: { at: ChannelTask }) {
  const settings = at.record?.settings ?? [];
  return (
    <section>
      <h2 className="mb-1 font-bold">Recorded</h2>
      {settings.length === 0 ? (
        <p>Nothing yet.</p>
      ) : (
        <ol className="text-sm">
          {settings.toReversed().map((setting) => (
            <li key={`${setting.name}${setting.at}`} className="border-t border-rule py-1">
              {setting.name}: {String(setting.value)}
              {setting.for && <span className="text-soft">, asked for by {setting.for}</span>}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
