import type { Job } from '../job/schema/job.js';
import type { Box, Reading } from '../job/schema/survey.js';

/**
 * What may be touched, worked out the long way: every question is put to the whole list of events anew, and
 * nothing is kept or indexed. Shares no code with the engine; for boxes of insulated conductors without
 * labels or hazards, at the end of the record.
 */
export function plainPower(job: Job, box: Box, now: number) {
  const events = job.events.map((event, place) => ({
    ...event,
    place,
    time: Date.parse(event.at as string),
  })) as unknown as Entry[];
  const isStruck = (entry: Entry) =>
    events.some((other) => other.kind === 'correction' && other.of === entry.id);
  const later = (a: Entry, b: Entry) => a.time > b.time || (a.time === b.time && a.place > b.place);
  const lastOf = (list: readonly Entry[]) =>
    list.find((entry) => list.every((other) => other === entry || later(entry, other)));
  const lastInFile = (list: readonly Entry[]) =>
    list.find((entry) => list.every((other) => other === entry || entry.place > other.place));
  const switchings = (id: string) =>
    events.filter((entry) => entry.kind === 'switched' && entry.circuitId === id && !isStruck(entry));
  const stateOf = (id: string) => {
    const own = switchings(id);
    if (own.length === 0) return 'unknown';
    return lastInFile(own)?.state === 'on' ? 'on' : (lastOf(own)?.state as 'on' | 'off');
  };
  const shares = (a: string, b: string) =>
    job.circuits.some(
      ({ id, sharesNeutralWith = [] }) =>
        (id === a && sharesNeutralWith.includes(b)) || (id === b && sharesNeutralWith.includes(a)),
    );

  const proof = lastOf(
    events.filter((entry) => entry.kind === 'proved' && entry.boxId === box.id && !isStruck(entry)),
  );
  const live = box.readings
    .filter((reading) => isLive(reading, box))
    .map((reading) => ({ reading, source: sourceOf(reading, box) }));
  let circle = new Set([
    ...box.circuitIds,
    ...(proof?.circuitIds ?? []),
    ...live.flatMap(({ source }) => source ?? []),
  ]);
  for (let round = 0; round < job.circuits.length; round++)
    circle = new Set([
      ...circle,
      ...job.circuits.flatMap(({ id }) => ([...circle].some((other) => shares(id, other)) ? [id] : [])),
    ]);
  const stray = job.circuits
    .map(({ id }) => id)
    .filter((id) => !circle.has(id) && job.boxes.every((other) => !other.circuitIds.includes(id)));

  const since = (entry: Entry) =>
    proof !== undefined && (entry.time >= proof.time || entry.place > proof.place);
  const onsSince = (id: string): Entry[] => {
    if (!proof) return [];
    const ons = events.filter(
      (entry) => entry.kind === 'switched' && entry.circuitId === id && entry.state === 'on',
    );
    const knew = proof.ons?.[id];
    if (knew === undefined) return ons.filter(since);
    // The latest beyond the number that the prover knew.
    return ons.filter((entry) => ons.filter((other) => later(entry, other)).length >= knew);
  };
  const offBefore = (id: string): boolean => {
    if (!proof) return false;
    const named = proof.offs?.[id];
    if (named !== undefined)
      return switchings(id).some((entry) => entry.id === named && entry.state === 'off');
    const byClock = lastOf(switchings(id).filter((entry) => later(proof, entry)));
    const inFile = lastInFile(switchings(id).filter((entry) => entry.place < proof.place));
    return byClock?.state === 'off' && inFile?.state === 'off';
  };
  const cleared = lastOf(
    events.filter(
      (entry) => entry.kind === 'cleared' && entry.hazard === 'live-while-off' && !isStruck(entry),
    ),
  );
  const isCleared = (reading: Reading) => cleared !== undefined && cleared.time >= Date.parse(reading.at);

  const hinders: string[] = [];
  const say = (code: string, id?: string | null, reading?: string) => {
    const text = [code, id, reading].filter(Boolean).join(' ');
    if (!hinders.includes(text)) hinders.push(text);
  };
  for (const id of circle) {
    const own = box.circuitIds.includes(id);
    if (stateOf(id) === 'on') say(own ? 'circuit-on' : 'neighbour-on', id);
    if (stateOf(id) === 'unknown') say(own ? 'circuit-unknown' : 'neighbour-unknown', id);
    if (proof && stateOf(id) === 'off' && (!offBefore(id) || (own && !proof.circuitIds?.includes(id))))
      say('not-proved', id);
    if (onsSince(id).some((entry) => !isStruck(entry))) say('on-unknown-to-prover', id);
  }
  if (!proof || box.circuitIds.length === 0) say('not-proved');
  for (const id of stray) if (stateOf(id) === 'on' || onsSince(id).length > 0) say('unassigned-on', id);
  const lastProved = lastOf(events.filter((entry) => entry.kind === 'proved' && entry.boxId === box.id));
  if (lastProved && isStruck(lastProved)) say('corrected');
  const mountings = events.filter((entry) => entry.kind === 'mounted' && entry.boxId === box.id);
  if (mountings.some((entry) => isStruck(entry) && since(entry))) say('corrected');
  for (const [id, off] of Object.entries(proof?.offs ?? {})) {
    const entry = events.find((other) => other.id === off);
    if (entry && isStruck(entry)) say('corrected', id);
  }
  for (const id of [...circle, ...stray]) if (onsSince(id).some(isStruck)) say('corrected', id);
  for (const { reading, source } of live)
    if (!(proof && proof.time > Date.parse(reading.at)) || (source === null && !isCleared(reading)))
      say('live-reading', source, reading.id);
  if (mountings.some((entry) => !isStruck(entry) && since(entry))) say('closed');
  if (proof && now - proof.time > 12 * 3600 * 1000) say('old');
  if (proof && proof.stage !== 'device-out') say('face-only');
  const stopped = live.some(({ reading, source }) => source === null && !isCleared(reading));
  if (stopped) say('hazard');
  const knownStray = stray.every((id) => onsSince(id).length === 0);
  const holds = hinders.every(
    (text) => text === 'face-only' || text === 'hazard' || (text.startsWith('unassigned-on') && knownStray),
  );
  const dead = proof && holds ? (proof.stage === 'device-out' ? 'device-out' : 'face') : 'none';
  const open = dead === 'device-out' && !stopped;
  return {
    states: job.circuits.map(({ id }) => stateOf(id)),
    hinders: hinders.sort(),
    dead,
    gates: {
      open,
      ohms: dead === 'device-out',
      joint: open,
      neutral: open && !hinders.some((text) => text.startsWith('unassigned-on')),
      energise: open,
    },
  };
}

interface Entry {
  id: string;
  kind: string;
  place: number;
  time: number;
  circuitId?: string;
  boxId?: string;
  state?: string;
  of?: string;
  hazard?: string;
  stage?: string;
  circuitIds?: string[];
  offs?: Record<string, string>;
  ons?: Record<string, number>;
}

/**
 * Low impedance to earth over 6 V, every circuit of the box named off, none on. Readings of one point in one
 * state are made here.
 */
function isLive(reading: Reading, box: Box): boolean {
  const named = Object.entries(reading.breakers ?? {});
  const off = box.circuitIds.length > 0 && box.circuitIds.every((id) => reading.breakers?.[id] === 'off');
  return off && named.every(([, state]) => state === 'off') && Number(reading.value) > 6;
}

function sourceOf(live: Reading, box: Box): string | null {
  const before = Object.keys(live.breakers ?? {});
  const found = box.readings.filter((other, at) => {
    const after = Date.parse(other.at) - Date.parse(live.at);
    const isLater = after > 0 || (after === 0 && at > box.readings.indexOf(live));
    const names = Object.entries(other.breakers ?? {});
    return (
      isLater &&
      Number(other.value) < 5 &&
      names.length === before.length + 1 &&
      names.every(([, state]) => state === 'off') &&
      before.every((id) => other.breakers?.[id] === 'off')
    );
  });
  const [first] = [...found].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  return first ? (Object.keys(first.breakers ?? {}).find((id) => !before.includes(id)) ?? null) : null;
}
