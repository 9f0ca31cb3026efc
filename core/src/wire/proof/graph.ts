import { Joined } from '../../electrics/joined.js';
import { isFromOutside } from '../../job/conductors.js';
import { type JobLookup, labelsOf, placeKey } from '../../job/lookup.js';
import { neutralFamilies } from '../../job/neutral-families.js';
import type { Label } from '../../job/schema/survey.js';
import { isGround } from '../../practice/wire.js';
import type { BoxToProve } from './vocabulary.js';

/*
 * What hangs together once the plan is carried out, and what lies behind each cable. Nodes are named:
 *
 *     BOX|c:w1        a conductor from outside       BOX|t:1.L   a terminal or a lead
 *     BOX|j:J1        a joint                        BOX|box     the box's screw
 *     L:c7, L:c7#2    a breaker's line side          N:c7        the neutral its circuits share
 *     E               earth
 */

/** A lamp, or whatever is fed further on, between a hot end and its return. */
export interface Consumer {
  /** `load:l1`, or the conductor that feeds what nobody named. */
  id: string;
  loadId: string | null;
  boxId: string;
  conductorId: string;
  hot: string;
  back: string;
}

/** One end of a cable: its cores in a box. */
interface CableEnd {
  boxId: string;
  cores: { id: string; label: Label | undefined }[];
}

/** What a core is at both ends of its cable: a line that is carried on arrives as a line. */
function kindOf(label: Label | undefined): string | null {
  switch (label?.role) {
    case 'line':
    case 'line-on':
      return `line ${label.circuitId ?? ''}`;
    case 'traveler':
      return `traveler ${label.traveler ?? ''}`;
    case 'load':
    case 'neutral':
      return label.role;
    default:
      return null;
  }
}

/** Cores of two ends of one cable that are the same, as far as their labels tell them apart. */
function corePairs(one: CableEnd, other: CableEnd): [string, string][] {
  return one.cores.flatMap(({ id, label }): [string, string][] => {
    const kind = kindOf(label);
    const alike = (end: CableEnd) => end.cores.filter((core) => kind !== null && kindOf(core.label) === kind);
    const [far] = alike(other);
    if (!far || alike(one).length !== 1 || alike(other).length !== 1) return [];
    return [[coreNode(one.boxId, id), coreNode(other.boxId, far.id)]];
  });
}

export class Graph {
  readonly joined = new Joined();
  readonly consumers: Consumer[] = [];
  /** Nodes that are a supply, a neutral, or earth. */
  readonly poles = new Set<string>();
  /** Neutral ends whose way back is here: nothing feeds them from beyond. */
  readonly returns: { boxId: string; conductorId: string; node: string; pole: string }[] = [];
  /** Travelers as they run, end to end: the nodes of each. */
  readonly segments: string[][] = [];

  constructor(
    readonly boxes: readonly BoxToProve[],
    private readonly known: JobLookup,
  ) {
    const paired = this.joinBeyond();
    for (const entry of boxes) this.joinBox(entry);
    for (const entry of boxes) this.tieCables(entry, paired);
  }

  /** The neutral of a circuit: one for all that share it. */
  neutralPole(circuitId: string): string {
    return `N:${[...neutralFamilies(this.known.job).of(circuitId)].sort()[0]}`;
  }

  private joinBox({ box, plan }: BoxToProve): void {
    const conductors = new Map(box.conductors.map((conductor) => [conductor.id, conductor]));
    const made = new Set(plan.made.map(({ id }) => id));
    const node = (name: string) =>
      made.has(name) || conductors.has(name) ? coreNode(box.id, name) : terminalNode(box.id, name);
    for (const joint of plan.joints)
      for (const member of joint.members) this.joined.merge(`${box.id}|j:${joint.id}`, node(member));
    for (const { terminal, conductorId } of plan.landed)
      this.joined.merge(placeNode(box.id, terminal), coreNode(box.id, conductorId));
    for (const { conductorId, at } of plan.kept)
      this.joined.merge(placeNode(box.id, at), coreNode(box.id, conductorId));
  }

  /** Makes one what runs from box to box: by the pairs of a run, else core by core of paired cables. */
  private joinBeyond(): ReadonlySet<string> {
    const paired = new Set<string>();
    const join = (a: string, b: string) => {
      if (paired.has(a) || paired.has(b)) return;
      this.joined.merge(a, b);
      this.segments.push([a, b]);
      paired.add(a).add(b);
    };
    const cables: [CableEnd, CableEnd][] = [];
    for (const { ends, pairs = [] } of this.known.job.runs ?? []) {
      const [one, other] = ends.map(({ boxId, cableId }) => this.cableEnd(boxId, cableId));
      if (!one || !other) continue;
      const inOne = new Set(one.cores.map(({ id }) => id));
      for (const [a = '', b = ''] of pairs) {
        const [first, second] = inOne.has(a) ? [a, b] : [b, a];
        join(coreNode(one.boxId, first), coreNode(other.boxId, second));
      }
      if (pairs.length === 0) cables.push([one, other]);
    }
    cables.push(...this.cablesOfTravelers(paired));
    for (const [one, other] of cables) for (const [a, b] of corePairs(one, other)) join(a, b);
    return paired;
  }

  private cableEnd(boxId: string | undefined, cableId: string | undefined): CableEnd | undefined {
    const box = this.boxes.find((entry) => entry.box.id === boxId)?.box;
    if (!box || cableId === undefined) return undefined;
    const labels = labelsOf(box);
    const cores = box.conductors
      .filter((conductor) => conductor.cableId === cableId)
      .map((conductor) => ({ id: conductor.id, label: labels.get(conductor.id) }));
    return { boxId: box.id, cores };
  }

  /**
   * Equal numbers of a group are one conductor from box to box, and so their cables are one. A box between
   * two others has two of each: of its cables the later leads on, the earlier comes from before.
   */
  private cablesOfTravelers(paired: ReadonlySet<string>): [CableEnd, CableEnd][] {
    const found: [CableEnd, CableEnd][] = [];
    const groups = new Set(
      this.boxes.flatMap(({ box }) =>
        box.positions.flatMap(({ index }) => this.known.groups.get(placeKey(box.id, index)) ?? []),
      ),
    );
    for (const group of groups) {
      const order = [...new Set(group.places.map(({ boxId }) => boxId))];
      for (let at = 1; at < order.length; at++) {
        const [before, after] = [
          this.travelerCables(order[at - 1] as string, group.id),
          this.travelerCables(order[at] as string, group.id),
        ];
        const [one, other] = [before.at(-1), after[0]];
        if (one && other && !one.cores.some(({ id }) => paired.has(coreNode(one.boxId, id))))
          found.push([one, other]);
      }
    }
    return found;
  }

  private travelerCables(boxId: string, groupId: string): CableEnd[] {
    const box = this.boxes.find((entry) => entry.box.id === boxId)?.box;
    return (box?.cables ?? []).flatMap(({ id }) => {
      const end = this.cableEnd(boxId, id);
      return end?.cores.some(({ label }) => label?.role === 'traveler' && label.groupId === groupId)
        ? [end]
        : [];
    });
  }

  /** What comes from beyond: supplies, returns, lamps, what is fed on. */
  private tieCables({ box }: BoxToProve, paired: ReadonlySet<string>): void {
    const labels = labelsOf(box);
    const lent = box.circuitIds.length === 1 ? box.circuitIds[0] : undefined;
    const circuitOf = (label: Label | undefined) => label?.circuitId ?? lent;
    const cores = box.conductors.filter(isFromOutside).map((conductor) => ({
      conductor,
      label: labels.get(conductor.id),
      node: coreNode(box.id, conductor.id),
    }));
    const inCable = (cableId: string | undefined) =>
      cores.filter(({ conductor }) => conductor.cableId === cableId);
    const supplies = (cableId: string | undefined) =>
      inCable(cableId).some(({ label }) => label?.role === 'line');
    const uses = (cableId: string | undefined) =>
      inCable(cableId).some(({ label }) => label?.role === 'load' || label?.role === 'line-on');
    const neutrals = cores.filter(({ label }) => label?.role === 'neutral');
    for (const core of cores) {
      const { conductor, label, node } = core;
      const beyond = paired.has(node);
      const circuit = circuitOf(label);
      if (label?.role === 'line' && circuit && !beyond)
        this.tie(node, this.linePole(circuit, conductor.at?.terminal));
      if (label?.role === 'neutral' && circuit) {
        const pole = this.neutralPole(circuit);
        const alike = neutrals.filter((other) => circuitOf(other.label) === circuit);
        const fed =
          supplies(conductor.cableId) ||
          (!uses(conductor.cableId) && !alike.some((other) => supplies(other.conductor.cableId))) ||
          (alike[0] === core &&
            alike.every((other) => !supplies(other.conductor.cableId) && uses(other.conductor.cableId)));
        if (fed && !beyond) this.tie(node, pole);
        else if (!beyond || !supplies(conductor.cableId))
          this.returns.push({ boxId: box.id, conductorId: conductor.id, node, pole });
      }
      if (label?.role === 'load' || label?.role === 'line-on') {
        if (beyond) continue;
        const passes = inCable(conductor.cableId).some((other) => other.label?.role === 'traveler');
        if (label.role === 'load' && passes && this.hasLampElsewhere(label)) continue;
        const beside = inCable(conductor.cableId);
        const pair = (this.known.circuits.get(circuit ?? box.circuitIds[0] ?? '')?.poles ?? 1) > 1;
        const legs = pair ? beside.filter((other) => other.label?.role === label.role) : [];
        if (legs.length > 1 && legs[0] !== core) continue;
        const back =
          legs[1] ?? beside.find((other) => other.label?.role === 'neutral' && !supplies(conductor.cableId));
        this.consume(box.id, conductor.id, label, back?.node ?? null, circuit ?? box.circuitIds[0]);
      }
    }
    const grounds = cores.filter(({ conductor, label }) => isGround(conductor, label));
    const fed = grounds.find(({ conductor }) => supplies(conductor.cableId)) ?? grounds[0];
    if (fed && !paired.has(fed.node)) this.tie(fed.node, 'E');
  }

  /** A load's wire in a cable of travelers runs on to the other switch, when another one goes to the lamp. */
  private hasLampElsewhere({ loadIds = [] }: Label): boolean {
    return this.boxes.some(({ box }) => {
      const labels = labelsOf(box);
      return box.conductors.some(({ id, cableId }) => {
        const label = labels.get(id);
        return (
          label?.role === 'load' &&
          loadIds.some((load) => label.loadIds?.includes(load)) &&
          !box.conductors.some(
            (other) => other.cableId === cableId && labels.get(other.id)?.role === 'traveler',
          )
        );
      });
    });
  }

  private consume(
    boxId: string,
    conductorId: string,
    label: Label,
    back: string | null,
    circuit: string | undefined,
  ): void {
    const hot = coreNode(boxId, conductorId);
    const fallback = circuit === undefined ? 'N' : this.neutralPole(circuit);
    if (back === null) this.poles.add(fallback);
    const ids = label.role === 'load' && label.loadIds?.length ? label.loadIds : [null];
    for (const loadId of ids)
      this.consumers.push({
        id: loadId === null ? conductorId : `load:${loadId}`,
        loadId,
        boxId,
        conductorId,
        hot,
        back: back ?? fallback,
      });
  }

  /** The second leg of a 240 V pair has a name of its own. */
  private linePole(circuitId: string, terminal: string | undefined): string {
    const pair = (this.known.circuits.get(circuitId)?.poles ?? 1) > 1;
    return pair && /^[a-z]+2$/.test(terminal ?? '') ? `L:${circuitId}#2` : `L:${circuitId}`;
  }

  private tie(node: string, pole: string): void {
    this.poles.add(pole);
    this.joined.merge(node, pole);
  }
}

export const coreNode = (boxId: string, id: string) => `${boxId}|c:${id}`;
export const terminalNode = (boxId: string, name: string) => `${boxId}|t:${name}`;
const placeNode = (boxId: string, place: string) =>
  place === 'box' ? `${boxId}|box` : terminalNode(boxId, place);
