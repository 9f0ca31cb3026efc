import { isFromOutside } from '../../job/conductors.js';
import { type JobLookup, labelsOf } from '../../job/lookup.js';
import { looseEnds } from '../../job/loose-ends.js';
import { isGround } from '../../practice/wire.js';
import { planJoints } from '../plan.js';
import { FoundBehaviour, foundContacts } from './found-behaviour.js';
import { coreNode, Graph, terminalNode } from './graph.js';
import { placingBreaches } from './placing.js';
import { type DevicePromise, promiseOf, type UnitPromise } from './promise.js';
import { type Contact, Runs, type State, type StateRun, statesOf } from './states.js';
import type { BoxToProve, Breach } from './vocabulary.js';

/**
 * Runs a plan of some boxes together on the electrics model, in every state of the breakers and switches that
 * bear on them, and holds it against what devices, strategies and findings promise.
 *
 * @param boxes of one group, or one box alone
 * @returns what it does not do; nothing: it is proved
 */
export function prove(boxes: readonly BoxToProve[], known: JobLookup): Breach[] {
  const placed = boxes.flatMap((entry) => placingBreaches(entry, known));
  return placed.length > 0 ? placed : new Proof(boxes, known).breaches();
}

class Proof {
  private readonly graph: Graph;
  private readonly promise: UnitPromise;
  private readonly asFound: FoundBehaviour;
  private readonly breachesFound = new Map<string, Breach>();
  private readonly circuits: string[];

  constructor(
    private readonly boxes: readonly BoxToProve[],
    private readonly known: JobLookup,
  ) {
    this.graph = new Graph(boxes, known);
    this.promise = promiseOf(boxes, known);
    const found = boxes.map(({ box }) => ({
      box,
      places: [],
      plan: planJoints(box, [], known),
      out: new Set<number>(),
    }));
    this.asFound = new FoundBehaviour(found, boxes, known);
    this.circuits = [
      ...new Set(
        [...this.graph.poles].flatMap((pole) =>
          pole.startsWith('L:') ? (pole.slice(2).split('#')[0] as string) : [],
        ),
      ),
    ];
  }

  breaches(): Breach[] {
    for (const device of this.promise.devices) this.ofIdleTerminals(device);
    this.ofSignals();
    for (const entry of this.boxes) {
      this.ofGrounds(entry);
      this.ofUnknown(entry);
    }
    this.ofTravelers();
    this.inStates();
    return [...this.breachesFound.values()];
  }

  private say(code: Breach['code'], boxId: string, ...about: string[]): void {
    this.breachesFound.set(`${code}|${boxId}|${about.join()}`, { code, boxId, about });
  }

  private root(node: string): string {
    return this.graph.joined.find(node);
  }

  private together(a: string, b: string): boolean {
    return this.root(a) === this.root(b);
  }

  // What holds in every state: nothing is between but wire.

  private ofIdleTerminals(device: DevicePromise): void {
    const { boxId } = device;
    for (const node of device.grounds)
      if (this.hasGround(boxId) && !this.together(node, 'E')) this.say('not-grounded', boxId, nameOf(node));
    for (const node of device.alone)
      if (!this.isAlone(node)) this.say('terminal-astray', boxId, nameOf(node));
    if (device.lacksWatts) this.say('below-minimum', boxId, `${device.position}`);
    if (device.sides) this.ofSides(device, device.sides);
    else if (!(device.eitherWay && this.turned(device)))
      for (const { to, loadIds } of device.channels) this.ofLoadTerminal(boxId, to, loadIds);
  }

  /** A device has its supply in every state, whatever stays in its way. */
  private ofSupply({ boxId, circuitId, neutrals, lines, ...device }: DevicePromise, run: StateRun): void {
    const neutral = circuitId === undefined ? undefined : this.graph.neutralPole(circuitId);
    for (const { node, needed } of neutrals)
      if (needed && !(neutral && run.same(node, neutral))) this.say('no-supply', boxId, nameOf(node));
    if (device.sides || (device.eitherWay && this.turned({ lines, channels: device.channels }))) return;
    for (const { node, circuitId: own, leg, needed } of lines) {
      const pole = `L:${own}${leg > 0 ? `#${leg + 1}` : ''}`;
      if (needed && !(own && run.same(node, pole))) this.say('no-supply', boxId, nameOf(node));
      else if (!needed && !this.isAlone(node) && !run.same(node, pole))
        this.say('terminal-astray', boxId, nameOf(node));
    }
  }

  /** What hangs on a load terminal: its own loads, and nothing else's. */
  private ofLoadTerminal(boxId: string, node: string, loadIds: readonly string[]): void {
    const here = this.graph.consumers.filter(({ hot }) => this.together(hot, node));
    for (const { loadId, conductorId } of here)
      if (loadId !== null ? !loadIds.includes(loadId) : this.isNamed(conductorId, boxId))
        this.say('terminal-astray', boxId, nameOf(node), conductorId);
    for (const id of loadIds)
      if (
        this.graph.consumers.some(({ loadId }) => loadId === id) &&
        !here.some(({ loadId }) => loadId === id)
      )
        this.say('load-not-worked', boxId, id);
    if ([...this.graph.poles].some((pole) => this.together(node, pole)))
      this.say('load-not-off', boxId, nameOf(node));
  }

  /** A load nobody named may be the one this device works. */
  private isNamed(conductorId: string, boxId: string): boolean {
    const entry = this.boxes.find(({ box }) => box.id === boxId);
    return entry === undefined || labelsOf(entry.box).get(conductorId)?.role !== 'load';
  }

  /** Whether line and load are exchanged where that makes no difference. */
  private turned({ lines, channels }: Pick<DevicePromise, 'lines' | 'channels'>): boolean {
    const [line, channel] = [lines[0], channels[0]];
    if (!line || !channel || lines.length > 1 || channels.length > 1) return false;
    const loads = this.graph.consumers.filter(({ hot }) => this.together(hot, line.node));
    return (
      this.together(channel.to, `L:${line.circuitId}`) &&
      loads.length > 0 &&
      loads.every(({ loadId }) => loadId !== null && channel.loadIds.includes(loadId))
    );
  }

  /** Nobody knows which side is the line: the device stands between the two sides as the old switch did. */
  private ofSides(device: DevicePromise, sides: readonly (readonly string[])[]): void {
    const { boxId, lines, channels } = device;
    const [line] = lines;
    const load = terminalNode(
      boxId,
      `${device.position}.${device.device.terminals.find(({ role }) => role === 'load')?.id}`,
    );
    const [one = [], other = []] = sides;
    const on = (node: string, side: readonly string[]) =>
      side.length > 0 && side.every((end) => this.together(end, node));
    const apart = line !== undefined && !this.together(line.node, load);
    const between =
      line && ((on(line.node, one) && on(load, other)) || (on(line.node, other) && on(load, one)));
    const strange = sides.flat().some((end) => this.hasStranger(boxId, end, sides.flat()));
    if (!apart || !between || strange)
      this.say('no-supply', boxId, line ? nameOf(line.node) : `${channels.length}`);
  }

  /** Whether what nobody knows is on a neutral, on earth, or with a conductor it had no part in. */
  private hasStranger(boxId: string, end: string, sides: readonly string[]): boolean {
    const box = this.boxes.find((entry) => entry.box.id === boxId)?.box;
    return (
      [...this.graph.poles].some((pole) => !pole.startsWith('L:') && this.together(pole, end)) ||
      (box?.conductors ?? []).some((conductor) => {
        const other = coreNode(boxId, conductor.id);
        return isFromOutside(conductor) && !sides.includes(other) && this.together(other, end);
      })
    );
  }

  private isAlone(node: string): boolean {
    const root = this.root(node);
    return this.nodes().every((other) => other === node || this.root(other) !== root);
  }

  private everyNode: string[] | null = null;

  /** Every end, terminal and pole. */
  private nodes(): string[] {
    this.everyNode ??= [
      ...this.graph.poles,
      ...this.boxes.flatMap(({ box, plan, places }) => [
        ...box.conductors
          .filter(({ id }) => !plan.removed.includes(id))
          .map(({ id }) => coreNode(box.id, id)),
        ...plan.made.map(({ id }) => coreNode(box.id, id)),
        ...places.flatMap(({ position, device }) =>
          device?.mount === 'box'
            ? device.terminals.map(({ id }) => terminalNode(box.id, `${position.index}.${id}`))
            : [],
        ),
        ...plan.kept.map(({ at }) => (at === 'box' ? `${box.id}|box` : terminalNode(box.id, at))),
      ]),
    ];
    return this.everyNode;
  }

  /** A signal runs from device to device, and on nothing else. */
  private ofSignals(): void {
    const groups = new Map<string, DevicePromise[]>();
    for (const device of this.promise.devices) {
      if (device.signals.length === 0) continue;
      const group = this.known.groups.get(`${device.boxId}/${device.position}`);
      const key = group?.id ?? `${device.boxId}/${device.position}`;
      groups.set(key, [...(groups.get(key) ?? []), device]);
    }
    for (const devices of groups.values()) {
      const [first] = devices;
      if (!first) continue;
      first.signals.forEach((node, at) => {
        const others = devices.slice(1).flatMap(({ signals }) => signals[at] ?? []);
        const far = this.graph.segments.filter(([a, b]) =>
          [a, b].some((end) => end && this.together(end, node)),
        );
        if (others.some((other) => !this.together(node, other)) || (others.length === 0 && far.length === 0))
          this.say('signal-lost', first.boxId, nameOf(node));
        if (
          [...this.graph.poles].some((pole) => this.together(node, pole)) ||
          this.graph.consumers.some(({ hot, back }) => this.together(hot, node) || this.together(back, node))
        )
          this.say('terminal-astray', first.boxId, nameOf(node));
      });
    }
  }

  private hasGround(boxId: string): boolean {
    const entry = this.boxes.find(({ box }) => box.id === boxId);
    return entry !== undefined && groundsOf(entry).some(({ isolatedGround }) => !isolatedGround);
  }

  private ofGrounds(entry: BoxToProve): void {
    const { box, out } = entry;
    const grounds = groundsOf(entry);
    if (out.size === 0) {
      // Nobody works here: what was grounded stays so.
      for (const { id } of grounds)
        if (this.asFound.isGrounded(coreNode(box.id, id)) && !this.together(coreNode(box.id, id), 'E'))
          this.say('not-grounded', box.id, id);
      return;
    }
    if (!grounds.some(({ isolatedGround }) => !isolatedGround)) return;
    for (const { id, isolatedGround } of grounds)
      if (!isolatedGround && !this.together(coreNode(box.id, id), 'E')) this.say('not-grounded', box.id, id);
    const bonded = looseEnds(box).some(({ at }) => at.boxScrew);
    if (box.enclosure.material === 'metal' && (bonded || !box.enclosure.grounded))
      if (!this.together(`${box.id}|box`, 'E')) this.say('box-not-bonded', box.id);
  }

  /** What nobody identified hangs together as it did, and on nothing else; spare ends hang on nothing. */
  private ofUnknown(entry: BoxToProve): void {
    const { box, plan, out } = entry;
    const labels = labelsOf(box);
    const sided = new Set(this.promise.devices.flatMap(({ sides }) => (sides ?? []).flat()));
    const unknown = box.conductors.filter((conductor) => {
      const role = labels.get(conductor.id)?.role ?? 'unknown';
      return (
        isFromOutside(conductor) &&
        conductor.unbroken !== true &&
        (role === 'spare' || (role === 'unknown' && !isGround(conductor, labels.get(conductor.id)))) &&
        !sided.has(coreNode(box.id, conductor.id))
      );
    });
    const kept = new Set(plan.kept.map(({ conductorId }) => conductorId));
    const jointOf = (id: string) => box.conductors.find((conductor) => conductor.id === id)?.at?.joint;
    const ids = new Set(unknown.map(({ id }) => coreNode(box.id, id)));
    for (const { id } of unknown) {
      if (kept.has(id)) continue;
      const node = coreNode(box.id, id);
      const own = jointOf(id);
      const beside = own === undefined ? [] : box.conductors.filter(({ at }) => at?.joint === own);
      const stayed = own !== undefined && beside.every(({ id: other }) => ids.has(coreNode(box.id, other)));
      const fellows = stayed ? beside.map(({ id: other }) => coreNode(box.id, other)) : [node];
      const here = this.nodes().filter((other) => this.together(other, node));
      const strangers = here.filter(
        (other) => !fellows.includes(other) && !this.isOldTail(entry, other, out),
      );
      const lost = fellows.filter((other) => !here.includes(other));
      if (strangers.length > 0 || lost.length > 0) this.say('unknown-joined', box.id, id);
    }
  }

  /** A tail of the box as found, among what nobody identified. */
  private isOldTail({ box }: BoxToProve, node: string, out: ReadonlySet<number>): boolean {
    const tail = box.conductors.find(
      (conductor) => !isFromOutside(conductor) && coreNode(box.id, conductor.id) === node,
    );
    return tail?.ends?.every(({ position }) => position === undefined || !out.has(position)) === true;
  }

  /** A traveler is joined at both its ends, or capped at both; a box that stays as found may hold one end. */
  private ofTravelers(): void {
    for (const ends of this.graph.segments) {
      const used = ends.map((end) => this.standsWithOthers(end, ends));
      const [boxId = ''] = (ends[0] ?? '').split('|');
      const stays = ends.some((end) => this.staysKept(end));
      if (used.some(Boolean) && !used.every(Boolean) && !stays && this.isTraveler(ends[0] as string))
        this.say('half-joined', boxId, ...ends.map(nameOf));
    }
  }

  private isTraveler(node: string): boolean {
    const { box, id } = this.coreOf(node);
    return box !== undefined && labelsOf(box).get(id)?.role === 'traveler';
  }

  private coreOf(node: string) {
    const [boxId = '', rest = ''] = node.split('|');
    return { box: this.boxes.find(({ box }) => box.id === boxId)?.box, id: rest.slice(2) };
  }

  /** Whether in its box anything is joined with it, or a terminal. */
  private standsWithOthers(node: string, segment: readonly string[]): boolean {
    const [boxId = ''] = node.split('|');
    const entry = this.boxes.find(({ box }) => box.id === boxId);
    const { id } = this.coreOf(node);
    return (
      entry?.plan.joints.some(({ members }) => members.includes(id)) === true ||
      entry?.plan.landed.some(({ conductorId }) => conductorId === id) === true ||
      (entry?.plan.kept.some(({ conductorId }) => conductorId === id) === true && segment.length > 0)
    );
  }

  private staysKept(node: string): boolean {
    const [boxId = ''] = node.split('|');
    const { id } = this.coreOf(node);
    const entry = this.boxes.find(({ box }) => box.id === boxId);
    return entry?.plan.kept.some(({ conductorId }) => conductorId === id) === true;
  }

  /** Neutrals of circuits that share none, the ground, and lines never meet; what returns here gets home. */
  private ofPoles(run: StateRun): void {
    const poles = [...this.graph.poles];
    const boxId = this.boxes[0]?.box.id ?? '';
    poles.forEach((one, at) => {
      for (const other of poles.slice(at + 1)) {
        if (!run.same(one, other)) continue;
        const kinds = [one[0], other[0]].sort().join('');
        if (kinds === 'NN') this.say('borrowed-return', boxId, one, other);
        else if (kinds === 'EN') this.say('neutral-ground-joined', boxId, one, other);
        else if (kinds === 'LL') this.say('cross-fed', boxId, one, other);
        else if (one !== other) this.say('short', boxId, one, other);
      }
    });
    for (const { boxId: at, conductorId, node, pole } of this.graph.returns)
      if (!run.same(node, pole)) this.say('fed-on-lost', at, conductorId);
  }

  // What has to be run: contacts closed and open, breakers on and off.

  private inStates(): void {
    const planned = this.plannedContacts();
    const kept = this.boxes.flatMap((entry) =>
      foundContacts(entry, (index) => !entry.out.has(index), this.known),
    );
    const keys = [...new Set([...planned, ...kept].map(({ key }) => key))];
    const runs = new Runs(this.graph, [...planned, ...kept], this.known);
    for (const state of statesOf(this.circuits, keys)) {
      const run = runs.run(state);
      for (const circuit of run.shorts) this.say('short', this.boxes[0]?.box.id ?? '', circuit);
      this.ofPoles(run);
      for (const device of this.promise.devices) this.ofSupply(device, run);
      this.ofWorkedLoads(state, run);
      this.ofOthers(state, run);
    }
  }

  private plannedContacts(): Contact[] {
    return this.promise.devices.flatMap(({ boxId, position, channels }) => {
      const key = (id: number) => `${boxId}/${position}#${id}`;
      return channels.map(({ id, from, to }) => ({ key: key(id), from, to, when: 'on' as const }));
    });
  }

  private ofWorkedLoads({ breakersOn, closed }: State, run: StateRun): void {
    for (const { boxId, position, channels, circuitId, lines, sides } of this.promise.devices) {
      if (sides) continue;
      for (const { id, from, loadIds } of channels) {
        const circuit = lines.find(({ node }) => node === from)?.circuitId ?? circuitId;
        const wanted =
          closed.has(`${boxId}/${position}#${id}`) && circuit !== undefined && breakersOn.has(circuit);
        this.holdLoads(run, boxId, loadIds, wanted);
      }
    }
    for (const id of this.promise.fedAlways) {
      const consumer = this.graph.consumers.find(({ loadId }) => loadId === id);
      const circuit = consumer && this.feedOf(consumer.boxId);
      if (consumer && circuit) this.holdLoads(run, consumer.boxId, [id], breakersOn.has(circuit));
    }
  }

  /** The circuit of a box of bulbs that are always fed. */
  private feedOf(boxId: string): string | undefined {
    const entry = this.boxes.find(({ box }) => box.id === boxId);
    const own = this.promise.devices.find((device) => device.boxId === boxId)?.circuitId;
    const lines = (entry?.box.labels ?? []).filter(({ role }) => role === 'line');
    const beside = this.boxes.flatMap(({ box }) =>
      box.labels.filter(({ role }) => role === 'line').map((label) => label.circuitId ?? box.circuitIds[0]),
    );
    return own ?? lines[0]?.circuitId ?? entry?.box.circuitIds[0] ?? beside[0];
  }

  private holdLoads(run: StateRun, boxId: string, loadIds: readonly string[], wanted: boolean): void {
    for (const loadId of loadIds) {
      const consumers = this.graph.consumers.filter((entry) => entry.loadId === loadId);
      const lit = consumers.filter(({ hot, back }) => run.isLit(hot, back));
      if (wanted ? lit.length < consumers.length : lit.length > 0)
        this.say(wanted ? 'load-not-worked' : 'load-not-off', boxId, loadId);
    }
  }

  /** What no planned device works behaves as it did. */
  private ofOthers(state: State, run: StateRun): void {
    for (const { id, loadId, boxId, conductorId, hot, back } of this.graph.consumers) {
      if (loadId !== null && (this.promise.worked.has(loadId) || this.promise.fedAlways.has(loadId)))
        continue;
      const before = this.asFound.lit(state, id, conductorId, boxId);
      if (before === null || before === run.isLit(hot, back)) continue;
      this.say('fed-on-lost', boxId, loadId ?? conductorId);
    }
    for (const { boxId, node, poles } of this.asFound.keptTerminals(state))
      for (const pole of poles) if (!run.same(node, pole)) this.say('fed-on-lost', boxId, nameOf(node));
  }
}

function groundsOf({ box }: BoxToProve) {
  const labels = labelsOf(box);
  return box.conductors.filter(
    (conductor) =>
      isFromOutside(conductor) &&
      conductor.unbroken !== true &&
      isGround(conductor, labels.get(conductor.id)),
  );
}

const nameOf = (node: string) => node.split('|')[1]?.replace(/^[cjt]:/, '') ?? node;
