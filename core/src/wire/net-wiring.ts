import { Joined } from '../electrics/joined.js';
import { isFromOutside } from '../job/conductors.js';
import type { At } from '../job/schema/survey.js';
import { type End, type MadePiece, type Member, memberOf, placeName } from './joint-plan.js';
import { type NetKey, netName, type WiredTerminal } from './once-wired.js';

/** What the wiring of one net asks of the plan of the whole box, and has it write down. */
export interface BoxPlan {
  /** A metal box that nothing was bonded to. */
  readonly wantsBond: boolean;
  /** The earth on the box has a screw of its own, unless somebody saw that it has none. */
  readonly takesEarth: boolean;
  terminalsOf(net: NetKey): WiredTerminal[];
  /** Leads of devices that stay, in a joint of the box. */
  keptLeads(jointId: string): Member[];
  /** Whether a net may run on through a terminal. */
  runsOn(net: NetKey): boolean;
  /** Terminals of a position that a kept device joins inside itself. */
  bridged(position: number): string[][];
  /** Whether any of the one hung together with any of the other as found. */
  hungTogether(one: readonly At[], other: readonly At[]): boolean;
  stay(end: End): void;
  land(terminal: string, conductorId: string): void;
  cap(name: string): void;
  make(kind: MadePiece['kind'], net: NetKey, from: string, to: string): MadePiece;
  /** Joins a bundle, in as many connectors as it takes. */
  join(
    net: NetKey,
    members: readonly Member[],
    oldJoint: string | undefined,
    tails: readonly MadePiece[],
  ): void;
}

/**
 * One net of the box, wired: what of it stays where it is, what lands straight on a terminal, what is joined
 * with which pigtails.
 */
export class NetWiring {
  /** In joints, on what comes out, or capped: all that is to be joined. */
  private readonly loose: End[];
  /** At terminals of devices that stay, and at the box's screw. */
  private staying: End[];
  private readonly leads: WiredTerminal[];
  private readonly screws: WiredTerminal[];
  private readonly members: Member[];
  private readonly tails: MadePiece[] = [];

  constructor(
    private readonly planner: BoxPlan,
    private readonly net: NetKey,
    ends: readonly End[],
  ) {
    this.loose = ends.filter(({ at, freed }) => freed || at.joint !== undefined || at.capped);
    this.staying = ends.filter((end) => !this.loose.includes(end));
    const terminals = planner.terminalsOf(net);
    this.leads = terminals.filter(({ form }) => form === 'lead');
    this.screws = terminals.filter(({ form }) => form !== 'lead');
    const joints = new Set(this.loose.flatMap(({ at }) => at.joint ?? []));
    this.members = [
      ...this.loose.map(({ conductor }) => memberOf(conductor)),
      ...[...joints].flatMap((id) => planner.keptLeads(id)),
      ...this.leads.map(({ name, size }) => ({ name, size })),
    ];
  }

  wire(): void {
    this.reachWhatStays();
    for (const end of this.staying) this.planner.stay(end);
    if (this.landsDirectly() || this.loopsThrough()) return;
    const { planner, net } = this;
    if (this.members.length === 0 && this.screws.length < 2) {
      for (const screw of this.screws) planner.cap(screw.name);
      return;
    }
    for (const screw of this.screws) this.tail(screw.name);
    if (this.members.length === 1 && this.tails.length === 0) this.alone();
    else
      planner.join(
        net,
        this.members,
        this.loose.find(({ at }) => at.joint !== undefined)?.at.joint,
        this.tails,
      );
  }

  /** What is left by itself is capped; an earth without a terminal of a device ends on the box's. */
  private alone(): void {
    const [only] = this.members;
    const [end] = this.loose;
    if (only && end && netName(this.net) === 'ground' && this.planner.takesEarth)
      this.planner.land('box', only.name);
    else if (only) this.planner.cap(only.name);
  }

  private tail(to: string): void {
    const piece = this.planner.make('pigtail', this.net, netName(this.net), to);
    this.planner.land(to, piece.id);
    this.members.push({ name: piece.id, size: piece.size });
    this.tails.push(piece);
  }

  /**
   * A terminal of a device that stays, and that the net ran to or from, is reached by a tail: the conductor
   * on it moves into the joint. A kept tail that leads there already is enough.
   *
   *     feed ── 2.a (stays)        feed ──(joint)── tail ── 2.a
   *                                          └──── lead of the new device
   */
  private reachWhatStays(): void {
    const wanted = this.members.length + this.screws.length > 0;
    if (!wanted) return;
    const screwEnds = this.staying.filter(({ at }) => at.boxScrew);
    this.reachBox(screwEnds);
    const hasOwn = this.loose.some(({ conductor }) => isFromOutside(conductor));
    const clusters = this.clusters();
    let reached = clusters.some((cluster) => cluster.linked);
    for (const cluster of clusters) {
      if (cluster.linked) continue;
      // What was apart as found, and fed by itself, is left alone.
      if (!cluster.wasJoined && (hasOwn || reached)) continue;
      const [end] = cluster.ends;
      if (!end) continue;
      reached = true;
      const place = placeName(end.at);
      for (const moved of cluster.ends.filter(({ at }) => placeName(at) === place)) {
        this.staying = this.staying.filter((other) => other !== moved);
        this.members.push(memberOf(moved.conductor));
      }
      this.tail(place);
    }
  }

  private reachBox(screwEnds: readonly End[]): void {
    const { planner } = this;
    const linked = screwEnds.some(({ conductor }) => this.loose.some((end) => end.conductor === conductor));
    const grounds = this.loose.filter(({ conductor }) => isFromOutside(conductor)).length;
    const joined = this.members.length + this.screws.length > 1 || grounds === 0;
    const bond = this.net === 'ground' && planner.wantsBond && grounds > 0 && joined;
    const [first] = screwEnds;
    if (linked || !(bond || (first && (joined || this.screws.length > 0)))) return;
    // An end on the screw is left there: the box's own screw takes the tail as well.
    this.tail('box');
  }

  /** Ends on devices that stay, by what hangs together there. */
  private clusters(): { ends: End[]; linked: boolean; wasJoined: boolean }[] {
    const joined = new Joined();
    const atDevices = this.staying.filter(({ at }) => at.position !== undefined);
    const positions = new Set(atDevices.map(({ at }) => at.position as number));
    for (const position of positions)
      for (const [a, b] of this.planner.bridged(position))
        joined.merge(`${position}.${a}`, `${position}.${b}`);
    const pieces = new Map<string, string>();
    for (const { conductor, at } of atDevices) {
      if (isFromOutside(conductor)) continue;
      const before = pieces.get(conductor.id);
      if (before) joined.merge(before, placeName(at));
      pieces.set(conductor.id, placeName(at));
    }
    const clusters = new Map<string, End[]>();
    for (const end of atDevices) {
      const root = joined.find(placeName(end.at));
      clusters.set(root, [...(clusters.get(root) ?? []), end]);
    }
    return [...clusters.values()].map((ends) => ({
      ends: [...ends].sort(
        (a, b) =>
          ends.filter(({ at }) => placeName(at) === placeName(a.at)).length -
          ends.filter(({ at }) => placeName(at) === placeName(b.at)).length,
      ),
      linked: ends.some(({ conductor }) => this.loose.some((end) => end.conductor === conductor)),
      wasJoined: this.planner.hungTogether(
        ends.map(({ at }) => at),
        this.loose.map(({ at }) => at),
      ),
    }));
  }

  /** All of the net on the one terminal that wants it. */
  private landsDirectly(): boolean {
    const [screw] = this.screws;
    const room = screw && (this.planner.runsOn(this.net) ? screw.holds : 1);
    if (!screw || this.screws.length > 1 || this.leads.length > 0 || this.tails.length > 0) return false;
    if (this.members.length === 0 || this.members.length > (room ?? 1)) return false;
    for (const { name } of this.members) this.planner.land(screw.name, name);
    return true;
  }

  /**
   * From terminal to terminal, where they hold enough: no joint at all.
   *
   *     line ── 1.L ──jumper── 2.L ──jumper── 3.L
   */
  private loopsThrough(): boolean {
    const { planner, net, members, screws } = this;
    if (screws.length < 2 || this.leads.length > 0 || this.tails.length > 0 || !planner.runsOn(net))
      return false;
    const order = [...screws].sort((a, b) => b.holds - a.holds);
    const room = order.map(({ holds }, at) => holds - (at === 0 || at === order.length - 1 ? 1 : 2));
    if (members.length === 0 || room.some((left) => left < 0)) return false;
    if (room.reduce((sum, left) => sum + left, 0) < members.length) return false;
    let at = 0;
    for (const { name } of members) {
      while ((room[at] ?? 0) === 0) at += 1;
      room[at] = (room[at] as number) - 1;
      planner.land(order[at]?.name as string, name);
    }
    for (let next = 1; next < order.length; next++) {
      const [from, to] = [order[next - 1]?.name as string, order[next]?.name as string];
      const jumper = planner.make('jumper', net, from, to);
      planner.land(from, jumper.id);
      planner.land(to, jumper.id);
    }
    return true;
  }
}
