import { foundNets, type NetName } from '../electrics/found-nets.js';
import { confirmedRoles } from '../identify/confirmed.js';
import { type Doubt, settledBox } from '../identify/settled.js';
import { isFromOutside, untoldCores } from '../job/conductors.js';
import { type JobLookup, labelsOf, placeKey } from '../job/lookup.js';
import type { Circuit, Group, Load } from '../job/schema/job.js';
import type { Box, Need, Position } from '../job/schema/survey.js';
import { stopCodes } from '../power/box-stops.js';
import type { StopCode } from '../power/vocabulary.js';
import { isGround } from '../practice/wire.js';

/**
 * Whether something is in the box: found, not there although everything is told, nobody knows yet, or
 * doubtful: only a label that a reading or another label contradicts says so.
 */
export type Presence = 'present' | 'absent' | 'unknown' | 'doubtful';

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
  /** The nets that feed its loads. */
  loadNets: readonly NetName[];
  /** Two of its loads hang on one wire. */
  oneWire: boolean;
  /**
   * A neutral of the line's circuit. `other`: only neutrals of another circuit. `untold`: one whose circuit
   * nobody named, on two circuits. `by-traveler`: only an old traveler could bring one.
   */
  neutral: Presence | 'other' | 'untold' | 'by-traveler';
  /** `looks`: only colour speaks for it. */
  ground: Presence | 'looks';
  travelers: number;
  group: Group | undefined;
  /** What stops work at the box. */
  stops: readonly StopCode[];
  /** Labels that are no finding, by the role they name. */
  doubts: readonly Doubt[];
}

/** What the rules of the brief alone look at. */
export interface BriefFacts {
  need: Need;
  known: { job: Pick<JobLookup['job'], 'brief'> };
}

export function placeFacts(surveyed: Box, position: Position, known: JobLookup): PlaceFacts {
  const { box, asLabelled, doubts } = settledBox(surveyed, known);
  const found = findingsAt(box, position, known);
  // What only a doubtful label would bring is neither there nor absent: the rules that need it stop.
  const labelled = doubts.length === 0 ? found : findingsAt(asLabelled, position, known);
  const doubtful = <Value>(trusted: Value, said: Value): Value | 'doubtful' =>
    said === 'present' && trusted !== 'present' ? 'doubtful' : trusted;
  // Written out, so that all places are of one shape: every rule asks them for every device.
  return {
    box,
    position,
    need: needOf(surveyed, position, known),
    known,
    circuit: found.circuit,
    circuits: found.circuits,
    loads: position.loadIds.flatMap((id) => known.loads.get(id) ?? []),
    line: doubtful(found.line, labelled.line),
    load: doubtful(found.load, labelled.load),
    loadNets: found.loadNets,
    oneWire: found.oneWire,
    neutral: doubtful(found.neutral, labelled.neutral),
    ground: doubtful(found.ground, labelled.ground),
    travelers: found.travelers,
    group: known.groups.get(placeKey(box.id, position.index)),
    stops: stopCodes(surveyed, known, (other) => confirmedRoles(other, known)),
    doubts,
  };
}

/** What the labels of a box, as given, say of one place. */
function findingsAt(
  box: Box,
  position: Position,
  known: JobLookup,
): Pick<
  PlaceFacts,
  'circuit' | 'circuits' | 'line' | 'load' | 'loadNets' | 'oneWire' | 'neutral' | 'ground' | 'travelers'
> {
  const found = foundNets(box, known);
  const labels = labelsOf(box);
  const nets = found.names;
  const cable = box.conductors.filter(isFromOutside);
  const allTold = cable.length > 0 && untoldCores(box).length === 0;
  const missing: Presence = allTold ? 'absent' : 'unknown';

  const circuitId = found.circuitOf(position.index);
  const circuit = circuitId === undefined ? undefined : known.circuits.get(circuitId);
  const has = (test: (net: NetName) => boolean) => [...nets].some(test);
  const byLoad =
    position.loadIds.length === 0
      ? [found.loadNet(position.index, [])]
      : position.loadIds.map((id) => found.loadNet(position.index, [id]));
  const loadNets = [...new Set(byLoad.flatMap((net) => net ?? []))];
  const anyLine = has((net) => net.startsWith('line:')) || box.labels.some((label) => label.role === 'line');
  const labelled = cable.filter((conductor) => labels.get(conductor.id)?.role === 'ground');
  return {
    circuit,
    circuits: circuit ? [circuit] : box.circuitIds.flatMap((id) => known.circuits.get(id) ?? []),
    line: circuit ? 'present' : anyLine ? 'unknown' : missing,
    // Two loads of one position, each on a net of its own, are two loads.
    load: loadNets.length > 0 && byLoad.every((net) => net !== undefined) ? 'present' : missing,
    loadNets,
    oneWire: loadNets.length < byLoad.length && loadNets.some((net) => net.includes('+')),
    neutral: neutralOf(box, known, circuitId, missing),
    ground:
      labelled.length > 0
        ? 'present'
        : cable.some((conductor) => isGround(conductor, labels.get(conductor.id)))
          ? 'looks'
          : missing,
    travelers: [...nets].filter((net) => net.startsWith('traveler:')).length,
  };
}

/** A wish that is the light's, not the place's, counts wherever the light is worked from. */
function needOf(box: Box, position: Position, known: JobLookup): Need {
  const own = position.need ?? {};
  const group = known.groups.get(placeKey(box.id, position.index));
  if (!group) return own;
  const all = group.places.flatMap(({ boxId, position: index }) => {
    const need = known.boxes.get(boxId)?.positions.find((other) => other.index === index)?.need;
    return need ? [need] : [];
  });
  const dim = (['must', 'nice'] as const).find((wish) => all.some((need) => need.dim === wish)) ?? own.dim;
  return {
    ...own,
    ...(dim === undefined ? {} : { dim }),
    ...(all.some((need) => need.fanSpeed) ? { fanSpeed: true } : {}),
    ...(all.some((need) => need.constantPower) ? { constantPower: true } : {}),
  };
}

/** A neutral of the circuit of the line, as {@link PlaceFacts} tells it. */
export function neutralOf(
  box: Box,
  known: JobLookup,
  circuitId: string | undefined,
  missing: Presence,
): PlaceFacts['neutral'] {
  const labelled = box.labels.some((label) => label.role === 'neutral');
  if (!labelled) return missing;
  if (circuitId === undefined) return 'unknown';
  if (foundNets(box, known).neutralOf(circuitId, known.job) !== undefined) return 'present';
  const untold = box.labels.some((label) => label.role === 'neutral' && label.circuitId === undefined);
  return untold ? 'untold' : 'other';
}
