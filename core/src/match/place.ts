import { isGround } from '../enclosure/as-found.js';
import { type JobLookup, labelsOf, placeKey } from '../job/lookup.js';
import type { Circuit, Group, Load } from '../job/schema/job.js';
import type { Box, Need, Position } from '../job/schema/survey.js';
import { looksLikeGround } from '../practice/wire.js';
import { foundNets, type NetName } from '../wire/found-nets.js';

/** Whether something is in the box: labelled, not there although everything is labelled, or nobody knows yet. */
export type Presence = 'present' | 'absent' | 'unknown';

/** What the findings say of one place, gathered once and asked by every rule for every device. */
export interface PlaceFacts {
  box: Box;
  position: Position;
  need: Need;
  known: JobLookup;
  /** The circuit of the line at this position, where told. */
  circuit: Circuit | undefined;
  /** Circuits that may feed it: the one told, else all of the box. */
  circuits: Circuit[];
  loads: Load[];
  line: Presence;
  load: Presence;
  loadNet: NetName | undefined;
  /** A neutral of the line's circuit. `other`: only neutrals of another circuit. `untold`: one whose circuit nobody named, on two circuits. */
  neutral: Presence | 'other' | 'untold';
  /** `looks`: only colour speaks for it. */
  ground: Presence | 'looks';
  travelers: number;
  group: Group | undefined;
}

/** What the rules of the brief alone look at. */
export interface BriefFacts {
  need: Need;
  known: { job: Pick<JobLookup['job'], 'brief'> };
}

export function placeFacts(box: Box, position: Position, known: JobLookup): PlaceFacts {
  const found = foundNets(box);
  const labels = labelsOf(box);
  const nets = found.names;
  const cable = box.conductors.filter((conductor) => conductor.cableId !== undefined);
  const told = (id: string) => labels.has(id) && labels.get(id)?.role !== 'unknown';
  const allTold = cable.length > 0 && cable.every((conductor) => told(conductor.id) || looksLikeGround(conductor));
  const missing: Presence = allTold ? 'absent' : 'unknown';

  const circuitId = found.circuitOf(position.index);
  const circuit = circuitId === undefined ? undefined : known.circuits.get(circuitId);
  const has = (test: (net: NetName) => boolean) => [...nets].some(test);
  const loadNet = found.loadNet(position.index, position.loadIds);
  const anyLine = has((net) => net.startsWith('line:')) || box.labels.some((label) => label.role === 'line');
  const labelled = cable.filter((conductor) => labels.get(conductor.id)?.role === 'ground');
  return {
    box,
    position,
    need: position.need ?? {},
    known,
    circuit,
    circuits: circuit ? [circuit] : box.circuitIds.flatMap((id) => known.circuits.get(id) ?? []),
    loads: position.loadIds.flatMap((id) => known.loads.get(id) ?? []),
    line: circuit ? 'present' : anyLine ? 'unknown' : missing,
    load: loadNet ? 'present' : missing,
    loadNet,
    neutral: neutralOf(box, nets, circuitId, missing),
    ground: labelled.length > 0 ? 'present' : cable.some((conductor) => isGround(conductor, labels.get(conductor.id))) ? 'looks' : missing,
    travelers: [...nets].filter((net) => net.startsWith('traveler:')).length,
    group: known.groups.get(placeKey(box.id, position.index)),
  };
}

/** A neutral of the circuit of the line, as {@link PlaceFacts} tells it. */
export function neutralOf(box: Box, nets: ReadonlySet<NetName>, circuitId: string | undefined, missing: Presence): PlaceFacts['neutral'] {
  const labelled = box.labels.some((label) => label.role === 'neutral');
  if (!labelled) return missing;
  if (circuitId !== undefined && nets.has(`neutral:${circuitId}`)) return 'present';
  if (circuitId === undefined) return 'unknown';
  const untold = box.labels.some((label) => label.role === 'neutral' && label.circuitId === undefined);
  return untold ? 'untold' : 'other';
}
