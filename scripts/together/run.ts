// One model run: two tabs and two further devices on one job over two servers, doing what comes, while lines,
// pages, servers and the database break.
import {
  type Box,
  type Change,
  type Edit,
  type EditPart,
  type Job,
  putPart,
  readJobDocument,
  removePart,
  sameJson,
  setParts,
} from '@inventario/core';
import { quillonPoint } from '@inventario/demo';
import { Random } from '../../core/src/test-support/random.js';
import { Browser, Device, type Network, type Notes, pause } from './device.js';
import type { House } from './house.js';
import { writtenOver } from './written-over.js';

/** Tabs by the browser they belong to. */
const BROWSERS = { phone: ['phone', 'phone2'], tablet: ['tablet'], laptop: ['laptop'] };
const ACTS = 30;
const BOXES = ['kitchen-door', 'radio-door'];
const AT = '2026-05-04T09:12:00Z';

/** What a run is judged by; every list has to be empty. */
export interface Verdict {
  seed: number;
  edits: number;
  questions: number;
  /** Acknowledged edits that are not in the history. */
  lost: string[];
  /** Edits that were neither applied nor asked about. */
  swallowed: string[];
  /** Readings whose edit was applied and that are not in the job. */
  missing: string[];
  /** Devices that do not show what the server has. */
  apart: string[];
  /** Facts an edit wrote over that its tab had never shown as they stood, and nobody was asked. */
  overwritten: string[];
  /** What is wrong with the document itself. */
  broken: string[];
}

export async function modelRun(seed: number, house: House): Promise<Verdict> {
  const random = new Random(seed);
  const jobId = `model-${seed}`;
  const first = house.servers[0] as string;
  const notes: Notes = { made: new Map(), acknowledged: new Map(), asked: new Set(), shown: new Map() };
  await insist(() => take(first, { ...quillonPoint(), id: jobId }, 'replace'));
  const network: Network = { servers: house.servers, troubled: true };
  const devices = Object.entries(BROWSERS).flatMap(([name, tabs]) => {
    const browser = new Browser(`${jobId}-${name}`, notes);
    return tabs.map((tab) => new Device({ name: tab, browser, jobId, network, random, notes }));
  });
  await Promise.all(devices.map((device) => device.open()));
  const replaced = random.chance(0.15) ? random.int(0, ACTS - 1) : -1;
  const binned = random.chance(0.15) ? random.int(0, ACTS - 1) : -1;

  for (let act = 0; act < ACTS; act++) {
    if (act === replaced)
      await insist(() => take(first, { ...quillonPoint(), id: jobId, name: 'Replaced' }, 'replace'));
    if (act === binned) {
      await insist(() => fetch(`${first}/api/jobs/${jobId}`, { method: 'DELETE' }));
      await insist(() => fetch(`${first}/api/jobs/${jobId}/return`, { method: 'POST' }));
    }
    const device = random.pick(devices);
    if (random.chance(0.07)) await device.reload();
    else doSomething(device, `${device.name}-${act}`, random);
    if (random.chance(0.5)) await pause(random.int(0, 24));
  }
  network.troubled = false;
  const job = await settled(devices, jobId, first, random);
  const changes = await history(first, jobId);
  for (const device of devices) device.session?.close();

  const inHistory = new Map(changes.flatMap(({ edit }) => (edit ? [[edit.id, edit] as const] : [])));
  const began = changes.findLast((change) => change.edit === null)?.sequence ?? 0;
  const ids = [...notes.made.keys()];
  const readings = new Set(job.boxes.flatMap((box) => box.readings.map((reading) => reading.id)));
  const missing = changes.flatMap(({ sequence, edit }) =>
    edit && sequence > began ? readingsAdded(edit).filter((id) => !readings.has(id)) : [],
  );
  const read = readJobDocument(job);
  return {
    seed,
    edits: ids.length,
    questions: notes.asked.size,
    lost: [...notes.acknowledged.keys()].filter((id) => !inHistory.has(id)),
    swallowed: ids.filter((id) => !inHistory.has(id) && !notes.asked.has(id)),
    missing,
    apart: devices.flatMap((device) => (sameJson(device.job(), job) ? [] : [device.name])),
    overwritten: changes.flatMap(({ edit }) => (edit ? writtenOver(edit, notes.made, notes.shown) : [])),
    broken: read.ok ? [] : read.problems.map(({ path, message }) => `${path} ${message}`),
  };
}

/** One act of an installer, whatever the job on the device allows. */
function doSomething({ session }: Device, word: string, random: Random): void {
  if (!session) return;
  const { job, undoLabel } = session.state();
  const box = job.boxes.find((entry) => entry.id === random.pick(BOXES));
  const room = random.pick(job.rooms);
  const kind = random.pick([...ACT_KINDS]);
  const parts = box && room ? partsOf(kind, { job, box, room, word, random }) : [];
  if (parts.length > 0) session.apply(parts, `${kind} ${word}`);
  // Readings are never taken back here, so that every one that was applied has to be there at the end.
  else if (undoLabel && !undoLabel.startsWith('read')) session.undo();
  else session.redo();
}

/** Those that happen more often stand more often. */
const ACT_KINDS = [
  ...['read', 'read', 'read', 'mark', 'mark', 'mark', 'label', 'rename', 'rename'],
  ...['clear', 'move', 'add', 'remove', 'switch', 'undo', 'undo'],
] as const;

interface Scene {
  job: Job;
  box: Box;
  room: Job['rooms'][number];
  word: string;
  random: Random;
}

function partsOf(kind: (typeof ACT_KINDS)[number], { job, box, room, word, random }: Scene): EditPart[] {
  const conductor = random.pick(box.conductors);
  const added = job.rooms.find((entry) => entry.id.startsWith('x-'));
  switch (kind) {
    case 'read': {
      const points = [box.conductors[0]?.id as string];
      const how = { tool: 'indicator', arrangement: 'in-place', value: 'quiet' } as const;
      return setParts('box', box.id, box, {
        readings: [...box.readings, { id: `m-${word}`, at: AT, points, ...how }],
      });
    }
    case 'mark':
      return setParts('box', box.id, box, {
        conductors: box.conductors.map((one) => (one === conductor ? { ...one, marking: word } : one)),
      });
    case 'label': {
      const others = box.labels.filter((label) => label.conductorId !== conductor.id);
      const role = random.pick(['line', 'load', 'neutral'] as const);
      return setParts('box', box.id, box, {
        labels: random.chance(0.2) ? others : [...others, { conductorId: conductor.id, role }],
      });
    }
    case 'rename':
      return setParts('room', room.id, room, { name: word });
    case 'clear':
      return setParts('box', box.id, box, { notes: box.notes ? undefined : word } as Partial<Box>);
    case 'move':
      return [
        ...setParts('room', room.id, room, { order: random.int(1, 90), name: word }),
        ...setParts('job', job.id, job, { address: word }),
      ];
    case 'add':
      return [putPart('room', `x-${word}`, { id: `x-${word}`, name: word, floor: 0, order: 50 })];
    case 'remove':
      return added ? [removePart('room', added.id)] : [];
    case 'switch':
      return [
        putPart('event', `e-${word}`, {
          id: `e-${word}`,
          kind: 'switched',
          circuitId: job.circuits[0]?.id,
          state: 'off',
          at: AT,
        }),
      ];
    default:
      return [];
  }
}

/** Answers every question and waits until every device shows what the server has, with nothing on its way. */
async function settled(
  devices: readonly Device[],
  jobId: string,
  server: string,
  random: Random,
): Promise<Job> {
  for (let tries = 0; tries < 12_000; tries++) {
    await pause(50);
    for (const { session } of devices)
      for (const { edit } of session?.state().questions ?? []) {
        const mine = random.chance(0.5);
        if (session?.settle(edit.id, mine ? 'mine' : 'theirs') !== null) session?.settle(edit.id, 'theirs');
      }
    const states = devices.map((device) => device.session?.state());
    if (states.some((state) => !state || state.pending > 0 || state.questions.length > 0)) continue;
    const response = await fetch(`${server}/api/jobs/${jobId}`).catch(() => undefined);
    if (!response?.ok) continue;
    const job = (await response.json()) as Job;
    if (states.every((state) => sameJson(state?.job, job))) return job;
  }
  return reading<Job>(`${server}/api/jobs/${jobId}`);
}

function readingsAdded(edit: Edit): string[] {
  return edit.parts.flatMap((part) => {
    const { was, now } = part.set?.readings ?? { was: [], now: [] };
    const ids = (list: unknown) => ((list ?? []) as { id: string }[]).map((reading) => reading.id);
    return ids(now).filter((id) => !ids(was).includes(id));
  });
}

async function history(server: string, jobId: string): Promise<Change[]> {
  const all: Change[] = [];
  for (;;) {
    const page = await reading<Change[]>(
      `${server}/api/jobs/${jobId}/changes?since=${all.at(-1)?.sequence ?? 0}`,
    );
    if (page.length === 0) return all;
    all.push(...page);
  }
}

/** What a server says, as soon as it is there to say it: another run may just have killed it. */
async function reading<Answer>(address: string): Promise<Answer> {
  for (;;) {
    const response = await fetch(address).catch(() => undefined);
    if (response?.ok) return (await response.json()) as Answer;
    await pause(50);
  }
}

function take(server: string, job: Job, existing: 'replace'): Promise<Response> {
  return fetch(`${server}/api/jobs?existing=${existing}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(job),
  });
}

/** Until it is done, whatever is down at the moment. */
async function insist(ask: () => Promise<Response>): Promise<void> {
  for (let tries = 0; tries < 600; tries++) {
    const status = await ask().then(
      (response) => response.status,
      () => 0,
    );
    if (status > 0 && status < 500) return;
    await pause(50);
  }
  throw new Error('no server took it');
}
