import { foundNets, nodeOf } from '../electrics/found-nets.js';
import { Joined } from '../electrics/joined.js';
import { isFromOutside } from '../job/conductors.js';
import type { JobLookup } from '../job/lookup.js';
import { looseEnds } from '../job/loose-ends.js';
import { neutralFamilies } from '../job/neutral-families.js';
import type { ConnectorKind, WireSize } from '../job/schema/primitives.js';
import type { At, Box, Conductor } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import { largestSize, USUAL_LENGTH } from '../practice/wire.js';
import { bundlesOf } from './bundles.js';
import type { PlannedPlace } from './comes-out.js';
import { type ConnectorChoice, connectorRange, foundConnector } from './connectors.js';
import {
  type End,
  type JointPlan,
  type MadePiece,
  type Member,
  memberOf,
  namesOf,
  placeName,
} from './joint-plan.js';
import { type BoxPlan, NetWiring } from './net-wiring.js';
import { type NetKey, netName, type OnceWired, onceWired, type WiredTerminal } from './once-wired.js';

/** @param box with its findings as labels */
export function planJoints(box: Box, planned: readonly PlannedPlace[], known: JobLookup): JointPlan {
  return new Planner(box, planned, known).plan();
}

class Planner implements BoxPlan {
  private readonly result: JointPlan;
  private readonly wired: OnceWired;
  private readonly range: ConnectorChoice[];
  private readonly kinds: readonly ConnectorKind[];
  private readonly used: Set<string>;
  private readonly serial = { J: 0, P: 0 };
  /** All ends that are not taken out of the box. */
  private readonly ends: End[];
  /** Nets that are joined anew. */
  private touched: ReadonlySet<NetKey> = new Set();

  constructor(
    private readonly box: Box,
    planned: readonly PlannedPlace[],
    private readonly known: JobLookup,
  ) {
    const { job } = known;
    this.wired = onceWired(box, planned, known);
    this.range = connectorRange(job.catalogue.connectors);
    this.kinds = job.brief?.connectors?.length ? job.brief.connectors : [profileOf(job).connectors.usual];
    this.used = new Set([
      ...box.joints.map((joint) => joint.id),
      ...box.conductors.map((conductor) => conductor.id),
    ]);
    this.result = {
      joints: [],
      made: [],
      landed: [],
      capped: [],
      kept: [],
      removed: [],
      terminals: new Map(this.wired.terminals.map(({ name, net }) => [name, net])),
      largest: new Map(),
      wired: this.wired,
    };
    this.ends = this.endsThatStay();
  }

  plan(): JointPlan {
    const { touched } = this;
    for (const end of this.ends) this.noteSize(end);
    for (const { name, net } of this.wired.terminals) if (net === undefined) this.result.capped.push(name);
    const nets = new Set<NetKey>([
      ...this.wired.terminals.flatMap(({ net }) => net ?? []),
      ...this.ends.map(({ net }) => net),
    ]);
    const byNet = new Map<NetKey, End[]>();
    for (const end of this.ends) {
      const before = byNet.get(end.net);
      if (before) before.push(end);
      else byNet.set(end.net, [end]);
    }
    for (const net of nets) {
      const ends = byNet.get(net) ?? [];
      if (touched.has(net)) new NetWiring(this, net, ends).wire();
      else this.leave(ends);
    }
    return this.result;
  }

  // What there is, and what of it stays.

  private freed(at: At): boolean {
    return at.position !== undefined && this.wired.out.has(at.position);
  }

  /** Ends with their nets; tails that lead only to what comes out, or nowhere, are taken out with it. */
  private endsThatStay(): End[] {
    const { placeNets } = this;
    const ends: End[] = [];
    for (const { conductor, at } of looseEnds(this.box)) {
      if (conductor.ends && !this.pieceStays(conductor)) {
        if (!this.result.removed.includes(conductor.id)) this.result.removed.push(conductor.id);
        continue;
      }
      const own = isFromOutside(conductor) ? this.wired.conductors.get(conductor.id) : undefined;
      const net = own ?? placeNets(at) ?? `isolated:${conductor.id}`;
      ends.push({ conductor, at, net: this.withItsLike(net, at), freed: this.freed(at) });
    }
    return this.withoutJumpersOfTouched(ends);
  }

  /** To a device that stays, to the box's screw, or between joints. */
  private pieceStays({ ends = [] }: Conductor): boolean {
    return (
      ends.every((at) => !this.freed(at)) ||
      ends.some((at) => at.boxScrew || (at.position !== undefined && !this.freed(at)))
    );
  }

  /** The net of the conductors that a place of the box as found hangs together with. */
  private readonly placeNets = (at: At): NetKey | undefined => {
    if (at.capped) return undefined;
    this.netsByPlace ??= this.findNetsByPlace();
    return this.netsByPlace.get(this.placeOf(at));
  };

  private netsByPlace: Map<string, NetKey> | null = null;

  /** Of several names, which only contradicting labels bring about, the first by the alphabet. */
  private findNetsByPlace(): Map<string, NetKey> {
    const nets = new Map<string, NetKey>();
    for (const { conductor, at } of looseEnds(this.box)) {
      const net =
        isFromOutside(conductor) && !at.capped ? this.wired.conductors.get(conductor.id) : undefined;
      if (net === undefined) continue;
      const place = this.placeOf(at);
      const before = nets.get(place);
      if (before === undefined || net < before) nets.set(place, net);
    }
    return nets;
  }

  /** What nobody identified stays in the joint it shares only with its like. */
  private withItsLike(net: NetKey, at: At): NetKey {
    if (!net.startsWith('isolated:') || at.joint === undefined) return net;
    const beside = looseEnds(this.box).filter((end) => end.at.joint === at.joint);
    const alike = beside.every(({ conductor }) => {
      const other = isFromOutside(conductor)
        ? (this.wired.conductors.get(conductor.id) ?? `isolated:${conductor.id}`)
        : (this.placeNets(at) ?? net);
      return other.startsWith('isolated:') && !this.isTraveler(conductor);
    });
    return alike ? `isolated:${at.joint}` : net;
  }

  /** A traveler no longer used is known well enough, and is capped. */
  private isTraveler(conductor: Conductor): boolean {
    return this.box.labels.some(
      ({ conductorId, role }) => conductorId === conductor.id && (role === 'traveler' || role === 'spare'),
    );
  }

  /** A jumper between two joints of one net goes where that net is joined anew. */
  private withoutJumpersOfTouched(ends: End[]): End[] {
    this.touched = this.touchedNets(ends);
    const { touched } = this;
    const between = new Set(
      ends.flatMap(({ conductor, net }) =>
        touched.has(net) && conductor.ends?.every((at) => at.joint !== undefined) ? [conductor.id] : [],
      ),
    );
    if (between.size === 0) return ends;
    this.result.removed.push(...between);
    return ends.filter(({ conductor }) => !between.has(conductor.id));
  }

  /** Nets something comes to or goes from; all others are left as they were found. */
  private touchedNets(ends: readonly End[]): Set<NetKey> {
    const touched = new Set<NetKey>();
    for (const { net } of this.wired.terminals) if (net !== undefined) touched.add(net);
    const losing = this.jointsThatLose();
    const netOfJoint = new Map<string, NetKey>();
    for (const { net, freed, at } of ends) {
      if (freed || (at.joint !== undefined && losing.has(at.joint))) touched.add(net);
      if (at.joint === undefined) continue;
      const before = netOfJoint.get(at.joint);
      if (before === undefined) netOfJoint.set(at.joint, net);
      else if (before !== net) touched.add(net).add(before);
    }
    if (this.wantsBond && this.wired.out.size > 0) touched.add('ground');
    return touched;
  }

  /** Joints of the box that something leaves: a tail that is taken out, or a lead of what comes out. */
  private jointsThatLose(): Set<string> {
    const removed = new Set(this.result.removed);
    const losing = new Set<string>();
    if (removed.size > 0)
      for (const { conductor, at } of looseEnds(this.box))
        if (at.joint !== undefined && removed.has(conductor.id)) losing.add(at.joint);
    for (const { index, leads = [] } of this.box.positions)
      if (this.wired.out.has(index))
        for (const { at } of leads) if (at.joint !== undefined) losing.add(at.joint);
    return losing;
  }

  /** A metal box that nothing was bonded to. */
  get wantsBond(): boolean {
    const { material, grounded } = this.box.enclosure;
    return material === 'metal' && !grounded && !looseEnds(this.box).some(({ at }) => at.boxScrew);
  }

  private noteSize({ conductor, net }: End): void {
    const before = this.result.largest.get(net);
    const size = largestSize(before ? [before, conductor.size] : [conductor.size]);
    if (size) this.result.largest.set(net, size);
  }

  /** As found: joints with their connectors, what is on terminals and screws, what is capped. */
  private leave(ends: readonly End[]): void {
    for (const end of ends)
      if (end.at.joint === undefined) this.stay(end);
      else if (!this.result.joints.some(({ id }) => id === end.at.joint))
        this.leaveJoint(end.at.joint, end.net);
  }

  private leaveJoint(id: string, net: NetKey): void {
    const members = [
      ...this.ends.filter(({ at }) => at.joint === id).map(({ conductor }) => memberOf(conductor)),
      ...this.keptLeads(id),
    ];
    const joint = this.box.joints.find((entry) => entry.id === id);
    if (!joint) return;
    const [only] = members;
    if (only && members.length === 1) {
      this.result.capped.push(only.name);
      return;
    }
    const connector = foundConnector(joint.connector, members, profileOf(this.known.job), this.range);
    this.result.joints.push({ id, net, members: namesOf(members), connector: connector ?? null, kept: true });
  }

  // What the wiring of a net asks of the whole.

  /** Leads of devices that stay, in a joint of the box. */
  keptLeads(jointId: string): Member[] {
    return this.box.positions.flatMap(({ index, leads = [] }) =>
      this.wired.out.has(index)
        ? []
        : leads
            .filter(({ at }) => at.joint === jointId)
            .map(({ terminal, size }) => ({
              name: `${index}.${terminal}`,
              size: size ?? profileOf(this.known.job).sizes.lead,
            })),
    );
  }

  stay({ conductor, at }: End): void {
    if (at.capped) this.result.capped.push(conductor.id);
    else this.result.kept.push({ conductorId: conductor.id, at: placeName(at) });
  }

  terminalsOf(net: NetKey): WiredTerminal[] {
    return this.wired.terminals.filter((terminal) => terminal.net === net);
  }

  land(terminal: string, conductorId: string): void {
    this.result.landed.push({ terminal, conductorId });
  }

  cap(name: string): void {
    this.result.capped.push(name);
  }

  make(kind: MadePiece['kind'], net: NetKey, from: string, to: string): MadePiece {
    const size = this.result.largest.get(net) ?? profileOf(this.known.job).sizes.lead;
    const piece = { id: this.fresh('P'), kind, from, to, size, length: USUAL_LENGTH, net };
    this.result.made.push(piece);
    return piece;
  }

  /** A neutral that circuits share, and the ground, never run on through a terminal. */
  runsOn(net: NetKey): boolean {
    if (netName(net) === 'ground') return false;
    if (!net.startsWith('neutral:')) return true;
    return neutralFamilies(this.known.job).of(netName(net).slice(8)).size < 2;
  }

  /** Joins a bundle, in as many connectors as it takes; gives back the joint of each member. */
  join(
    net: NetKey,
    members: readonly Member[],
    oldJoint: string | undefined,
    tails: readonly MadePiece[],
  ): void {
    const untouched = this.untouched(oldJoint, namesOf(members));
    if (untouched && oldJoint !== undefined) {
      this.leaveJoint(oldJoint, net);
      return;
    }
    const size = largestSize(members.map((member) => member.size)) as WireSize;
    const bundles = bundlesOf(members, size, this.kinds, this.range);
    const ids = bundles.map((_, at) => (at === 0 && oldJoint !== undefined ? oldJoint : this.fresh('J')));
    const joints = bundles.map((bundle, at) => ({
      id: ids[at] as string,
      net,
      members: namesOf(bundle.members),
      connector: bundle.connector,
      kept: false,
    }));
    for (let at = 1; at < joints.length; at++) {
      const [one, other] = [joints[at - 1], joints[at]];
      if (!one || !other) continue;
      const jumper = this.make('jumper', net, one.id, other.id);
      jumper.size = size;
      one.members.push(jumper.id);
      other.members.push(jumper.id);
    }
    for (const tail of tails) {
      tail.from = joints.find((joint) => joint.members.includes(tail.id))?.id ?? tail.from;
      tail.size = size;
    }
    this.result.joints.push(...joints);
  }

  /** The old joint when it holds the very same members: nobody opens it, so it keeps its connector. */
  private untouched(oldJoint: string | undefined, members: readonly string[]): boolean {
    if (oldJoint === undefined) return false;
    const before = [
      ...looseEnds(this.box)
        .filter(({ at }) => at.joint === oldJoint)
        .map(({ conductor }) => conductor.id),
      ...this.box.positions.flatMap(({ index, leads = [] }) =>
        leads.filter(({ at }) => at.joint === oldJoint).map(({ terminal }) => `${index}.${terminal}`),
      ),
    ];
    return before.length === members.length && before.every((id) => members.includes(id));
  }

  private fresh(letter: 'J' | 'P'): string {
    let id: string;
    do {
      this.serial[letter] += 1;
      id = `${letter}${this.serial[letter]}`;
    } while (this.used.has(id));
    this.used.add(id);
    return id;
  }

  /** The earth on the box has a screw of its own, unless somebody saw that it has none. */
  get takesEarth(): boolean {
    return this.box.enclosure.material === 'metal' && !this.box.condition?.includes('no-earth-terminal');
  }

  /** Whether any of the one hung together with any of the other as found, through what is in the box. */
  hungTogether(one: readonly At[], other: readonly At[]): boolean {
    const places = (ats: readonly At[]) =>
      new Set(ats.filter(({ capped }) => !capped).map((at) => this.placeOf(at)));
    const there = places(other);
    return [...places(one)].some((place) => there.has(place));
  }

  /** One name for all places that hung together as found, by wire or inside a receptacle. */
  private readonly placeOf = (at: At): string => {
    const found = foundNets(this.box, this.known);
    this.bridges ??= this.joinBridged();
    return this.bridges.find(found.placeOf(nodeOf(at)));
  };

  private bridges: Joined | null = null;

  private joinBridged(): Joined {
    const found = foundNets(this.box, this.known);
    const joined = new Joined();
    for (const { index } of this.box.positions)
      for (const [a, b] of this.bridged(index))
        joined.merge(found.placeOf(`terminal:${index}.${a}`), found.placeOf(`terminal:${index}.${b}`));
    return joined;
  }

  /** A kept device that joins these terminals inside itself. */
  bridged(position: number): string[][] {
    const found = this.box.positions.find(({ index }) => index === position);
    if (found?.existing !== 'receptacle') return [];
    const pairs = [];
    if (!found.breakOff) pairs.push(['hot', 'hot2']);
    if (found.breakOff !== 'both') pairs.push(['neutral', 'neutral2']);
    return pairs;
  }
}
