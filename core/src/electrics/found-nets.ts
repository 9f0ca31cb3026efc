import { type JobLookup, labelsOf, placeKey } from '../job/lookup.js';
import { looseEnds } from '../job/loose-ends.js';
import { sharesByCommonTrip } from '../job/neutral-families.js';
import type { Job } from '../job/schema/job.js';
import type { Box, Conductor, Label } from '../job/schema/survey.js';
import { isGround } from '../practice/wire.js';
import { KeptWhile, perObject, sameEntries } from '../units/kept.js';
import { Joined } from './joined.js';

/**
 * Names of nets: `line:c7`, `neutral:c7`, `ground`, `load:l1` (`load:l1+l2`), `traveler:g1:1`,
 * `switched-line:w3`, `isolated:w5` for what nobody identified.
 */
export type NetName = string;

/**
 * The net a cable conductor belongs to by its label; a box on one circuit lends it to labels that name none.
 */
function netOf(box: Box, conductor: Conductor, label: Label | undefined): NetName {
  const circuit = label?.circuitId ?? (box.circuitIds.length === 1 ? box.circuitIds[0] : undefined);
  switch (label?.role) {
    case 'line':
    case 'line-on':
      return circuit ? `line:${circuit}` : `isolated:${conductor.id}`;
    case 'neutral':
      return circuit ? `neutral:${circuit}` : `isolated:${conductor.id}`;
    case 'load':
      return `load:${label.loadIds?.length ? [...label.loadIds].sort().join('+') : conductor.id}`;
    case 'traveler':
      return label.groupId
        ? `traveler:${label.groupId}:${label.traveler ?? conductor.id}`
        : `isolated:${conductor.id}`;
    case 'switched-line':
      return `switched-line:${conductor.id}`;
    case 'ground':
      return 'ground';
    default:
      return isGround(conductor, label) ? 'ground' : `isolated:${conductor.id}`;
  }
}

/**
 * What hangs together in the box as found: joints and terminals, merged by pigtails and jumpers.
 *
 *     feed ──(joint j1)──P1── terminal 1.a ──P2── terminal 2.a      one node: j1, 1.a, 2.a
 *     lamp ── terminal 1.b                                          another
 */
export class FoundNets {
  private readonly joined = new Joined();
  private readonly nets = new Map<string, Set<NetName>>();
  readonly netByConductor = new Map<string, NetName>();
  /** Every net a cable conductor belongs to. */
  readonly names: ReadonlySet<NetName>;
  private readonly byPosition = new Map<number, ReadonlySet<NetName>>();
  private readonly circuits = new Map<number, string | undefined>();

  constructor(readonly box: Box) {
    const labels = labelsOf(box);
    for (const conductor of box.conductors) {
      const [from, to] = conductor.ends ?? [];
      if (from && to) this.joined.merge(nodeOf(from), nodeOf(to));
    }
    for (const position of box.positions)
      for (const lead of position.leads ?? [])
        this.joined.merge(nodeOf(lead.at), `terminal:${position.index}.${lead.terminal}`);
    for (const { conductor, at } of looseEnds(box)) {
      if (conductor.cableId === undefined) continue;
      const net = netOf(box, conductor, labels.get(conductor.id));
      this.netByConductor.set(conductor.id, net);
      const node = this.joined.find(nodeOf(at));
      if (at.capped) continue;
      const known = this.nets.get(node) ?? new Set();
      known.add(net);
      this.nets.set(node, known);
    }
    this.names = new Set(this.netByConductor.values());
  }

  /** One name for all places that tails and jumpers join with this one. */
  placeOf(node: string): string {
    return this.joined.find(node);
  }

  /** Names of the nets that meet at a place: none, one, or several when labels disagree about one joint. */
  at(node: string): ReadonlySet<NetName> {
    return this.nets.get(this.joined.find(node)) ?? new Set();
  }

  /** The nets on the terminals of a position. */
  ofPosition(index: number): ReadonlySet<NetName> {
    const known = this.byPosition.get(index);
    if (known) return known;
    const found = new Set<NetName>();
    for (const { at } of looseEnds(this.box))
      if (at.position === index) for (const net of this.at(nodeOf(at))) found.add(net);
    for (const lead of this.box.positions.find((position) => position.index === index)?.leads ?? [])
      for (const net of this.at(nodeOf(lead.at))) found.add(net);
    this.byPosition.set(index, found);
    return found;
  }

  /** The circuit whose line feeds a position: by what was found on it, else the only line of the box. */
  circuitOf(index: number): string | undefined {
    if (!this.circuits.has(index)) this.circuits.set(index, this.findCircuit(index));
    return this.circuits.get(index);
  }

  private findCircuit(index: number): string | undefined {
    const own = circuitsIn(this.ofPosition(index));
    if (own.length === 1) return own[0];
    const all = circuitsIn(this.names);
    return all.length === 1 ? all[0] : undefined;
  }

  /** Where two lines end at a position, that of its first pole; else {@link circuitOf}. */
  supplyOf(index: number): string | undefined {
    const own = circuitsIn(this.ofPosition(index));
    if (own.length < 2) return this.circuitOf(index);
    return [...this.poles(index).values()].flatMap((nets) => circuitsIn(nets))[0];
  }

  /** The nets of each pole of the switch at a position: `a1` and `b1` are one, `a2` and `b2` another. */
  private poles(index: number): Map<string, Set<NetName>> {
    const poles = new Map<string, Set<NetName>>();
    const terminals = looseEnds(this.box).flatMap(({ at }) =>
      at.position === index && at.terminal !== undefined ? [at.terminal] : [],
    );
    for (const terminal of terminals.sort()) {
      const pole = /(\d)$/.exec(terminal)?.[1] ?? '';
      const nets = poles.get(pole) ?? new Set();
      for (const net of this.at(`terminal:${index}.${terminal}`)) nets.add(net);
      poles.set(pole, nets);
    }
    return poles;
  }

  /** The circuit on the other side of the pole that feeds a load; undefined where no pole tells it. */
  circuitBefore(index: number, load: NetName): string | undefined {
    const pole = [...this.poles(index).values()].find((nets) => nets.has(load));
    const own = circuitsIn(pole ?? []);
    return own.length === 1 ? own[0] : undefined;
  }

  /** A neutral of the circuit: one named so, else one that it shares with a circuit of a common trip. */
  neutralOf(circuitId: string, job: Pick<Job, 'circuits'>): NetName | undefined {
    if (this.names.has(`neutral:${circuitId}`)) return `neutral:${circuitId}`;
    return [...this.names].find(
      (net) => net.startsWith('neutral:') && sharesByCommonTrip(job, circuitId, net.slice(8)),
    );
  }

  /** The load net that serves these loads at a position. */
  loadNet(index: number, loadIds: readonly string[]): NetName | undefined {
    const all = [...this.names].filter((net) => net.startsWith('load:'));
    const serving = all.filter((net) => loadIds.some((id) => net.slice(5).split('+').includes(id)));
    if (serving.length === 1) return serving[0];
    const own = [...this.ofPosition(index)].filter(
      (net) => net.startsWith('load:') && (serving.length === 0 || serving.includes(net)),
    );
    return own.length === 1 ? own[0] : undefined;
  }
}

const circuitsIn = (nets: Iterable<NetName>): string[] => [
  ...new Set([...nets].flatMap((net) => (net.startsWith('line:') ? net.slice(5) : []))),
];

export function nodeOf(at: Conductor['at'] & object): string {
  if (at.joint !== undefined) return `joint:${at.joint}`;
  if (at.position !== undefined) return `terminal:${at.position}.${at.terminal}`;
  return at.boxScrew ? 'box' : 'capped';
}

const grouped = new KeptWhile<Box, Box>(sameEntries);

/**
 * A box whose travelers name their group: one labelled before the group was made belongs to the only group
 * that has a place in the box. The box itself where nothing is to be added.
 */
export function withGroups(box: Box, known: JobLookup): Box {
  if (!box.labels.some((label) => label.role === 'traveler' && label.groupId === undefined)) return box;
  const ids = new Set(
    box.positions.flatMap((position) => known.groups.get(placeKey(box.id, position.index))?.id ?? []),
  );
  const groupId = ids.size === 1 ? [...ids][0] : undefined;
  if (groupId === undefined) return box;
  return grouped.of(box, [groupId], () => ({
    ...box,
    labels: box.labels.map((label) =>
      label.role === 'traveler' && label.groupId === undefined ? { ...label, groupId } : label,
    ),
  }));
}

const netsOf = perObject((box: Box) => new FoundNets(box));

/** {@link FoundNets} of a box, its travelers in their groups; kept as long as the box object lives. */
export const foundNets = (box: Box, known: JobLookup): FoundNets => netsOf(withGroups(box, known));
