import { type JobLookup, labelsOf } from '../job/lookup.js';
import { looseEnds } from '../job/loose-ends.js';
import type { Device, Terminal } from '../job/schema/catalogue.js';
import type { At, Box } from '../job/schema/survey.js';
import type { Gate } from '../power/vocabulary.js';
import { plannedDevices } from './comes-out.js';
import { groupUse } from './group-use.js';
import { type NetKey, netName } from './once-wired.js';
import { planJoints } from './plan.js';
import type { BoxWiring } from './wiring.js';

/** What is done, one thing at a time. The sentences stand in `findings/words/wire-steps.ts`. */
export type WireStepKind =
  | 'prove'
  | 'photograph'
  | 'flags'
  | 're-mark'
  | 'release'
  | 'take-back'
  | 'open-joint'
  | 'take-out'
  | 'cut-pieces'
  | 'strip'
  | 'joint'
  | 'land'
  | 'cap'
  | 'fitting'
  | 'tug'
  | 'cut-out'
  | 'test'
  | 'prove-again'
  | 'fold'
  | 'up'
  | 'mount'
  | 'level'
  | 'film'
  | 'settings'
  | 'breaker'
  | 'plate';

export interface WireStep {
  /** The same as long as the plan has this very step, so that what was done stays done. */
  key: string;
  kind: WireStepKind;
  /** What of the box has to be so before a hand goes in; null: nothing. */
  gate: Gate | null;
  /** Conductors, pieces, terminals and leads it is about: lit in the drawing. */
  ends: readonly string[];
  /** The joint it makes or opens. */
  jointId: string | null;
  net: NetKey | null;
  position: number | null;
  /** Strip length, mm. */
  strip: number | null;
  /** Ends of the joint that are stranded, among solid ones. */
  stranded: readonly string[];
}

/** How much is stripped where no device says so, mm. */
const USUAL_STRIP = 12;

/** What the way back takes: the box as it was found. */
export type WiringToDo = Pick<BoxWiring, 'boxId' | 'box' | 'places' | 'plan'>;

/** The steps of a wiring in the order of the work, dead to closed. */
export function wireSteps(wiring: WiringToDo, known: JobLookup): WireStep[] {
  return new Steps(wiring, known).all();
}

/** The box as it was found, as a wiring: nothing is planned, and nothing is touched. */
export function foundWiring(box: Box, known: JobLookup): WiringToDo {
  return { boxId: box.id, box, places: [], plan: planJoints(box, [], known) };
}

/**
 * The way back: the box put together as it was found, from its record; after a survey that opened it, or when
 * a device goes back.
 * @param undone what was wired instead, and comes out first; null: nothing was
 */
export function wayBackSteps(found: WiringToDo, undone: WiringToDo | null, known: JobLookup): WireStep[] {
  const { joints, kept, ...plan } = found.plan;
  const made: WiringToDo = {
    ...found,
    plan: {
      ...plan,
      joints: joints.map((joint) => ({ ...joint, kept: false })),
      kept: [],
      landed: kept.map(({ conductorId, at }) => ({ terminal: at, conductorId })),
    },
  };
  return new Steps(made, known).wayBack(undone).map((step) => ({ ...step, key: `back:${step.key}` }));
}

type Part = Partial<WireStep> & Pick<WireStep, 'kind'>;

class Steps {
  private readonly steps: WireStep[] = [];
  private readonly devices;

  constructor(
    private readonly wiring: WiringToDo,
    private readonly known: JobLookup,
  ) {
    this.devices = plannedDevices(wiring.places).filter(({ device }) => device.mount === 'box');
  }

  all(): WireStep[] {
    this.prepare();
    this.takeApart();
    this.joinAndLand();
    this.tryIt();
    this.close();
    return this.steps;
  }

  wayBack(undone: WiringToDo | null): WireStep[] {
    this.add({ kind: 'prove' });
    const planned = plannedDevices(undone?.places ?? []).filter(({ device }) => device.mount === 'box');
    for (const { position, device } of planned)
      this.add({
        kind: 'take-back',
        position: position.index,
        ends: device.terminals.map(({ id }) => `${position.index}.${id}`),
      });
    const pieces = (undone?.plan.made ?? []).map(({ id }) => id);
    if (pieces.length > 0) this.add({ kind: 'take-out', ends: pieces }, ...pieces);
    this.joinAndLand();
    this.tryIt();
    this.close();
    return this.steps;
  }

  private add(part: Part, ...more: readonly string[]): void {
    const { kind, jointId = null, position = null, ends = [] } = part;
    this.steps.push({
      gate: 'open',
      net: null,
      strip: null,
      stranded: [],
      ...part,
      ends,
      jointId,
      position,
      key: [kind, jointId ?? position ?? '', more.length > 0 ? markOf(more) : '']
        .filter((word) => word !== '')
        .join(':'),
    });
  }

  private prepare(): void {
    const { box } = this.wiring;
    this.add({ kind: 'prove' });
    this.add({ kind: 'photograph' });
    const told = box.labels.filter(({ role }) => role !== 'unknown').map(({ conductorId }) => conductorId);
    if (told.length > 0) this.add({ kind: 'flags', ends: told });
    const marked = this.remarked();
    if (marked.length > 0) this.add({ kind: 're-mark', ends: marked }, ...marked);
  }

  /** Travelers that carry a line, a load or a neutral from now on. */
  private remarked(): string[] {
    const { box, places } = this.wiring;
    const groups = new Set(
      places.flatMap(({ position }) => this.known.groups.get(`${box.id}/${position.index}`) ?? []),
    );
    const reused = [...groups].flatMap((group) => groupUse(group, this.known).reused);
    return [...new Set(reused.filter(({ boxId }) => boxId === box.id).map(({ conductorId }) => conductorId))];
  }

  private takeApart(): void {
    const { box, plan } = this.wiring;
    const { out } = plan.wired;
    for (const index of [...out].sort((a, b) => a - b)) {
      const ends = looseEnds(box).flatMap(({ conductor, at }) =>
        at.position === index ? [conductor.id] : [],
      );
      const position = box.positions.find((entry) => entry.index === index);
      const leads = (position?.leads ?? []).map(({ terminal }) => `${index}.${terminal}`);
      if (ends.length + leads.length > 0)
        this.add({ kind: 'release', position: index, ends: [...new Set([...ends, ...leads])] });
    }
    for (const joint of this.openedJoints()) {
      const members = looseEnds(box).flatMap(({ conductor, at }) =>
        at.joint === joint.id ? [conductor.id] : [],
      );
      this.add({
        kind: 'open-joint',
        jointId: joint.id,
        net: joint.net,
        ends: members,
        gate: this.holdsNeutral(members) ? 'neutral' : 'joint',
      });
    }
    if (plan.removed.length > 0) this.add({ kind: 'take-out', ends: plan.removed }, ...plan.removed);
  }

  /** Joints of the box as found that the plan leaves neither as they are nor untouched. */
  private openedJoints(): { id: string; net: NetKey | null }[] {
    const { box, plan } = this.wiring;
    return box.joints.flatMap(({ id }) => {
      const now = plan.joints.find((joint) => joint.id === id);
      const used = looseEnds(box).some(({ at }) => at.joint === id);
      return now?.kept || !used ? [] : [{ id, net: now?.net ?? null }];
    });
  }

  private holdsNeutral(ends: readonly string[]): boolean {
    const labels = labelsOf(this.wiring.box);
    return ends.some((id) => {
      const role = labels.get(id)?.role ?? 'unknown';
      return role === 'neutral' || role === 'unknown';
    });
  }

  private joinAndLand(): void {
    const { plan } = this.wiring;
    if (plan.made.length > 0)
      this.add(
        { kind: 'cut-pieces', ends: plan.made.map(({ id }) => id) },
        ...sorted(plan.made.map(({ id }) => id)),
      );
    const moved = this.movedEnds();
    if (moved.length > 0) this.add({ kind: 'strip', ends: moved, strip: this.stripOf(moved) });
    for (const kind of this.netOrder()) {
      for (const joint of plan.joints)
        if (!joint.kept && kindOf(joint.net) === kind)
          this.add(
            {
              kind: 'joint',
              jointId: joint.id,
              net: joint.net,
              ends: joint.members,
              strip: this.stripOf(joint.members),
              stranded: this.strandedOf(joint.members),
              gate: kind === 'neutral' ? 'neutral' : 'joint',
            },
            ...sorted(joint.members),
          );
      this.landOfKind(kind);
    }
    const capped = plan.capped.filter((name) => !this.wasCapped(name));
    if (capped.length > 0) this.add({ kind: 'cap', ends: capped }, ...sorted(capped));
    const parts = plan.wired.atFitting.map(({ loadId, partId }) => `${loadId}/${partId}`);
    if (parts.length > 0) this.add({ kind: 'fitting' }, ...parts);
  }

  private landOfKind(kind: NetKind): void {
    const { plan } = this.wiring;
    const byTerminal = new Map<string, string[]>();
    for (const { terminal, conductorId } of plan.landed)
      if (this.kindOfLanded(terminal, conductorId) === kind)
        byTerminal.set(terminal, [...(byTerminal.get(terminal) ?? []), conductorId]);
    for (const [terminal, ids] of byTerminal) {
      const [position] = terminal.split('.');
      this.add(
        {
          kind: 'land',
          ends: [terminal, ...ids],
          position: terminal === 'box' ? null : Number(position),
          net: this.netOfEnd(ids[0] ?? ''),
          strip: this.terminal(terminal)?.strip ?? USUAL_STRIP,
        },
        terminal,
        ...sorted(ids),
      );
    }
  }

  /** Ends that are handled: taken from where they were, or new. */
  private movedEnds(): string[] {
    const { box, plan } = this.wiring;
    const kept = new Set(plan.kept.map(({ conductorId }) => conductorId));
    const untouched = new Set(plan.joints.filter((joint) => joint.kept).flatMap(({ members }) => members));
    return looseEnds(box)
      .filter(
        ({ conductor: { id } }) =>
          !kept.has(id) && !untouched.has(id) && !plan.removed.includes(id) && !plan.capped.includes(id),
      )
      .map(({ conductor }) => conductor.id)
      .filter((id, at, all) => all.indexOf(id) === at);
  }

  /** The joints' order of the job, then what it does not name. */
  private netOrder(): NetKind[] {
    const order = this.known.job.run?.jointOrder ?? ['ground', 'neutral', 'line', 'load'];
    return [...new Set<NetKind>([...order, ...NET_KINDS])];
  }

  private netOfEnd(id: string): NetKey | null {
    const { plan } = this.wiring;
    return (
      plan.wired.conductors.get(id) ??
      plan.made.find((piece) => piece.id === id)?.net ??
      plan.joints.find(({ members }) => members.includes(id))?.net ??
      null
    );
  }

  private kindOfLanded(terminal: string, conductorId: string): NetKind {
    const net = this.wiring.plan.terminals.get(terminal) ?? this.netOfEnd(conductorId);
    return net === null || net === undefined ? 'other' : kindOf(net);
  }

  private terminal(name: string): Terminal | undefined {
    const [position, id] = name.split('.');
    return this.devices
      .find((entry) => entry.position.index === Number(position))
      ?.device.terminals.find((terminal) => terminal.id === id);
  }

  /** The strip length that a device among the ends asks for; the usual where none does. */
  private stripOf(ends: readonly string[]): number {
    return ends.map((name) => this.terminal(name)?.strip).find((strip) => strip !== undefined) ?? USUAL_STRIP;
  }

  /** Leads, and conductors of fine strands, where they meet solid ones. */
  private strandedOf(members: readonly string[]): string[] {
    const { box } = this.wiring;
    const soft = members.filter(
      (name) => name.includes('.') || box.conductors.find(({ id }) => id === name)?.stranded === true,
    );
    return soft.length < members.length ? soft : [];
  }

  private wasCapped(name: string): boolean {
    return looseEnds(this.wiring.box).some(
      ({ conductor, at }) => conductor.id === name && at.capped === true,
    );
  }

  private tryIt(): void {
    const joined = this.steps.filter(({ kind }) => kind === 'joint' || kind === 'land');
    this.add({ kind: 'tug', ends: [...new Set(joined.flatMap(({ ends }) => ends))] });
    for (const { position, device } of this.devices)
      if (device.cutOut !== undefined) this.add({ kind: 'cut-out', position: position.index, gate: null });
    if (this.known.job.run?.testBeforeFold === false || this.devices.length === 0) return;
    this.add({ kind: 'test', gate: 'energise' });
    this.add({ kind: 'prove-again' });
  }

  private close(): void {
    const { box, plan } = this.wiring;
    const back = plan.joints.filter(({ net }) => kindOf(net) === 'neutral' || kindOf(net) === 'ground');
    this.add({ kind: 'fold', ends: back.flatMap(({ members }) => members) });
    if (this.devices.length > 0) this.add({ kind: 'up' });
    this.add({ kind: 'mount' });
    this.add({ kind: 'level' });
    if (this.devices.length > 0) this.add({ kind: 'film', gate: null });
    const set = this.devices.filter(({ device }) => (device.behindPlate ?? []).length > 0);
    for (const { position } of set) this.add({ kind: 'settings', position: position.index });
    if (box.circuitIds.length > 0) this.add({ kind: 'breaker', gate: null });
    this.add({ kind: 'plate' });
  }
}

/** A short mark that is another for other names (FNV-1a): keys of steps stay short. */
function markOf(names: readonly string[]): string {
  let hash = 0x811c9dc5;
  for (const letter of names.join()) hash = Math.imul(hash ^ (letter.codePointAt(0) ?? 0), 0x01000193);
  return (hash >>> 0).toString(36);
}

const sorted = (names: readonly string[]): string[] => [...names].sort();

const NET_KINDS = ['ground', 'neutral', 'line', 'load', 'traveler', 'other'] as const;
type NetKind = (typeof NET_KINDS)[number];

function kindOf(net: NetKey): NetKind {
  const [kind] = netName(net).split(':');
  return NET_KINDS.find((entry) => entry === kind) ?? 'other';
}

/** How a wire comes off what it is on: known for a device of the catalogue, else by what it usually is. */
export function releasedFrom(
  box: Box,
  at: At,
  devices: ReadonlyMap<string, Device>,
): Terminal['form'] | 'unknown' {
  const position = box.positions.find(({ index }) => index === at.position);
  const device = position?.existing === 'smart' ? devices.get(position.deviceId ?? '') : undefined;
  return device?.terminals.find(({ id }) => id === at.terminal)?.form ?? 'unknown';
}
