import { type JobLookup, labelsOf } from '../job/lookup.js';
import { neutralFamilies } from '../job/neutral-families.js';
import type { Label } from '../job/schema/survey.js';
import { netName } from '../wire/once-wired.js';
import { coreNode, terminalNode } from '../wire/proof/graph.js';
import type { DevicePromise } from '../wire/proof/promise.js';
import { Behaviour } from './behaviour.js';
import type { Slip } from './copper.js';
import { endsOf, exchanged, loosened, moved, type PlannedEnd } from './edits.js';
import { ofItself } from './of-itself.js';
import type { Scene, WiredBox } from './scene.js';
import { type FaultCause, type Shows, SYMPTOM_KINDS } from './vocabulary.js';

/** One way a cause can be: which end, which conductor. */
export interface Form {
  cause: FaultCause;
  position: number | null;
  conductorIds: readonly string[];
  slip: Slip;
  shows: Shows;
}

/** Every form of every fault this box and this device can have. */
export function formsOf(scene: Scene): Form[] {
  return new Forms(scene).all();
}

const NET_KINDS = ['line', 'load', 'neutral', 'traveler'] as const;
type NetKind = (typeof NET_KINDS)[number];

class Forms {
  private readonly forms: Form[] = [];
  private readonly behaviour: Behaviour;
  private readonly entry: WiredBox;
  readonly healthy: Shows;
  private readonly labels: ReadonlyMap<string, Label>;
  private readonly known: JobLookup;
  private readonly own: DevicePromise;

  constructor(private readonly scene: Scene) {
    this.behaviour = new Behaviour(scene);
    this.known = scene.known;
    this.own = scene.own;
    this.entry = scene.boxes.find(({ box }) => box.id === scene.own.boxId) as WiredBox;
    this.labels = labelsOf(this.entry.box);
    this.healthy = this.behaviour.shows({});
  }

  all(): Form[] {
    this.breakers();
    this.looseEnds();
    this.exchanges();
    this.otherNeutral();
    this.touching();
    for (const { cause, position, slip = {}, shows } of ofItself(this.scene))
      this.add(cause, position, [], slip, shows?.(this.healthy));
    return this.forms;
  }

  private add(
    cause: FaultCause,
    position: number | null,
    names: readonly string[],
    slip: Slip,
    shows = this.behaviour.shows(slip),
  ): void {
    // Terminals and leads have no name a reader of the job knows.
    const conductorIds = [...new Set(names.filter((name) => !name.includes('.')))];
    this.forms.push({ cause, position, conductorIds, slip, shows });
  }

  private plans(plan: WiredBox['plan'], boxId = this.entry.box.id): Slip {
    return { plans: new Map([[boxId, plan]]) };
  }

  private breakers(): void {
    const circuits = this.entry.box.circuitIds;
    if (circuits.length > 1) this.add('breaker-off', null, [], { breakersOff: [...circuits] });
    for (const id of circuits) this.add('breaker-off', null, [], { breakersOff: [id] });
  }

  /** An end that came off, or only touches: what it is called follows from what it takes with it. */
  private looseEnds(): void {
    const { plan, box } = this.entry;
    for (const end of endsOf(plan)) {
      const kind = this.kindOf(end);
      if (kind === null) continue;
      const apart = this.plans(loosened(plan, end));
      const rest = 'jointId' in end ? `${box.id}|j:${end.jointId}` : terminalNode(box.id, end.terminal);
      const touching: Slip = { ...apart, badContact: [[this.nodeOf(end.name), rest]] };
      for (const slip of [apart, touching]) {
        const shows = this.behaviour.shows(slip);
        const cause = this.looseCause(kind, shows);
        const carried = cause === 'line-on-not-carried' || cause === 'neutral-not-carried';
        if (cause) this.add(cause, carried ? null : this.own.position, [end.name], slip, shows);
      }
    }
  }

  private looseCause(kind: NetKind, shows: Shows): FaultCause | null {
    const differs = (entry: keyof Shows) => String(shows[entry]) !== String(this.healthy[entry]);
    if (SYMPTOM_KINDS.some((entry) => entry !== 'neighbour' && differs(entry))) return `${kind}-loose`;
    if (!differs('neighbour')) return null;
    return kind === 'line' ? 'line-on-not-carried' : kind === 'neutral' ? 'neutral-not-carried' : null;
  }

  private kindOf(end: PlannedEnd): NetKind | null {
    if (this.labels.get(end.name)?.role === 'traveler') return 'traveler';
    const { plan } = this.entry;
    const net =
      'jointId' in end
        ? plan.joints.find(({ id }) => id === end.jointId)?.net
        : (plan.terminals.get(end.terminal) ?? plan.wired.conductors.get(end.name));
    const kind = net === undefined ? undefined : netName(net).split(':')[0];
    return NET_KINDS.find((entry) => entry === kind) ?? null;
  }

  private nodeOf(name: string): string {
    const { box, plan } = this.entry;
    const isConductor =
      box.conductors.some(({ id }) => id === name) || plan.made.some(({ id }) => id === name);
    return isConductor ? coreNode(box.id, name) : terminalNode(box.id, name);
  }

  /** Names of the terminals of the device that something stands on, by their role. */
  private terminals(role: 'line' | 'load' | 'neutral' | 'traveler'): string[] {
    const { plan } = this.entry;
    const used = new Set(endsOf(plan).flatMap((end) => ('terminal' in end ? [end.terminal] : [end.name])));
    return this.own.device.terminals
      .filter((terminal) => terminal.role === role)
      .map(({ id }) => `${this.own.position}.${id}`)
      .filter((name) => used.has(name));
  }

  /** What is on a terminal. */
  private on(terminal: string): string[] {
    const { plan } = this.entry;
    return [
      ...plan.landed.filter((one) => one.terminal === terminal).map(({ conductorId }) => conductorId),
      ...plan.joints.filter(({ members }) => members.includes(terminal)).flatMap(({ members }) => members),
    ];
  }

  private exchanges(): void {
    const { own } = this;
    const at = (cause: FaultCause, one: string, other: string) =>
      this.add(
        cause,
        own.position,
        this.sole(one, other),
        this.plans(exchanged(this.entry.plan, one, other)),
      );
    for (const line of this.terminals('line')) {
      if (!(own.eitherWay && own.channels.length === 1))
        for (const load of this.terminals('load')) at('line-load-exchanged', line, load);
      for (const neutral of this.terminals('neutral')) at('line-neutral-exchanged', line, neutral);
    }
    for (const neutral of this.terminals('neutral'))
      for (const load of this.terminals('load')) at('neutral-load-exchanged', neutral, load);
    for (const signal of this.terminals('traveler'))
      for (const other of [...this.terminals('line'), ...this.terminals('load')])
        at('traveler-common-exchanged', signal, other);
    this.exchangedCores();
    this.farCommon();
  }

  /** Conductors that lie alone on a terminal are what was exchanged there. */
  private sole(...terminals: string[]): string[] {
    return terminals.flatMap((terminal) => {
      const here = this.on(terminal).filter((name) => name !== terminal);
      return here.length === 1 ? here : [];
    });
  }

  /** Load wires, and a traveler with a line or load, mistaken for each other. */
  private exchangedCores(): void {
    const { box, plan } = this.entry;
    const placed = new Set(endsOf(plan).map(({ name }) => name));
    const cores = box.conductors.flatMap(({ id }) => {
      const label = this.labels.get(id);
      return label && placed.has(id) ? [{ id, label }] : [];
    });
    const ownLoads = new Set(this.own.channels.flatMap(({ loadIds }) => loadIds));
    const loads = cores.filter(({ label }) => label.role === 'load');
    const isOwn = ({ label }: (typeof cores)[number]) =>
      label.loadIds?.some((id) => ownLoads.has(id)) === true;
    const swap = (cause: FaultCause, one: string, other: string) => {
      const slip = this.plans(exchanged(plan, one, other));
      const shows = this.behaviour.shows(slip);
      // It works a load, but another's.
      const control = cause === 'loads-exchanged' ? (['partial'] as const) : shows.control;
      this.add(cause, this.own.position, [one, other], slip, { ...shows, control });
    };
    for (const [number, one] of loads.entries())
      for (const other of loads.slice(number + 1))
        if ((isOwn(one) || isOwn(other)) && !sameLoads(one.label, other.label))
          swap('loads-exchanged', one.id, other.id);
    const group = this.known.groups.get(`${box.id}/${this.own.position}`);
    const travelers = cores.filter(({ label }) => label.role === 'traveler' && label.groupId === group?.id);
    for (const traveler of travelers)
      for (const other of cores)
        if (other.label.role === 'line' || (other.label.role === 'load' && isOwn(other)))
          swap('traveler-common-exchanged', traveler.id, other.id);
  }

  /** A far switch that stays, its common exchanged with a traveler. */
  private farCommon(): void {
    for (const { box, plan } of this.scene.boxes) {
      if (box.id === this.entry.box.id) continue;
      for (const { index } of box.positions) {
        if (!this.scene.farSwitches.includes(`${box.id}/${index}`)) continue;
        for (const terminal of ['t1', 't2'])
          this.add(
            'traveler-common-exchanged',
            this.own.position,
            [],
            this.plans(exchanged(plan, `${index}.common`, `${index}.${terminal}`), box.id),
          );
      }
    }
  }

  /** The device's neutral, or its load's, in the joint of another circuit's neutral. */
  private otherNeutral(): void {
    const { plan } = this.entry;
    const families = neutralFamilies(this.known.job);
    const circuit = this.own.circuitId;
    if (circuit === undefined) return;
    const mine = families.of(circuit);
    const others = plan.joints.filter(({ net }) => {
      const [kind, id = ''] = netName(net).split(':');
      return kind === 'neutral' && !mine.has(id);
    });
    const neutrals = endsOf(plan).filter((end) => this.kindOf(end) === 'neutral');
    for (const joint of others)
      for (const end of neutrals) {
        if (!('jointId' in end) || end.jointId === joint.id) continue;
        const leads = this.leadsToOwn(end.name);
        const returns = this.returnsOwnLoad(end.name);
        if (!leads && !returns) continue;
        const slip = this.plans(moved(plan, end, joint.id));
        const shows = this.behaviour.shows(slip);
        const trips =
          returns &&
          this.isWatched([circuit, ...others.flatMap(({ net }) => netName(net).split(':')[1] ?? [])]);
        this.add(
          'neutral-of-other-circuit',
          this.own.position,
          [end.name],
          slip,
          trips ? { ...shows, control: ['none'], load: ['off'], breaker: ['trips-at-switching'] } : shows,
        );
      }
  }

  private isWatched(circuitIds: readonly string[]): boolean {
    return circuitIds.some((id) =>
      ['gfci', 'dual', 'rcd', 'rcbo'].includes(this.known.circuits.get(id)?.protection ?? 'none'),
    );
  }

  private leadsToOwn(name: string): boolean {
    const own = `${this.own.position}.`;
    const piece = this.entry.plan.made.find(({ id }) => id === name);
    return name.startsWith(own) || piece?.from.startsWith(own) === true || piece?.to.startsWith(own) === true;
  }

  private returnsOwnLoad(name: string): boolean {
    const { box } = this.entry;
    const cable = box.conductors.find(({ id }) => id === name)?.cableId;
    const ids = new Set(this.own.channels.flatMap(({ loadIds }) => loadIds));
    return (
      cable !== undefined &&
      box.conductors.some((other) => {
        const label = this.labels.get(other.id);
        return (
          other.cableId === cable &&
          label?.role === 'load' &&
          label.loadIds?.some((id) => ids.has(id)) === true
        );
      })
    );
  }

  /** Wires that touch where they lie, so that it stays so with the device out. */
  private touching(): void {
    const neutral = this.own.circuitId === undefined ? undefined : this.neutralPole(this.own.circuitId);
    const line = this.feedNode();
    for (const { from, to } of this.own.channels) {
      const cores = this.coresOf(this.on(nameOf(to)));
      const load = cores[0] === undefined ? to : coreNode(this.entry.box.id, cores[0]);
      this.add('line-load-joined', this.own.position, cores, { touching: [[line ?? from, load]] });
      if (neutral) this.add('load-fault', this.own.position, cores, { touching: [[load, neutral]] });
    }
    for (const circuit of new Set([...this.entry.box.circuitIds, this.own.circuitId])) {
      const feed = this.feeds(circuit)[0];
      const node = feed === undefined ? line : coreNode(this.entry.box.id, feed);
      const own = circuit === this.own.circuitId || feed !== undefined;
      if (circuit !== undefined && own && node)
        this.add('line-fault', null, feed === undefined ? [] : [feed], {
          touching: [[node, this.neutralPole(circuit)]],
        });
    }
  }

  /** Lines that come into the box on a circuit. */
  private feeds(circuit = this.own.circuitId): string[] {
    const { box, plan } = this.entry;
    const net = `line:${circuit}`;
    return box.conductors.flatMap(({ id }) =>
      this.labels.get(id)?.role === 'line' && netName(plan.wired.conductors.get(id) ?? net) === net
        ? [id]
        : [],
    );
  }

  /** Where the line of the device is in the box, whether it comes in here or over a traveler. */
  private feedNode(): string | undefined {
    const [feed] = this.feeds();
    if (feed !== undefined) return coreNode(this.entry.box.id, feed);
    return this.own.lines[0]?.node;
  }

  private coresOf(names: readonly string[]): string[] {
    return names.filter((name) => this.entry.box.conductors.some(({ id }) => id === name));
  }

  private neutralPole(circuitId: string): string {
    return `N:${[...neutralFamilies(this.known.job).of(circuitId)].sort()[0]}`;
  }
}

const nameOf = (node: string) => node.split('|t:')[1] ?? node;

function sameLoads(one: Label, other: Label): boolean {
  return [...(one.loadIds ?? [])].sort().join() === [...(other.loadIds ?? [])].sort().join();
}
