import { settledBox } from '../identify/settled.js';
import { type JobLookup, labelsOf } from '../job/lookup.js';

/** One end of a run at a box. */
interface End {
  boxId: string;
  cableId: string;
}

/**
 * Which boxes each box feeds: a conductor known to carry the line on leaves it by a cable whose other end is
 * there, or in a box that feeds it in turn. A core that passes through a box unbroken leaves it by its other
 * cable.
 *
 *     door ──line-on──► rack ──(unbroken)──► loft          door feeds rack and loft
 */
export function boxesFed(known: JobLookup): ReadonlyMap<string, ReadonlySet<string>> {
  const direct = new Map(known.job.boxes.map(({ id }) => [id, fedDirectly(id, known)]));
  const fed = new Map<string, Set<string>>();
  for (const id of direct.keys()) {
    const reached = new Set<string>();
    const queue = [...(direct.get(id) ?? [])];
    for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
      if (reached.has(next)) continue;
      reached.add(next);
      queue.push(...(direct.get(next) ?? []));
    }
    reached.delete(id);
    fed.set(id, reached);
  }
  return fed;
}

function fedDirectly(boxId: string, known: JobLookup): Set<string> {
  const box = known.boxes.get(boxId);
  if (!box || !farEnds({ boxId }, known).length) return new Set();
  const labels = labelsOf(settledBox(box, known).box);
  const cables = box.conductors.flatMap(({ id, cableId, throughCableId }) =>
    labels.get(id)?.role === 'line-on' ? [cableId, throughCableId].flatMap((cable) => cable ?? []) : [],
  );
  const seen = new Set<string>();
  const queue: End[] = cables.map((cableId) => ({ boxId, cableId }));
  const fed = new Set<string>();
  for (let end = queue.pop(); end; end = queue.pop()) {
    const key = `${end.boxId}|${end.cableId}`;
    if (seen.has(key)) continue;
    seen.add(key);
    for (const far of farEnds(end, known)) {
      fed.add(far.boxId);
      queue.push(...throughHere(far, known));
    }
  }
  return fed;
}

function farEnds({ boxId, cableId }: { boxId: string; cableId?: string }, { job }: JobLookup): End[] {
  return (job.runs ?? []).flatMap(({ ends }) =>
    ends.flatMap((end, at) => {
      const far = ends[1 - at];
      const here = end.boxId === boxId && (cableId === undefined || end.cableId === cableId);
      return here && far?.boxId !== undefined && far.cableId !== undefined
        ? [{ boxId: far.boxId, cableId: far.cableId }]
        : [];
    }),
  );
}

/** Where what comes by a cable leaves the box again without an end in it. */
function throughHere({ boxId, cableId }: End, known: JobLookup): End[] {
  return (known.boxes.get(boxId)?.conductors ?? []).flatMap((core) => {
    if (core.unbroken !== true || !core.cableId || !core.throughCableId) return [];
    if (core.cableId === cableId) return [{ boxId, cableId: core.throughCableId }];
    return core.throughCableId === cableId ? [{ boxId, cableId: core.cableId }] : [];
  });
}
