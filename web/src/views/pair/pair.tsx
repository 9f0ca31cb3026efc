import {
  boxesOfRoom,
  deviceName,
  FAILURE_TEXT,
  type JoinState,
  type PairingAttempt,
  type PairingTask,
  pairingHindrance,
  pairingTasks,
  placeKey,
  RADIO_WORDS,
  recordAttempt,
  roomsInOrder,
  signalAt,
} from '@inventario/core';
import { CircleCheck, CircleDashed, CircleSlash2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { api } from '../../data/api.js';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { timeOf } from '../../parts/times.js';
import { Button } from '../../ui/button.js';
import { Segments } from '../../ui/choice.js';
import { classes } from '../../ui/classes.js';
import { Empty } from '../../ui/empty.js';
import { SiteReckoning } from './site-reckoning.js';

type Band = '2.4' | '5';

const keyOf = (task: PairingTask) => `${placeKey(task.box.id, task.position.index)}/${task.channel}`;

/** Which devices are in, which are not, and why? */
export function PairView() {
  const { job, known } = useJob();
  const [phoneBand, setPhoneBand] = useState<Band>('2.4');
  const [held, setHeld] = useState<string | null>(null);
  const rooms = roomsInOrder(job)
    .map((room) => ({ room, tasks: pairingTasks(boxesOfRoom(job, room.id), known) }))
    .filter(({ tasks }) => tasks.length > 0);
  const tasks = rooms.flatMap((entry) => entry.tasks);
  const joined = tasks.filter((task) => task.state === 'joined').length;
  const inWords = `${joined} of ${tasks.length} paired`;
  return (
    <Bench title="Pair" glance={inWords} reckoning={<SiteReckoning tasks={tasks} />}>
      <div className="mb-3 flex flex-wrap items-end gap-4">
        <div className="mr-auto">
          <h1 className="text-xl font-bold">Pair</h1>
          <p className="text-soft">{inWords}</p>
        </div>
        <Segments
          label="The phone is on"
          value={phoneBand}
          options={[
            { value: '2.4', label: '2.4 GHz' },
            { value: '5', label: '5 GHz' },
          ]}
          onChoice={setPhoneBand}
        />
      </div>
      {tasks.length === 0 && (
        <Empty title="Nothing to pair yet">
          <p>Devices that were chosen come up here, room by room.</p>
          <Link className="underline" to={paths.board(job.id)}>
            To the board
          </Link>
        </Empty>
      )}
      {rooms.map(({ room, tasks: own }) => (
        <section key={room.id} aria-label={room.name} className="mb-4">
          <h2 className="mb-1 font-bold text-soft">{room.name}</h2>
          <ul className="flex flex-col gap-2">
            {own.map((task) => (
              <Task
                key={keyOf(task)}
                task={task}
                phoneBand={phoneBand}
                held={held === keyOf(task)}
                onHold={() => setHeld(held === keyOf(task) ? null : keyOf(task))}
              />
            ))}
          </ul>
        </section>
      ))}
    </Bench>
  );
}

const STATE_WORDS = { waiting: 'not tried', joined: 'joined', failed: 'failed', parked: 'parked' } as const;

function Task({
  task,
  phoneBand,
  held,
  onHold,
}: {
  task: PairingTask;
  phoneBand: Band;
  held: boolean;
  onHold: () => void;
}) {
  const { known } = useJob();
  const Icon = task.state === 'joined' ? CircleCheck : task.state === 'failed' ? CircleSlash2 : CircleDashed;
  const last = task.record?.attempts?.at(-1);
  return (
    <li className={classes('rounded-lg border bg-sheet', held ? 'border-2 border-ink' : 'border-rule')}>
      <button
        type="button"
        aria-expanded={held}
        onClick={onHold}
        className="flex min-h-13 w-full flex-wrap items-center gap-x-3 px-3 py-2 text-left"
      >
        <Icon aria-hidden className="size-6" />
        <span className="font-semibold">{task.box.name}</span>
        <span className="text-soft">
          {deviceName(task.device)}, {task.channelName.toLowerCase()}
        </span>
        <span className="ml-auto font-semibold">{STATE_WORDS[task.state]}</span>
        {last?.reason && task.state === 'failed' && (
          <span className="basis-full text-sm">{FAILURE_TEXT[last.reason] ?? last.reason}</span>
        )}
      </button>
      {held && <Attempt task={task} phoneBand={phoneBand} hindrance={pairingHindrance(task.box, known)} />}
    </li>
  );
}

const STEP_WORDS: Record<JoinState['step'], string> = {
  searching: 'looking for the device',
  found: 'found it',
  keys: 'exchanging keys',
  address: 'asking for an address',
  done: 'joined',
};

/** Joins a device over the site, step by step, and records what came of it; a try is never lost. */
function useJoining(task: PairingTask, phoneBand: Band, powered: boolean) {
  const { apply } = useJob();
  const [state, setState] = useState<JoinState | null>(null);
  const [running, setRunning] = useState(false);
  const left = useRef(false);
  useEffect(() => {
    left.current = false;
    return () => {
      left.current = true;
    };
  }, []);
  const rssi = signalAt(task.box)?.rssi ?? null;

  const record = (outcome: Pick<PairingAttempt, 'outcome'> & Partial<PairingAttempt>) => {
    const attempt: PairingAttempt = {
      id: newId(),
      at: instant(),
      band: phoneBand,
      ...(rssi === null ? {} : { rssi }),
      ...outcome,
    };
    apply(
      recordAttempt(task, attempt, newId),
      outcome.outcome === 'joined' ? `${task.box.name} joined` : `${task.box.name} did not join`,
    );
  };
  const join = async () => {
    setRunning(true);
    try {
      let step = await api.startJoin({
        deviceId: task.device.id,
        place: keyOf(task),
        radio: task.device.radio,
        deviceBands: task.device.wifiBands ?? [],
        phoneBand,
        rssi: rssi ?? UNREAD_RSSI,
        needsHub: task.device.hubId !== undefined,
        powered,
      });
      while (step.state === 'running') {
        setState(step);
        await new Promise((done) => setTimeout(done, LOOK_EVERY));
        step = await api.join(step.id);
      }
      setState(step);
      record({
        outcome: step.state === 'joined' ? 'joined' : 'failed',
        seconds: step.seconds,
        ...(step.reason ? { reason: step.reason } : {}),
      });
    } catch {
      setState(null);
      record({ outcome: 'failed', reason: 'unreachable' });
    } finally {
      if (!left.current) setRunning(false);
    }
  };
  return { rssi, state, running, join };
}

/** A joining device is asked about this often, ms. */
const LOOK_EVERY = 250;
/** Taken for a signal that was not read, dBm. */
const UNREAD_RSSI = -60;

/** One try after another; every one is kept. */
function Attempt({
  task,
  phoneBand,
  hindrance,
}: {
  task: PairingTask;
  phoneBand: Band;
  hindrance: ReturnType<typeof pairingHindrance>;
}) {
  const { known } = useJob();
  const { rssi, state, running, join } = useJoining(task, phoneBand, hindrance !== 'circuit-off');
  const breaker = task.box.circuitIds.map((id) => known.circuits.get(id)?.breaker).join(', ');
  const again = task.record ? 'Try again' : 'Try to join';
  return (
    <div className="flex flex-col gap-3 border-t border-rule p-3">
      <p>
        {RADIO_WORDS[task.device.radio]}
        {task.device.wifiBands?.length ? `, hears ${task.device.wifiBands.join(' and ')} GHz` : ''}
        {task.device.hubId &&
          `, through ${known.job.catalogue.hubs.find((hub) => hub.id === task.device.hubId)?.name}`}
        . Signal at the box {rssi === null ? 'not read' : `${rssi} dBm`}.
      </p>
      {hindrance && (
        <p className="font-semibold">
          {hindrance === 'circuit-off'
            ? `Breaker ${breaker} is recorded off: the device has no power.`
            : `Whether breaker ${breaker || '?'} is on was not recorded.`}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <Button kind="main" disabled={running} onClick={() => void join()}>
          {running ? 'Joining …' : task.state === 'joined' ? 'Join it again' : again}
        </Button>
        {state && (
          <div className="flex min-w-40 flex-1 items-center gap-3" role="status">
            <progress
              value={state.progress}
              max={1}
              aria-label="How far it is"
              className="h-3 min-w-24 flex-1 accent-ink"
            />
            <span>{state.state === 'failed' ? 'it failed' : STEP_WORDS[state.step]}</span>
          </div>
        )}
      </div>
      {task.record && <Attempts attempts={task.record.attempts ?? []} />}
    </div>
  );
}

function Attempts({ attempts }: { attempts: readonly PairingAttempt[] }) {
  return (
    <ol aria-label="Attempts" className="text-sm">
      {attempts.map((entry, index) => (
        <li key={entry.id} className="border-t border-rule py-1.5">
          {index + 1}. {timeOf(entry.at)}: {entry.outcome}
          {entry.seconds !== undefined && ` after ${entry.seconds} s`}
          {entry.band && `, phone on ${entry.band} GHz`}
          {entry.rssi !== undefined && `, ${entry.rssi} dBm`}
          {entry.reason && `. ${FAILURE_TEXT[entry.reason] ?? entry.reason}`}
        </li>
      ))}
    </ol>
  );
}
