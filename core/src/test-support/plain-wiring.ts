import type { Device } from '../job/schema/catalogue.js';
import type { At, Box } from '../job/schema/survey.js';
import type { TrueHouse } from './true-house.js';

/** A plan as it is printed: what stands where, and nothing else. */
export interface PrintedPlan {
  boxId: string;
  joints: readonly { id: string; members: readonly string[] }[];
  made: readonly { id: string }[];
  landed: readonly { terminal: string; conductorId: string }[];
  capped: readonly string[];
  kept: readonly { conductorId: string; at: string }[];
  removed: readonly string[];
}

/**
 * What is wrong with plans, tried on the true copper of a house: every contact and breaker in turn, what
 * touches what by flooding. Shares no code with the planner and its proof: plain lists, plain loops.
 */
export function troubles(house: TrueHouse, plans: readonly PrintedPlan[]): string[] {
  return new Copper(house, plans).troubles();
}

type Wire = [string, string];

class Copper {
  private readonly found: string[] = [];
  private readonly wires: Wire[] = [];

  constructor(
    private readonly house: TrueHouse,
    private readonly plans: readonly PrintedPlan[],
  ) {
    for (const [core, far] of house.far) this.wires.push([`core ${core}`, far]);
    for (const plan of plans) this.wireBox(plan);
    for (const box of house.job.boxes)
      if (!plans.some(({ boxId }) => boxId === box.id)) this.wireAsFound(box);
  }

  troubles(): string[] {
    for (const plan of this.plans) this.counted(plan);
    if (this.found.length > 0) return this.found;
    for (const { key, on } of this.contacts()) if (key === '') this.wires.push(...on);
    this.always();
    this.switched();
    return [...new Set(this.found)];
  }

  private box(id: string): Box {
    return this.house.job.boxes.find((box) => box.id === id) as Box;
  }

  private wireBox({ boxId, joints, made, landed, kept }: PrintedPlan): void {
    const isWire = (name: string) =>
      made.some(({ id }) => id === name) || this.box(boxId).conductors.some(({ id }) => id === name);
    for (const joint of joints)
      for (const name of joint.members)
        this.wires.push([
          `joint ${boxId}/${joint.id}`,
          isWire(name) ? `core ${boxId}/${name}` : `post ${boxId}/${name}`,
        ]);
    for (const { terminal, conductorId } of landed)
      this.wires.push([`post ${boxId}/${terminal}`, `core ${boxId}/${conductorId}`]);
    for (const { conductorId, at } of kept)
      this.wires.push([`post ${boxId}/${at}`, `core ${boxId}/${conductorId}`]);
  }

  private wireAsFound(box: Box): void {
    const place = (at: At) =>
      at.joint !== undefined
        ? `joint ${box.id}/${at.joint}`
        : at.boxScrew
          ? `post ${box.id}/box`
          : `post ${box.id}/${at.position}.${at.terminal}`;
    for (const { id, at, ends } of box.conductors)
      for (const end of ends ?? (at ? [at] : []))
        if (!end.capped) this.wires.push([`core ${box.id}/${id}`, place(end)]);
  }

  private selectionAt(boxId: string, position: number) {
    return this.house.job.selections.find((entry) => entry.boxId === boxId && entry.position === position);
  }

  private deviceAt(boxId: string, position: number): Device | undefined {
    const id = this.selectionAt(boxId, position)?.deviceId;
    return this.house.job.catalogue.devices.find((device) => device.id === id && device.mount === 'box');
  }

  /** Whether the old switch is still there. */
  private stays(boxId: string, position: number): boolean {
    const selection = this.selectionAt(boxId, position);
    if (!selection) return true;
    if (selection.deviceId !== null) return false;
    return !['tie-through', 'bulb-controller', 'module'].includes(selection.strategy);
  }

  /** Every end once; every terminal once, or for what it holds. */
  private counted({ boxId, joints, made, landed, capped, kept, removed }: PrintedPlan): void {
    const count = new Map<string, number>();
    const add = (name: string) => count.set(name, (count.get(name) ?? 0) + 1);
    for (const { members } of joints) {
      if (members.length < 2) this.found.push(`${boxId}: a joint of one`);
      for (const name of members) add(name);
    }
    for (const { terminal, conductorId } of landed) {
      add(conductorId);
      if (terminal !== 'box') add(terminal);
    }
    for (const name of [...capped, ...kept.map(({ conductorId }) => conductorId)]) add(name);
    const want = (name: string, least: number, most: number) => {
      const times = count.get(name) ?? 0;
      if (times < least || times > most) this.found.push(`${boxId}: ${name} stands ${times} times`);
    };
    for (const { id, ends } of this.box(boxId).conductors)
      if (!removed.includes(id)) want(id, ends ? 2 : 1, ends ? 2 : 1);
    for (const { id } of made) want(id, 2, 2);
    for (const { index } of this.box(boxId).positions)
      for (const { id, form, holds = 1 } of this.deviceAt(boxId, index)?.terminals ?? [])
        want(`${index}.${id}`, 1, form === 'lead' ? 1 : holds);
  }

  /** What can be reached from a point over wire, and over contacts that are closed. */
  private reach(from: string, closed: readonly Wire[]): Set<string> {
    const seen = new Set([from]);
    const todo = [from];
    for (let at = todo.pop(); at !== undefined; at = todo.pop())
      for (const [a, b] of [...this.wires, ...closed]) {
        const next = a === at ? b : b === at ? a : null;
        if (next !== null && !seen.has(next)) {
          seen.add(next);
          todo.push(next);
        }
      }
    return seen;
  }

  private say(text: string): void {
    this.found.push(text);
  }

  /** What has to hold whatever is switched. */
  private always(): void {
    const earth = this.reach('E', []);
    for (const box of this.house.job.boxes) {
      const planned = box.positions.some(({ index }) => this.deviceAt(box.id, index));
      if (!planned) continue;
      const screw = box.conductors.some(({ at, ends }) => at?.boxScrew || ends?.some((end) => end.boxScrew));
      if (
        box.enclosure.material === 'metal' &&
        (screw || !box.enclosure.grounded) &&
        !earth.has(`post ${box.id}/box`)
      )
        this.say(`${box.id}: the box is not bonded`);
      for (const { conductorId, role } of box.labels)
        if (role === 'ground' && !this.groundedHere(box, conductorId))
          this.say(`${box.id}: ${conductorId} ungrounded`);
      for (const { index } of box.positions) this.terminals(box, index, earth);
      this.strangers(box);
    }
    this.travelers();
  }

  /** Grounds of a box hang together in it, whatever lies beyond. */
  private groundedHere(box: Box, id: string): boolean {
    const own = box.labels.filter(({ role }) => role === 'ground').map(({ conductorId }) => conductorId);
    const inside = this.wires.filter(
      ([a]) => !a.startsWith('core ') || this.house.far.get(a.slice(5)) === undefined,
    );
    const local = inside.filter(([a, b]) => a.includes(`${box.id}/`) && b.includes(`${box.id}/`));
    const seen = new Set([`core ${box.id}/${id}`]);
    for (let grown = true; grown; ) {
      grown = false;
      for (const [a, b] of local)
        if (seen.has(a) !== seen.has(b)) {
          seen.add(a).add(b);
          grown = true;
        }
    }
    return own.every((other) => seen.has(`core ${box.id}/${other}`));
  }

  private terminals(box: Box, index: number, earth: ReadonlySet<string>): void {
    const device = this.deviceAt(box.id, index);
    const circuit = this.house.circuitAt.get(`${box.id}/${index}`);
    if (!device || !circuit) return;
    const strategy = this.selectionAt(box.id, index)?.strategy;
    const listed = device.multiLocation?.find((entry) => entry.strategy === strategy)?.partner;
    const main = this.isMain(box, index);
    for (const { id, role, channel } of device.terminals) {
      const post = `post ${box.id}/${index}.${id}`;
      const touched = this.reach(post, []);
      if (role === 'ground' && box.labels.some((label) => label.role === 'ground') && !earth.has(post))
        this.say(`${post}: not grounded`);
      if (role === 'neutral' && (main || listed?.neutral !== false))
        if (!touched.has(this.house.neutralOf.get(circuit) ?? '')) this.say(`${post}: no neutral`);
      if (
        role === 'line' &&
        channel === undefined &&
        (main || listed?.line !== false) &&
        !this.turned(box, index)
      )
        if (!touched.has(`L:${circuit}`)) this.say(`${post}: no line`);
      if (role === 'traveler') this.signal(post, touched);
    }
    if (!device.terminals.some(({ role }) => role === 'neutral') && main)
      this.fedThroughLamps(box, index, circuit);
  }

  /** Line on the load's terminal and load on the line's, where the maker allows it. */
  private turned(box: Box, index: number): boolean {
    const device = this.deviceAt(box.id, index);
    const circuit = this.house.circuitAt.get(`${box.id}/${index}`);
    const load = device?.terminals.find(({ role }) => role === 'load');
    if (!device?.interchangeableLineLoad || !load) return false;
    return this.reach(`post ${box.id}/${index}.${load.id}`, []).has(`L:${circuit}`);
  }

  private fedThroughLamps(box: Box, index: number, circuit: string): void {
    const device = this.deviceAt(box.id, index) as Device;
    const posts = device.terminals.filter(({ role }) => role === 'line' || role === 'load');
    if (!posts.some(({ role }) => role === 'load')) return;
    const outlet = posts.map(({ id }) => this.reach(`post ${box.id}/${index}.${id}`, []));
    const returns = this.house.lamps.filter(({ a }) => outlet.some((touched) => touched.has(a)));
    const home = this.house.neutralOf.get(circuit) ?? '';
    if (!returns.some(({ b }) => this.reach(b, []).has(home)))
      this.say(`${box.id}/${index}: not fed through a lamp`);
  }

  private isMain(box: Box, index: number): boolean {
    const group = this.house.job.groups.find(({ places }) =>
      places.some(({ boxId, position }) => boxId === box.id && position === index),
    );
    if (!group) return true;
    // The one whose load terminal has anything on it.
    const device = this.deviceAt(box.id, index);
    return (device?.terminals ?? []).some(
      ({ id, role }) => role === 'load' && this.reach(`post ${box.id}/${index}.${id}`, []).size > 1,
    );
  }

  /** A signal reaches another device's, or the travelers of a far switch, and no supply, neutral or lamp. */
  private signal(post: string, touched: ReadonlySet<string>): void {
    if ([...touched].some((name) => /^[LN]:|^E$/.test(name))) this.say(`${post}: a signal on a supply`);
    if (this.house.lamps.some(({ a, b }) => touched.has(a) || touched.has(b)))
      this.say(`${post}: a signal on a lamp`);
    const partners = this.plans.flatMap(({ boxId }) =>
      this.box(boxId).positions.flatMap(({ index }) =>
        (this.deviceAt(boxId, index)?.terminals ?? [])
          .filter(({ role }) => role === 'traveler')
          .map(({ id }) => `post ${boxId}/${index}.${id}`),
      ),
    );
    const others = partners.filter((other) => other !== post);
    const far = [...touched].some((name) => /^post /.test(name) && name !== post && !partners.includes(name));
    if (others.some((other) => !touched.has(other)) || (others.length === 0 && !far))
      this.say(`${post}: signal lost`);
  }

  /** What nobody labelled hangs with what it hung with in a joint of its like, or with nothing. */
  private strangers(box: Box): void {
    const labelled = new Set(
      box.labels.filter(({ role }) => role !== 'spare').map(({ conductorId }) => conductorId),
    );
    const either = box.positions.some(({ index }) => this.deviceAt(box.id, index)?.interchangeableLineLoad);
    const plan = this.plans.find(({ boxId }) => boxId === box.id);
    for (const { id, cableId, at } of box.conductors) {
      if (
        cableId === undefined ||
        labelled.has(id) ||
        plan?.kept.some(({ conductorId }) => conductorId === id)
      )
        continue;
      if (either) continue;
      const like =
        at?.joint === undefined
          ? []
          : box.conductors.filter(
              (other) => other.at?.joint === at.joint || other.ends?.some((end) => end.joint === at.joint),
            );
      const alone = plan?.capped.includes(id) === true;
      const together = plan?.joints.find(({ members }) => members.includes(id))?.members ?? [];
      const asBefore =
        together.length > 0 && together.every((name) => like.some((other) => other.id === name));
      const whole = like.every((other) => labelled.has(other.id) === false || other.cableId === undefined);
      if (
        whole && like.length > 1
          ? !(
              asBefore &&
              together.length === like.filter(({ id: other }) => !plan?.removed.includes(other)).length
            ) && !alone
          : !alone
      )
        this.say(`${box.id}: unknown ${id} is on something`);
    }
  }

  /** One that nothing uses is capped at both ends. */
  private travelers(): void {
    const byFar = new Map<string, string[]>();
    for (const plan of this.plans)
      for (const { conductorId, role } of this.box(plan.boxId).labels) {
        const far = this.house.far.get(`${plan.boxId}/${conductorId}`);
        if (role === 'traveler' && far)
          byFar.set(far, [...(byFar.get(far) ?? []), `${plan.boxId}/${conductorId}`]);
      }
    for (const ends of byFar.values()) {
      const capped = ends.filter((end) => {
        const [boxId = '', id = ''] = end.split('/');
        return this.plans.find((plan) => plan.boxId === boxId)?.capped.includes(id);
      });
      const kept = ends.some((end) => {
        const [boxId = '', id = ''] = end.split('/');
        return this.plans
          .find((plan) => plan.boxId === boxId)
          ?.kept.some(({ conductorId }) => conductorId === id);
      });
      if (!kept && capped.length > 0 && capped.length < ends.length)
        this.say(`${ends.join(' ')}: capped at one end`);
    }
  }

  /** Contacts that can be closed: `key`, and what it closes when on and when off. */
  private contacts(): { key: string; on: Wire[]; off: Wire[]; works: string[] }[] {
    const list: ReturnType<Copper['contacts']> = [];
    for (const box of this.house.job.boxes)
      for (const { index, existing, loadIds } of box.positions) {
        const device = this.deviceAt(box.id, index);
        const post = (terminal: string) => `post ${box.id}/${index}.${terminal}`;
        if (device) {
          const line = device.terminals.find(({ role, channel }) => role === 'line' && channel === undefined);
          for (const { id, role, channel } of device.terminals) {
            if (role !== 'load' || !line) continue;
            const dry = device.terminals.find(
              (entry) => entry.role === 'line' && entry.channel === channel && channel !== undefined,
            );
            const number = device.channels.findIndex((entry) => entry.id === channel);
            const works = this.isMain(box, index)
              ? device.channels.length > 1
                ? loadIds.slice(number, number + 1)
                : loadIds
              : [];
            list.push({
              key: `${box.id}/${index}/${id}`,
              on: [[post((dry ?? line).id), post(id)]],
              off: [],
              works,
            });
          }
        } else if (existing === 'receptacle') {
          list.push({
            key: '',
            on: [
              [post('hot'), post('hot2')],
              [post('neutral'), post('neutral2')],
            ],
            off: [],
            works: [],
          });
        } else if (this.stays(box.id, index))
          list.push({ key: `${box.id}/${index}`, works: [], ...oldSwitch(existing, post) });
      }
    return list;
  }

  private switched(): void {
    const contacts = this.contacts();
    const free = contacts.filter(({ key }) => key !== '');
    const fixed = contacts.filter(({ key }) => key === '').flatMap(({ on }) => on);
    const worked = new Set(free.flatMap(({ works }) => works));
    const always = new Set(
      this.house.job.selections
        .filter(({ strategy }) => strategy === 'bulb-controller' || strategy === 'module')
        .flatMap(
          ({ boxId, position }) =>
            this.box(boxId).positions.find(({ index }) => index === position)?.loadIds ?? [],
        ),
    );
    for (const breakers of [['c1', 'c2'], ['c1'], ['c2'], []])
      for (let bits = 0; bits < 2 ** free.length; bits++) {
        const isOn = (at: number) => ((bits >> at) & 1) === 1;
        const closed = [...fixed, ...free.flatMap((contact, at) => (isOn(at) ? contact.on : contact.off))];
        this.inState(closed, breakers, (loadId) => {
          if (always.has(loadId)) return true;
          if (worked.has(loadId)) return free.some(({ works }, at) => isOn(at) && works.includes(loadId));
          return null;
        });
      }
    // What nothing planned works is worked by its old switch: both states occur, or none of it is here.
    for (const { loadId } of this.house.lamps)
      if (loadId !== null && !worked.has(loadId) && !always.has(loadId) && !this.seen.get(loadId)?.has(true))
        this.say(`${loadId}: cannot be lit any more`);
  }

  private readonly seen = new Map<string, Set<boolean>>();

  private inState(
    closed: readonly Wire[],
    breakers: readonly string[],
    wanted: (loadId: string) => boolean | null,
  ): void {
    const poles = ['L:c1', 'L:c2', ...new Set(this.house.neutralOf.values()), 'E'];
    const from = new Map(poles.map((pole) => [pole, this.reach(pole, closed)]));
    poles.forEach((one, at) => {
      for (const other of poles.slice(at + 1))
        if (from.get(one)?.has(other)) this.say(`${one} meets ${other}`);
    });
    for (const { loadId, circuitId, a, b } of this.house.lamps) {
      const home = this.house.neutralOf.get(circuitId) ?? '';
      const fed = breakers.filter((id) => from.get(`L:${id}`)?.has(a));
      const lit = fed.length > 0 && from.get(home)?.has(b) === true;
      if (fed.some((id) => id !== circuitId)) this.say(`${loadId ?? a}: fed by another breaker`);
      const alive = breakers.includes(circuitId);
      const want = loadId === null ? true : wanted(loadId);
      if (loadId !== null && alive) this.seen.set(loadId, new Set([...(this.seen.get(loadId) ?? []), lit]));
      if (want !== null && lit !== (want && alive))
        this.say(`${loadId ?? a}: ${lit ? 'lit' : 'dark'} against its switch`);
    }
  }
}

function oldSwitch(existing: string, post: (terminal: string) => string): { on: Wire[]; off: Wire[] } {
  switch (existing) {
    case 'three-way':
      return { on: [[post('common'), post('t1')]], off: [[post('common'), post('t2')]] };
    case 'four-way':
      return {
        on: [
          [post('t1'), post('t3')],
          [post('t2'), post('t4')],
        ],
        off: [
          [post('t1'), post('t4')],
          [post('t2'), post('t3')],
        ],
      };
    case 'double-single-pole':
      return {
        on: [
          [post('a1'), post('b1')],
          [post('a2'), post('b2')],
        ],
        off: [],
      };
    default:
      return { on: [[post('a'), post('b')]], off: [] };
  }
}
