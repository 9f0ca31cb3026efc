import type { JobLookup } from '../../job/lookup.js';
import { breakersKey, namedStates, pointsKey, type Stance, stanceKey } from '../../job/readings.js';
import type { Box, Reading } from '../../job/schema/survey.js';
import type { Arrangement, Core, Point, Test } from './vocabulary.js';

/** What of a box readings can name. */
export interface Named {
  /** The number of each core, by its conductor. */
  number: ReadonlyMap<string, number>;
  grounds: ReadonlySet<string>;
  cores: readonly Core[];
  /** Circuits that may feed the box. */
  breakers: ReadonlySet<string>;
  multiLocation: boolean;
}

/** A reading of a box as a test of it: the state it was taken in, and where it looked. */
export function testOf(reading: Reading, box: Box, named: Named, known: JobLookup): Test {
  const { number, grounds, cores } = named;
  const arrangement = arrangementOf(asFarAsItBears(reading, box, named), number);
  const points = reading.points.map((point): Point => {
    if (reading.tool === 'lamp') return { kind: 'load', loadId: point };
    if (reading.tool === 'breaker') return { kind: 'circuit', circuitId: point };
    if (point === 'box') return { kind: 'box' };
    if (point === 'reference') return { kind: 'reference' };
    const core = number.get(point);
    if (core !== undefined) return { kind: 'core', core };
    return grounds.has(point) ? { kind: 'ground', id: point } : farPoint(point, box, cores, known);
  });
  return { id: reading.id, reading, arrangement, points, key: testKey(reading, arrangement) };
}

/**
 * What a reading names of what can bear on it: breakers that may feed the box, its own switches, and far ones
 * where there are any.
 */
function asFarAsItBears(reading: Reading, box: Box, { breakers, multiLocation }: Named): Reading {
  const own = new Set(box.positions.map(({ index }) => String(index)));
  const bears = (key: string) =>
    own.has(key) || (key.includes('/') && (multiLocation || reading.tool === 'lamp'));
  const only = <State>(record: Readonly<Record<string, State>> | undefined, keep: (key: string) => boolean) =>
    Object.fromEntries(Object.entries(record ?? {}).filter(([key]) => keep(key)));
  const { position, ...rest } = reading;
  // With no device of its own a piece stands the same whichever is out; with one, that one is meant.
  const out =
    box.positions.length === 0
      ? undefined
      : (position ?? (box.positions.length === 1 ? box.positions[0]?.index : undefined));
  return {
    ...rest,
    ...(out === undefined ? {} : { position: out }),
    breakers: only(reading.breakers, (id) => breakers.has(id)),
    switches: only(reading.switches, bears),
  };
}

/**
 * A point of another box, `BOX/ID`. Where a run joins the two boxes by a cable, a conductor there is the
 * other end of one here: the one it is paired with, else the one of its colour if each cable has only one of
 * it. A bonded metal box there is the reference too.
 */
function farPoint(point: string, box: Box, cores: readonly Core[], known: JobLookup): Point {
  const slash = point.indexOf('/');
  const far = slash < 0 ? undefined : known.boxes.get(point.slice(0, slash));
  const id = point.slice(slash + 1);
  if (far && id === 'box')
    return far.enclosure.material === 'metal' && far.enclosure.grounded
      ? { kind: 'reference' }
      : { kind: 'elsewhere' };
  const conductor = far?.conductors.find((entry) => entry.id === id);
  const run = (known.job.runs ?? []).find(
    ({ ends }) =>
      ends.some((end) => end.boxId === box.id) &&
      ends.some((end) => end.boxId === far?.id && end.cableId === conductor?.cableId),
  );
  if (!far || !conductor?.cableId || !run) return { kind: 'elsewhere' };
  const paired = run.pairs?.find((pair) => pair.includes(id))?.find((other) => other !== id);
  const cable = box.cables.findIndex((entry) =>
    run.ends.some((end) => end.boxId === box.id && end.cableId === entry.id),
  );
  const here = cores.flatMap((core, at) => {
    const other =
      paired === undefined ? core.cable === cable && core.colour === conductor.colour : core.id === paired;
    return other ? [at] : [];
  });
  const alike = far.conductors.filter(
    (entry) => entry.cableId === conductor.cableId && entry.colour === conductor.colour,
  ).length;
  const only = here.length === 1 && (paired !== undefined || alike === 1) ? here[0] : undefined;
  return only === undefined ? { kind: 'elsewhere' } : { kind: 'core', core: only, far: true };
}

/** Equal for tests that ask the same in the same state. */
export function testKey(reading: Pick<Reading, 'tool' | 'points'>, arrangement: Arrangement): string {
  return `${reading.tool}|${pointsKey(reading)}|${arrangement.key}`;
}

/** Absent and empty are the same; so is the order of what is named. */
export function arrangementOf(
  reading: Stance & Pick<Reading, 'breakers'>,
  number: ReadonlyMap<string, number>,
): Arrangement {
  const { arrangement: kind } = reading;
  const ids = (record: Record<string, string> | undefined, states: readonly string[]) =>
    new Set(namedStates(record).flatMap(([id, state]) => (states.includes(state) ? [id] : [])));
  return {
    key: `${stanceKey(reading)}${breakersKey(reading)}`,
    kind,
    position: kind === 'device-out' ? (reading.position ?? null) : null,
    lifted: new Set(kind === 'lifted' ? (reading.lifted ?? []).flatMap((id) => number.get(id) ?? []) : []),
    joined: new Set(kind === 'parted' ? (reading.joined ?? []) : []),
    breakers: new Map(namedStates(reading.breakers).map(([id, state]) => [id, state === 'on'])),
    switches: new Map(
      namedStates(reading.switches).map(([id, state]) => [id, state === 'on' || state === 'up']),
    ),
    farParted: ids(reading.boxes, ['parted', 'device-out']),
    out: ids(reading.loads, ['out']),
  };
}
