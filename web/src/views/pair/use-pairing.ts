import {
  type Addition,
  additionParts,
  type ChannelTask,
  type DeviceStands,
  expectedWatts,
  type JoinRequest,
  type JoinState,
  type PairingAttempt,
  type PairingMark,
  signalAt,
} from '@inventario/core';
import { useEffect, useRef, useState } from 'react';
import { ApiError } from '../../data/api.js';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import type { Adapter, House } from './adapters.js';

export type Band = '2.4' | '5';

interface Means {
  band: Band;
  adapter: Adapter;
}

/** A joining device is asked about this often, ms. */
const LOOK_EVERY = 250;

/** What is done with one device, and how it is written down: at once, and on this device first. */
export function usePairing(stands: DeviceStands, means: Means) {
  const words = useWords(stands, means);
  const asked = useAsked();
  const { house } = means.adapter;
  return {
    ...words,
    running: asked.running,
    failed: asked.failed,
    /** A remedy was carried out: a made-up house takes it as done, a real one has seen nothing. */
    done: async (remedy: string) => {
      const place = stands.task.key;
      const came = house && (await asked.ask(() => house.deed({ place, deed: remedy })));
      words.mark(came?.outcome === 'cannot' ? 'cannot' : 'changed', { reason: remedy });
    },
    /** The same over the house; null where only the installer can tell. */
    overHouse: house && overHouse(house, { stands, band: means.band, words, asked }),
  };
}

type Words = ReturnType<typeof useWords>;
type Asked = ReturnType<typeof useAsked>;

/** What is said of a device by hand, or by the house, in its record. */
function useWords({ task }: DeviceStands, { band, adapter }: Means) {
  const { apply, known } = useJob();
  const first = task.channels[0] as ChannelTask;
  const rssi = signalAt(task.box)?.rssi ?? null;
  const name = task.box.name || 'the device';
  const add = (at: ChannelTask, addition: Addition, label: string) =>
    apply(additionParts(at, addition, newId), label);
  return {
    known,
    first,
    rssi,
    add,
    mark: (what: PairingMark['what'], more: Partial<PairingMark> = {}) =>
      add(first, { marks: [{ id: newId(), at: instant(), what, ...more }] }, `${name}: ${what}`),
    attempt: (came: Pick<PairingAttempt, 'outcome'> & Partial<PairingAttempt>) => {
      const entry: PairingAttempt = {
        id: newId(),
        at: instant(),
        band,
        by: adapter.by,
        ...(rssi === null ? {} : { rssi }),
        ...came,
      };
      const said = came.outcome === 'joined' ? `${name} joined` : `${name} did not join`;
      return add(first, { attempts: [entry] }, said);
    },
  };
}

/** How far a try over the house is, and whether the house answers. */
function useAsked() {
  const [running, setRunning] = useState<JoinState | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const left = useRef(false);
  useEffect(() => {
    left.current = false;
    return () => {
      left.current = true;
    };
  }, []);
  return {
    running,
    failed,
    runs: (step: JoinState | null) => {
      if (!left.current) setRunning(step);
    },
    begins: () => setFailed(null),
    /** Asks the house for something; null where it did not answer. */
    ask: async <Answer>(question: () => Promise<Answer>): Promise<Answer | null> => {
      setFailed(null);
      try {
        return await question();
      } catch (error) {
        if (!left.current) setFailed(failureWords(error));
        return null;
      }
    },
  };
}

/** The house answers that it does not have the device, or nothing answers. */
const failureWords = (error: unknown): string =>
  error instanceof ApiError && error.code === 'not-joined'
    ? 'The house has no device from here: it was joined by hand, or elsewhere. Go on by hand.'
    : 'The house does not answer. What you record by hand is kept all the same.';

function joinRequest({ task, dark }: DeviceStands, band: Band, { known, rssi }: Words): JoinRequest {
  return {
    deviceId: task.device.id,
    place: task.key,
    radio: task.device.radio,
    deviceBands: task.device.wifiBands ?? [],
    phoneBand: band,
    rssi,
    hubId: task.device.hubId ?? null,
    powered: dark.length === 0,
    channels: task.channels.map((at) => ({
      id: at.channel.id,
      watts: expectedWatts(at, known),
      dims: at.channel.kind === 'dimmer',
    })),
  };
}

interface AtHouse {
  stands: DeviceStands;
  band: Band;
  words: Words;
  asked: Asked;
}

/** A try over the house: asked until it has come to an end, and written down. */
async function join(house: House, { stands, band, words, asked }: AtHouse): Promise<void> {
  asked.begins();
  try {
    let step = await house.startJoin(joinRequest(stands, band, words));
    while (step.state === 'running') {
      asked.runs(step);
      await new Promise((done) => setTimeout(done, LOOK_EVERY));
      step = await house.join(step.id);
    }
    words.attempt({
      outcome: step.state === 'joined' ? 'joined' : 'failed',
      seconds: step.seconds,
      ...(step.reason ? { reason: step.reason } : {}),
      ...(step.listed === null ? {} : { listed: step.listed }),
    });
  } catch {
    words.attempt({ outcome: 'failed', reason: 'unreachable' });
  } finally {
    asked.runs(null);
  }
}

/** What a house does itself, and what is written down of it. */
function overHouse(house: House, at: AtHouse) {
  const { task } = at.stands;
  const { known, mark, add } = at.words;
  const { ask } = at.asked;
  return {
    join: () => join(house, at),
    /** What the router or hub says to a look; null for what only eyes can see. */
    look: async (look: string) => {
      const came = await ask(() => house.look({ place: task.key, look }));
      if (came && came.bad !== null) mark('looked', { reason: look, bad: came.bad });
    },
    update: async () => {
      const came = await ask(() => house.updateDevice({ place: task.key }));
      if (came) mark(came.outcome === 'done' ? 'updated' : 'update-stuck', { note: came.version });
    },
    find: async (at: ChannelTask, platform: string, name: string) => {
      const room = known.rooms.get(task.box.roomId)?.name ?? '';
      const place = { place: task.key, channel: at.channel.id };
      const came = await ask(() => house.find({ ...place, platform, name, room }));
      if (!came) return;
      const found = came.routes.map((route) => ({ outcome: 'found' as const, route, room }));
      const looked = found.length > 0 ? found : [{ outcome: 'missing' as const }];
      const reached = looked.map((one) => ({ platform, at: instant(), ...one }));
      add(at, { reached }, `${name}: looked for in ${platform}`);
    },
    say: async (at: ChannelTask, platform: string, words: string) => {
      const came = await ask(() => house.sayWords({ platform, words }));
      if (!came) return;
      const [only, second] = came.answers;
      const ok = !second && only?.place === task.key && only.channel === at.channel.id;
      add(at, { tried: [{ path: 'voice', platform, at: instant(), ok, ms: came.ms }] }, `Said "${words}"`);
    },
    command: async (at: ChannelTask, on: boolean) => {
      const place = { place: task.key, channel: at.channel.id };
      const came = await ask(() => house.command({ ...place, on, from: 'app' }));
      if (came)
        add(at, { tried: [{ path: 'app', at: instant(), ok: true, ms: came.ms }] }, 'Tried in the app');
    },
  };
}

export type PairingWork = ReturnType<typeof usePairing>;
