import type { EditPart } from '../job/edit/edit.js';
import { putPart, removePart, setParts } from '../job/edit/parts.js';
import type { JobLookup } from '../job/lookup.js';
import type { Run } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';

type RunEnd = Run['ends'][number];

/** Where a cable of a box goes, when somebody said so. */
export function runOf(boxId: string, cableId: string, known: JobLookup): { run: Run; far: RunEnd } | null {
  for (const run of known.job.runs ?? []) {
    const own = run.ends.findIndex((end) => end.boxId === boxId && end.cableId === cableId);
    const far = own < 0 ? undefined : run.ends[1 - own];
    if (far) return { run, far };
  }
  return null;
}

/**
 * Everything a cable may go to: a breaker, a load, or a cable of another box that no run has yet (or this
 * one's).
 */
export function farEnds(box: Box, cableId: string, known: JobLookup): RunEnd[] {
  const own = runOf(box.id, cableId, known)?.run;
  const taken = new Set(
    (known.job.runs ?? [])
      .filter((run) => run !== own)
      .flatMap((run) => run.ends.map((end) => `${end.boxId}/${end.cableId}`)),
  );
  return [
    ...known.job.circuits.map((circuit) => ({ circuitId: circuit.id })),
    ...known.job.loads.map((load) => ({ loadId: load.id })),
    ...known.job.boxes
      .filter((other) => other.id !== box.id)
      .flatMap((other) => other.cables.map((cable) => ({ boxId: other.id, cableId: cable.id })))
      .filter((end) => !taken.has(`${end.boxId}/${end.cableId}`)),
  ];
}

/** The edit that says where a cable goes, how surely; null takes the saying back. */
export function runParts(
  {
    box,
    cableId,
    far,
    how,
  }: { box: Box; cableId: string; far: RunEnd | null; how: NonNullable<Run['known']> },
  known: JobLookup,
  newId: () => string,
): EditPart[] {
  const before = runOf(box.id, cableId, known)?.run;
  if (!far) return before ? [removePart('run', before.id)] : [];
  const pairs =
    far.boxId && far.cableId ? pairsByColour(box, cableId, known.boxes.get(far.boxId), far.cableId) : [];
  const made: Run = {
    id: before?.id ?? newId(),
    ends: [{ boxId: box.id, cableId }, far],
    known: how,
    ...(pairs.length > 0 ? { pairs } : {}),
  };
  return before
    ? setParts('run', before.id, before, { ...made, pairs: made.pairs })
    : [putPart('run', made.id, made)];
}

/** Conductors of two cable ends that have their colour alone in both: the same wires. */
function pairsByColour(
  box: Box,
  cableId: string,
  other: Box | undefined,
  otherCable: string,
): [string, string][] {
  const inCable = (of: Box | undefined, id: string) =>
    of?.conductors.filter((conductor) => conductor.cableId === id) ?? [];
  const [here, there] = [inCable(box, cableId), inCable(other, otherCable)];
  return here.flatMap((conductor): [string, string][] => {
    const alike = there.filter((entry) => entry.colour === conductor.colour);
    const alone = here.filter((entry) => entry.colour === conductor.colour).length === 1;
    return alone && alike.length === 1 && alike[0] ? [[conductor.id, alike[0].id]] : [];
  });
}

/** The edit that takes a cable's run out with it. */
export function withoutRunOf(boxId: string, cableId: string, known: JobLookup): EditPart[] {
  const found = runOf(boxId, cableId, known);
  return found ? [removePart('run', found.run.id)] : [];
}
