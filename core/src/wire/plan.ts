import { foundNets, type NetName, nodeOf } from '../electrics/found-nets.js';
import { isAluminium } from '../job/conductors.js';
import type { JobLookup } from '../job/lookup.js';
import { looseEnds } from '../job/loose-ends.js';
import type { WireSize } from '../job/schema/primitives.js';
import type { At, Box } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import { largestSize, USUAL_LENGTH } from '../practice/wire.js';
import {
  type BundleMember,
  type ConnectorChoice,
  chooseConnector,
  connectorRange,
  foundConnector,
} from './connectors.js';
import { type PlannedDevice, terminalNets } from './terminal-nets.js';

/**
 * The first step of wiring, shared with fill, match and later the full plan: which net every loose end and
 * terminal belongs to, the joints that make the nets, the pigtails they need, and the connector each joint
 * takes.
 */
export interface JointPlan {
  joints: PlannedJoint[];
  made: {
    id: string;
    kind: 'pigtail' | 'jumper';
    from: string;
    to: string;
    size: WireSize;
    length: number;
  }[];
  /** A conductor straight on a terminal, `1.L`, or on the box's screw, `box`. */
  landed: { terminal: string; conductorId: string }[];
  capped: string[];
  /** Old pigtails and jumpers no longer used. */
  removed: string[];
  /** The net of each planned terminal, `1.L`; undefined where the findings do not tell. */
  terminals: Map<string, NetName | undefined>;
  /** The largest building conductor of each net. */
  largest: Map<NetName, WireSize>;
}

interface PlannedJoint {
  id: string;
  net: NetName;
  members: string[];
  connector: ConnectorChoice | null;
  /** Nobody opens it: it keeps the connector it has. */
  kept: boolean;
}

interface Member extends BundleMember {
  name: string;
}

export function planJoints(box: Box, planned: readonly PlannedDevice[], known: JobLookup): JointPlan {
  return new Planner(box, planned, known).plan();
}

class Planner {
  private readonly result: JointPlan = {
    joints: [],
    made: [],
    landed: [],
    capped: [],
    removed: [],
    terminals: new Map(),
    largest: new Map(),
  };
  private readonly replaced: ReadonlySet<number>;
  private readonly range: ConnectorChoice[];
  private readonly kinds;
  /** Lead and screw terminals by net. */
  private readonly leads = new Map<NetName, Member[]>();
  private readonly screws = new Map<NetName, { name: string; holds: number }[]>();
  private readonly used: Set<string>;
  private serial = { J: 0, P: 0 };

  constructor(
    private readonly box: Box,
    private readonly planned: readonly PlannedDevice[],
    private readonly known: JobLookup,
  ) {
    const { job } = known;
    this.replaced = new Set(planned.map((plan) => plan.position.index));
    this.range = connectorRange(job.catalogue.connectors);
    this.kinds = job.brief?.connectors?.length ? job.brief.connectors : [profileOf(job).connectors.usual];
    this.used = new Set([
      ...box.joints.map((joint) => joint.id),
      ...box.conductors.map((conductor) => conductor.id),
    ]);
  }

  plan(): JointPlan {
    this.placeTerminals();
    const kept = this.keptPieces();
    for (const [net, ends] of this.endsByNet(kept)) this.wireNet(net, ends);
    return this.result;
  }

  private placeTerminals(): void {
    for (const plan of this.planned) {
      // A module at the fitting or a controller on the wall leaves the box: its old terminals are freed,
      // nothing new lands here.
      if (plan.device.mount !== 'box') continue;
      for (const [terminal, net] of terminalNets(this.box, plan, this.known)) {
        const name = `${plan.position.index}.${terminal.id}`;
        this.result.terminals.set(name, net);
        if (net === undefined) {
          this.result.capped.push(name);
        } else if (terminal.form === 'lead') {
          const size = terminal.size ?? profileOf(this.known.job).sizes.lead;
          this.leads.set(net, [...(this.leads.get(net) ?? []), { name, size }]);
        } else {
          this.screws.set(net, [...(this.screws.get(net) ?? []), { name, holds: terminal.holds ?? 1 }]);
        }
      }
    }
  }

  private freed(at: At): boolean {
    return at.position !== undefined && this.replaced.has(at.position);
  }

  /** Pigtails and jumpers that stay: those to a device that stays, to the box's screw, or between joints. */
  private keptPieces(): Set<string> {
    const kept = new Set<string>();
    for (const conductor of this.box.conductors) {
      if (!conductor.ends) continue;
      const stays =
        conductor.ends.every((at) => !this.freed(at)) ||
        conductor.ends.some((at) => at.boxScrew || (at.position !== undefined && !this.freed(at)));
      if (stays) kept.add(conductor.id);
      else this.result.removed.push(conductor.id);
    }
    return kept;
  }

  /**
   * Loose ends to be joined, by net, with the joint each came from. What stays on a kept terminal or screw is
   * landed at once.
   */
  private endsByNet(
    kept: ReadonlySet<string>,
  ): Map<NetName, { member: Member; joint: string | undefined }[]> {
    const nets = foundNets(this.box, this.known);
    const ends = new Map<NetName, { member: Member; joint: string | undefined }[]>();
    for (const net of [...this.leads.keys(), ...this.screws.keys()]) ends.set(net, []);
    for (const { conductor, at } of looseEnds(this.box)) {
      if (conductor.ends && !kept.has(conductor.id)) continue;
      const net =
        nets.netByConductor.get(conductor.id) ??
        ([...nets.at(nodeOf(at))].sort()[0] as NetName | undefined) ??
        `isolated:${conductor.id}`;
      const known = this.result.largest.get(net);
      this.result.largest.set(
        net,
        largestSize(known ? [known, conductor.size] : [conductor.size]) as WireSize,
      );
      if (at.boxScrew) this.result.landed.push({ terminal: 'box', conductorId: conductor.id });
      else if (at.position !== undefined && !this.freed(at))
        this.result.landed.push({ terminal: `${at.position}.${at.terminal}`, conductorId: conductor.id });
      else {
        const member = {
          name: conductor.id,
          size: conductor.size,
          aluminium: isAluminium(conductor),
        };
        // What nobody identified stays in the joint it shares only with its like.
        const key =
          net.startsWith('isolated:') && at.joint !== undefined && this.allIsolated(at.joint)
            ? `isolated:${at.joint}`
            : net;
        ends.set(key, [...(ends.get(key) ?? []), { member, joint: at.joint }]);
      }
    }
    return ends;
  }

  private allIsolated(joint: string): boolean {
    return [...foundNets(this.box, this.known).at(`joint:${joint}`)].every((net) =>
      net.startsWith('isolated:'),
    );
  }

  private wireNet(net: NetName, ends: { member: Member; joint: string | undefined }[]): void {
    const screws = this.screws.get(net) ?? [];
    const members = [...ends.map((end) => end.member), ...(this.leads.get(net) ?? [])];
    const landed = this.result.landed.filter(
      (entry) => foundNets(this.box, this.known).netByConductor.get(entry.conductorId) === net,
    );
    const [only] = screws;
    if (
      only &&
      screws.length === 1 &&
      members.length > 0 &&
      members.length <= only.holds &&
      (this.leads.get(net) ?? []).length === 0
    ) {
      for (const member of members)
        this.result.landed.push({ terminal: only.name, conductorId: member.name });
      return;
    }
    const size = this.result.largest.get(net) ?? profileOf(this.known.job).sizes.lead;
    if (only && members.length === 0) {
      // Nothing to join but what sits on the box's screw or a kept terminal: a tail from there.
      for (const screw of screws) this.pigtail(landed[0]?.terminal ?? net, screw.name, size);
      return;
    }
    // A kept terminal that the net also feeds is reached by a tail, unless a kept piece in the joint already
    // leads there.
    const carried = new Set(ends.map((end) => end.member.name));
    const reach =
      members.length + screws.length > 1
        ? landed.filter((entry) => entry.terminal !== 'box' && !carried.has(entry.conductorId))
        : [];
    for (const entry of reach) {
      this.result.landed.splice(this.result.landed.indexOf(entry), 1);
      const conductor = this.box.conductors.find((candidate) => candidate.id === entry.conductorId);
      if (conductor) members.push({ name: conductor.id, size: conductor.size });
      this.pigtail(net, entry.terminal, size, members);
    }
    for (const screw of screws) this.pigtail(net, screw.name, size, members);
    if (members.length === 1 && members[0]) this.result.capped.push(members[0].name);
    else if (members.length > 1) this.join(net, members, ends.find((end) => end.joint !== undefined)?.joint);
  }

  private pigtail(from: string, to: string, size: WireSize, members?: Member[]): void {
    const id = this.fresh('P');
    this.result.made.push({ id, kind: 'pigtail', from, to, size, length: USUAL_LENGTH });
    this.result.landed.push({ terminal: to, conductorId: id });
    members?.push({ name: id, size });
  }

  private join(net: NetName, members: Member[], oldJoint: string | undefined): void {
    const names = (bundle: Member[]) => bundle.map((member) => member.name);
    const id = oldJoint ?? this.fresh('J');
    const untouched = this.untouched(oldJoint, names(members));
    const connector = untouched
      ? foundConnector(untouched.connector, members, profileOf(this.known.job), this.range)
      : chooseConnector(members, this.kinds, this.range);
    if (connector) {
      this.result.joints.push({ id, net, members: names(members), connector, kept: untouched !== undefined });
      return;
    }
    const size = largestSize(members.map((member) => member.size)) as WireSize;
    const split = this.split(members, size);
    if (!split) {
      this.result.joints.push({
        id,
        net,
        members: names(members),
        connector: null,
        kept: untouched !== undefined,
      });
      return;
    }
    const jumper = this.fresh('P');
    const second = this.fresh('J');
    this.result.made.push({ id: jumper, kind: 'jumper', from: id, to: second, size, length: USUAL_LENGTH });
    this.result.joints.push({
      id,
      net,
      members: [...names(split.first), jumper],
      connector: split.connectors[0],
      kept: false,
    });
    this.result.joints.push({
      id: second,
      net,
      members: [...names(split.second), jumper],
      connector: split.connectors[1],
      kept: false,
    });
  }

  /** The old joint when it holds the very same members: nobody opens it, so it keeps its connector. */
  private untouched(oldJoint: string | undefined, members: readonly string[]) {
    if (oldJoint === undefined) return undefined;
    const before = looseEnds(this.box)
      .filter(({ at }) => at.joint === oldJoint)
      .map(({ conductor }) => conductor.id);
    const same = before.length === members.length && before.every((id) => members.includes(id));
    return same ? this.box.joints.find((joint) => joint.id === oldJoint) : undefined;
  }

  /**
   * The division in two, jumper counted in both, whose connectors take the least room. Members alike in size
   * are interchangeable, so what is tried is how many of each size go to the first joint.
   */
  private split(members: Member[], size: WireSize) {
    const jumper = { name: '', size };
    const sizes = new Map<string, Member[]>();
    for (const member of members) {
      const key = `${member.size}${member.aluminium ? ' aluminium' : ''}`;
      sizes.set(key, [...(sizes.get(key) ?? []), member]);
    }
    const alike = [...sizes.values()];
    let best:
      | { first: Member[]; second: Member[]; connectors: [ConnectorChoice, ConnectorChoice] }
      | undefined;
    const counts = alike.map(() => 0);
    const attempt = (at: number) => {
      if (at < alike.length) {
        for (let count = alike[at]?.length ?? 0; count >= 0; count--) {
          counts[at] = count;
          attempt(at + 1);
        }
        return;
      }
      const first = alike.flatMap((own, which) => own.slice(0, counts[which]));
      const second = alike.flatMap((own, which) => own.slice(counts[which]));
      if (first.length === 0 || second.length === 0) return;
      const one = chooseConnector([...first, jumper], this.kinds, this.range);
      const two = one && chooseConnector([...second, jumper], this.kinds, this.range);
      if (one && two && (!best || one.ml + two.ml < best.connectors[0].ml + best.connectors[1].ml - 1e-9))
        best = { first, second, connectors: [one, two] };
    };
    attempt(0);
    return best;
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
}
