import {
  type DeviceStands,
  type DeviceTask,
  deviceStands,
  nextToPair,
  pairingNext,
  plural,
  routerDark,
  tasksByRoom,
} from '@inventario/core';
import { skipToken, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { Segments } from '../../ui/choice.js';
import { Empty } from '../../ui/empty.js';
import { ADAPTERS, type Adapter } from './adapters.js';
import { DeviceInHand } from './device-in-hand.js';
import { HubSteps } from './hub-steps.js';
import { PairHead, PairKeys } from './pair-bar.js';
import { Remotes } from './remotes.js';
import { RoomBoard } from './room-board.js';
import { SiteReckoning } from './site-reckoning.js';
import { type Band, usePairing } from './use-pairing.js';

/** Which devices are in, which are not, and why? */
export function PairView() {
  const { job, known } = useJob();
  const rooms = useMemo(
    () =>
      tasksByRoom(known).map(({ room, tasks }) => ({
        room,
        devices: tasks.map((task) => deviceStands(task, known)),
      })),
    [known],
  );
  const devices = rooms.flatMap((entry) => entry.devices);
  const [search, setSearch] = useSearchParams();
  // The device in the hand stays there, whatever comes of it, until another is taken up.
  const [first] = useState(() => nextToPair(known)?.key);
  const at = search.get('at') ?? first;
  const held = devices.find(({ task }) => task.key === at) ?? devices[0];
  const joined = devices.filter(({ joinedAt }) => joinedAt !== null).length;
  const inWords = `${joined} of ${devices.length} paired`;
  if (!held)
    return (
      <Bench title="Pair" glance={inWords} reckoning={<SiteReckoning devices={[]} />}>
        <h1 className="text-xl font-bold">Pair</h1>
        <Empty title="Nothing to pair yet">
          <p>Devices that were chosen come up here, room by room.</p>
          <Link className="underline" to={paths.board(job.id)}>
            To the board
          </Link>
        </Empty>
      </Bench>
    );
  const hold = (task: DeviceTask) => setSearch({ at: task.key }, { replace: true });
  return <Held key={held.task.key} rooms={rooms} held={held} inWords={inWords} onHold={hold} />;
}

/** How devices are joined is a habit of the day: kept on this device. */
function useAdapter(): [Adapter, (by: Adapter['by']) => void] {
  const [by, setBy] = useState<Adapter['by']>(() =>
    localStorage.getItem('pairing') === 'site' ? 'site' : 'hand',
  );
  return [
    ADAPTERS[by],
    (next) => {
      localStorage.setItem('pairing', next);
      setBy(next);
    },
  ];
}

function Held({
  rooms,
  held,
  inWords,
  onHold,
}: {
  rooms: { room: { id: string; name: string }; devices: DeviceStands[] }[];
  held: DeviceStands;
  inWords: string;
  onHold: (task: DeviceTask) => void;
}) {
  const { known } = useJob();
  const [band, setBand] = useState<Band>('2.4');
  const [adapter, setAdapter] = useAdapter();
  const site = useQuery({
    queryKey: ['site'],
    queryFn: adapter.house?.site ?? skipToken,
    refetchInterval: 4000,
    retry: false,
  });
  const router = adapter.house ? site.data : undefined;
  const next = useMemo(
    () => pairingNext(held, known, { phoneBand: band, router }),
    [held, known, band, router],
  );
  const work = usePairing(held, { band, adapter });
  const dark = routerDark(known);
  const devices = rooms.flatMap((entry) => entry.devices);
  const keys = { stands: held, next, work, onHold };
  return (
    <Bench
      title="Pair"
      glance={inWords}
      reckoning={<SiteReckoning devices={devices} held={held} />}
      bar={{ head: <PairHead stands={held} next={next} />, keys: <PairKeys {...keys} /> }}
    >
      <div className="mb-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <div className="mr-auto">
          <h1 className="text-xl font-bold">Pair</h1>
          <p className="text-soft">{countsInWords(devices, inWords)}</p>
        </div>
      </div>
      {dark && (
        <p role="status" className="mb-2 rounded-md border-2 border-ink p-2">
          The router’s circuit, breaker {dark.map((id) => known.circuits.get(id)?.breaker ?? id).join(', ')},
          is off: Wi-Fi devices wait. What joins through a hub of its own supply can go on.
        </p>
      )}
      <DeviceInHand stands={held} />
      <div className="mb-3 flex flex-wrap gap-x-4 gap-y-2">
        <Segments
          label="Joined"
          value={adapter.by}
          options={[
            { value: 'hand', label: 'by hand' },
            { value: 'site', label: 'over the house' },
          ]}
          onChoice={setAdapter}
        />
        <Segments
          label="The phone is on"
          value={band}
          options={[
            { value: '2.4', label: '2.4 GHz' },
            { value: '5', label: '5 GHz' },
          ]}
          onChoice={setBand}
        />
      </div>
      <HubSteps />
      <Remotes />
      <RoomBoard rooms={rooms} held={held} dark={dark !== null} onHold={onHold} />
    </Bench>
  );
}

function countsInWords(devices: readonly DeviceStands[], inWords: string): string {
  const done = devices.filter(({ step, parked }) => step === 'done' && !parked).length;
  const parked = devices.filter(({ parked: one }) => one).length;
  const failing = devices.filter((one) => one.failing && !one.parked).length;
  return [
    inWords,
    ...(done > 0 ? [`${done} done`] : []),
    ...(failing > 0 ? [`${failing} failing`] : []),
    ...(parked > 0 ? [`${plural(parked, 'device')} parked`] : []),
  ].join(', ');
}
