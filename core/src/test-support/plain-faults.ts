import type { FaultCause, Symptoms } from '../diagnose/vocabulary.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Box, Reading } from '../job/schema/survey.js';
import type { PrintedPlan } from './plain-wiring.js';
import { Resistors } from './resistors.js';
import type { TrueHouse } from './true-house.js';

/** What is wrong, on the copper itself: pieces of wire gone, others there that should not be. */
export interface PlainFault {
  cause: FaultCause;
  /** Wires that came off, by their place in the list. */
  gone?: readonly number[];
  /** Posts in each other's place. */
  exchanged?: readonly [string, string];
  touching?: readonly [string, string];
  breakersOff?: readonly string[];
  dead?: true;
  welded?: true;
  lampsOut?: readonly string[];
}

type Wire = [string, string];

interface State {
  /** The device in doubt is told to be on. */
  on: boolean;
  out?: boolean;
  breakersOff?: readonly string[];
}

/**
 * A house wired by its plans with something wrong at one place, tried as plain resistors on its true copper.
 * Shares no code with the engine: plain lists of wires, one dense solver.
 */
export class PlainDoubt {
  private readonly wires: Wire[] = [];
  private readonly volts: number;

  constructor(
    private readonly house: TrueHouse,
    private readonly plans: readonly PrintedPlan[],
    private readonly place: { boxId: string; position: number },
  ) {
    this.volts = house.job.circuits[0]?.volts ?? 120;
    for (const [core, far] of house.far) this.wires.push([`core ${core}`, far]);
    for (const plan of plans) this.wireBox(plan);
  }

  private box(id = this.place.boxId): Box {
    return this.house.job.boxes.find((box) => box.id === id) as Box;
  }

  private wireBox({ boxId, joints, made, landed, kept }: PrintedPlan): void {
    const isWire = (name: string) =>
      made.some(({ id }) => id === name) || this.box(boxId).conductors.some(({ id }) => id === name);
    const end = (name: string) => (isWire(name) ? `core ${boxId}/${name}` : `post ${boxId}/${name}`);
    for (const joint of joints)
      for (const name of joint.members) this.wires.push([`joint ${boxId}/${joint.id}`, end(name)]);
    for (const { terminal, conductorId } of landed)
      this.wires.push([`post ${boxId}/${terminal}`, `core ${boxId}/${conductorId}`]);
    for (const { conductorId, at } of kept)
      this.wires.push([`post ${boxId}/${at}`, `core ${boxId}/${conductorId}`]);
  }

  private deviceAt(boxId: string, position: number): Device | undefined {
    const id = this.house.job.selections.find(
      (entry) => entry.boxId === boxId && entry.position === position,
    )?.deviceId;
    return this.house.job.catalogue.devices.find((device) => device.id === id && device.mount === 'box');
  }

  private posts(role: string, { boxId, position } = this.place): string[] {
    const device = this.deviceAt(boxId, position);
    return (device?.terminals ?? [])
      .filter((terminal) => terminal.role === role)
      .map(({ id }) => `post ${boxId}/${position}.${id}`)
      .filter((post) => this.wires.some((wire) => wire.includes(post)));
  }

  private mainLine({ boxId, position } = this.place): string | undefined {
    const device = this.deviceAt(boxId, position);
    const main = device?.terminals.find(({ role, channel }) => role === 'line' && channel === undefined);
    return this.posts('line', { boxId, position }).find((post) => post.endsWith(`.${main?.id}`));
  }

  /** Everything that can go wrong here, as a hand would do it. */
  faults(): PlainFault[] {
    const { boxId, position } = this.place;
    const box = this.box();
    const labelled = (role: string) =>
      box.labels.filter((label) => label.role === role).map(({ conductorId }) => conductorId);
    const own = box.positions.find(({ index }) => index === position)?.loadIds ?? [];
    const line = this.mainLine();
    const [load] = this.posts('load');
    const [neutral] = this.posts('neutral');
    const faults: PlainFault[] = [{ cause: 'breaker-off', breakersOff: box.circuitIds }];
    const off = (cause: FaultCause, end: string | undefined) => {
      const gone = this.wires.flatMap(([a, b], at) =>
        (a === end || b === end) && (a.startsWith('joint') || a.startsWith('post')) ? [at] : [],
      );
      if (end !== undefined && gone.length === 1) faults.push({ cause, gone });
    };
    off('line-loose', line);
    off('load-loose', load);
    off('neutral-loose', neutral);
    for (const id of labelled('line-on')) {
      off('line-on-not-carried', `core ${boxId}/${id}`);
      const cable = box.conductors.find((core) => core.id === id)?.cableId;
      for (const other of labelled('neutral'))
        if (box.conductors.find((core) => core.id === other)?.cableId === cable)
          off('neutral-not-carried', `core ${boxId}/${other}`);
    }
    const exchange = (cause: FaultCause, one: string | undefined, other: string | undefined) => {
      if (one && other) faults.push({ cause, exchanged: [one, other] });
    };
    if (!this.deviceAt(boxId, position)?.interchangeableLineLoad) exchange('line-load-exchanged', line, load);
    exchange('line-neutral-exchanged', line, neutral);
    exchange('neutral-load-exchanged', neutral, load);
    faults.push({ cause: 'cut-out-pulled', dead: true });
    if (load) faults.push({ cause: 'relay-welded', welded: true });
    if (own.length > 0) faults.push({ cause: 'lamp-out', lampsOut: own });
    const circuit = this.house.circuitAt.get(`${boxId}/${position}`) ?? '';
    const home = this.house.neutralOf.get(circuit) ?? '';
    const [lamp] = this.house.lamps.filter(({ loadId }) => loadId !== null && own.includes(loadId));
    if (lamp && load) {
      faults.push({ cause: 'line-load-joined', touching: [`L:${circuit}`, lamp.a] });
      faults.push({ cause: 'load-fault', touching: [lamp.a, home] });
    }
    faults.push({ cause: 'line-fault', touching: [`L:${circuit}`, home] });
    return faults;
  }

  private wired({ gone = [], exchanged, touching }: PlainFault, out: boolean): Wire[] {
    const [one, other] = exchanged ?? [];
    const turned = (name: string) => (name === one ? (other ?? name) : name === other ? (one ?? name) : name);
    const own = `post ${this.place.boxId}/${this.place.position}.`;
    const wires = this.wires
      .filter((_, at) => !gone.includes(at))
      .map(([a, b]): Wire => [turned(a), turned(b)])
      .filter(([a, b]) => !out || !(a.startsWith(own) || b.startsWith(own)));
    return touching ? [...wires, [...touching]] : wires;
  }

  /** A load post hangs behind the line, or behind the line of its own channel. */
  private contactsOf(device: Device, { boxId, position }: { boxId: string; position: number }): Wire[] {
    const post = (id: string) => `post ${boxId}/${position}.${id}`;
    const line = device.terminals.find(({ role, channel }) => role === 'line' && channel === undefined);
    return device.terminals
      .filter(({ role }) => role === 'load')
      .map(({ id, channel }): Wire => {
        const dry = device.terminals.find((one) => one.role === 'line' && one.channel === channel);
        return [post((dry ?? line)?.id ?? ''), post(id)];
      });
  }

  /** Devices of the boxes that are planned, each with its posts. */
  private devices() {
    return this.plans.flatMap(({ boxId }) =>
      this.box(boxId).positions.flatMap(({ index }) => {
        const device = this.deviceAt(boxId, index);
        if (!device) return [];
        const at = { boxId, position: index };
        return [
          {
            key: `${boxId}/${index}`,
            line: this.mainLine(at),
            neutral: device.needs.neutral ? this.posts('neutral', at)[0] : undefined,
            loads: this.posts('load', at),
            contacts: this.contactsOf(device, at),
          },
        ];
      }),
    );
  }

  /** The volts of every point, what runs, and whether a breaker could not hold. */
  private solve(fault: PlainFault, { on, out = false, breakersOff = [] }: State) {
    const here = `${this.place.boxId}/${this.place.position}`;
    const off = [...(fault.breakersOff ?? []), ...breakersOff];
    const devices = this.devices().filter(({ key }) => !(out && key === here));
    const network = (closed: ReadonlySet<string>) => this.network(fault, { out, off, devices, closed });
    const runs = (closed: ReadonlySet<string>) => {
      const at = network(closed);
      return new Set(
        devices.flatMap((device) => {
          if (fault.dead && device.key === here) return [];
          const other = device.neutral ?? device.loads[0];
          // One fed through its lamp is told by what is across its own open contact.
          const own = device.neutral ? at : network(without(closed, device.key));
          if (!device.line || !other) return [];
          return Math.abs(own.volts(device.line) - own.volts(other)) >= 0.6 ? [device.key] : [];
        }),
      );
    };
    let closed = new Set<string>();
    let running = runs(closed);
    let tripped = network(closed).tripped;
    let fell = false;
    for (let turn = 0; turn < 6 && !fell; turn++) {
      const next = new Set([...running].filter((key) => on || key !== here));
      if (sameKeys(next, closed)) break;
      const before = running;
      closed = next;
      tripped = [...tripped, ...network(closed).tripped];
      running = runs(closed);
      const lost = [...before].filter((key) => !running.has(key) && closed.has(key));
      if (lost.length === 0) continue;
      fell = lost.includes(here);
      closed = new Set([...closed].filter((key) => !lost.includes(key)));
      running = runs(closed);
      if (!fell) break;
    }
    return { ...network(closed), tripped, running, fell };
  }

  private network(
    fault: PlainFault,
    {
      out,
      off,
      devices,
      closed,
    }: {
      out: boolean;
      off: readonly string[];
      devices: ReturnType<PlainDoubt['devices']>;
      closed: ReadonlySet<string>;
    },
  ) {
    const net = new Resistors();
    const here = `${this.place.boxId}/${this.place.position}`;
    for (const [a, b] of this.wired(fault, out)) net.wire(a, b);
    for (const { id, leg } of this.house.job.circuits)
      if (!off.includes(id)) net.source(`L:${id}`, leg === 'B' ? -1 : 1, 0.02);
      else net.resistor(`L:${id}`, 'off', 1e9);
    for (const pole of [...new Set(this.house.neutralOf.values()), 'E']) net.source(pole, 0, 0.01);
    for (const { loadId, a, b } of this.house.lamps)
      if (loadId === null || !fault.lampsOut?.includes(loadId))
        net.resistor(a, b, this.volts ** 2 / (loadId === null ? 60 : 80));
    for (const { key, line, neutral, loads, contacts } of devices) {
      const other = neutral ?? loads[0];
      const isCut = fault.dead && key === here;
      if (line && other && !isCut) net.resistor(line, other, this.volts ** 2 / 0.5);
      if (closed.has(key) || (fault.welded && key === here))
        for (const [from, to] of contacts) net.wire(from, to);
    }
    for (const { boxId } of this.plans)
      for (const { index, existing } of this.box(boxId).positions) {
        if (this.deviceAt(boxId, index)) continue;
        const post = (name: string) => `post ${boxId}/${index}.${name}`;
        if (existing === 'single-pole') net.wire(post('a'), post('b'));
        if (existing === 'receptacle') {
          net.wire(post('hot'), post('hot2'));
          net.wire(post('neutral'), post('neutral2'));
          net.resistor(post('hot'), post('neutral'), this.volts ** 2 / 60);
        }
      }
    const volts = net.solve();
    // A breaker that holds loses nothing on its way.
    const tripped = this.house.job.circuits
      .filter(({ id }) => !off.includes(id) && Math.abs(volts(`L:${id}`)) < 0.9)
      .map(({ id }) => id);
    return { volts, tripped };
  }

  /** How brightly each lamp burns, against the sound house. */
  private lamps(fault: PlainFault, state: State, sound: ReadonlyMap<string, number>) {
    const { volts } = this.solve(fault, state);
    return new Map(
      this.burning().map(({ key, loadId, a, b }) => {
        const out = loadId !== null && fault.lampsOut?.includes(loadId) === true;
        return [key, out ? 0 : Math.abs(volts(a) - volts(b)) / (sound.get(key) ?? 1)] as const;
      }),
    );
  }

  private burning() {
    const sockets = this.plans.flatMap(({ boxId }) =>
      this.box(boxId)
        .positions.filter(({ index, existing }) => existing === 'receptacle' && !this.deviceAt(boxId, index))
        .map(({ index }) => ({
          key: `socket ${boxId}/${index}`,
          loadId: null,
          a: `post ${boxId}/${index}.hot`,
          b: `post ${boxId}/${index}.neutral`,
        })),
    );
    return [...this.house.lamps.map((lamp) => ({ ...lamp, key: `${lamp.a}|${lamp.b}` })), ...sockets];
  }

  /** What one would see, kind by kind; null where the lamps of the device differ. */
  symptoms(fault: PlainFault): Symptoms | null {
    const none: PlainFault = { cause: 'danger' };
    const lit = this.solve(none, { on: true }).volts;
    const sound = new Map(this.burning().map(({ key, a, b }) => [key, Math.abs(lit(a) - lit(b))]));
    const here = `${this.place.boxId}/${this.place.position}`;
    const off = this.solve(fault, { on: false }).tripped;
    const atOn = off.length > 0;
    const trips = !atOn && this.solve(fault, { on: true }).tripped.length > 0;
    const states: [State, State] = [
      { on: false, breakersOff: off },
      { on: !trips, breakersOff: off },
    ];
    const looks = states.map((state) => this.lamps(fault, state, sound));
    const runs = states.map((state) => this.solve(fault, state));
    const loadIds = this.box().positions.find(({ index }) => index === this.place.position)?.loadIds ?? [];
    const all = this.burning();
    const mine = all.filter(({ loadId }) => loadId !== null && loadIds.includes(loadId));
    const others = all.filter((lamp) => !mine.includes(lamp) && (sound.get(lamp.key) ?? 0) > 0.5);
    const levels = mine.map(({ key }) => looks.map((look) => levelOf(look.get(key) ?? 0)));
    const shown = [...new Set(levels.map(([dark, bright]) => lampShows(dark ?? '', bright ?? '')))];
    if (shown.length !== 1) return null;
    const beside = others.flatMap(({ key }) => looks.map((look) => levelOf(look.get(key) ?? 0)));
    const fell = runs.some((run) => run.fell);
    const running = runs.every((run) => run.running.has(here));
    return {
      indicator: fell ? 'blink' : running ? 'on' : 'off',
      control: levels.every(([a, b]) => a !== b) ? 'ok' : 'none',
      load: shown[0] as NonNullable<Symptoms['load']>,
      breaker: atOn ? 'trips-at-on' : trips ? 'trips-at-switching' : 'holds',
      restarts: fell ? 'yes' : 'no',
      feel: 'none',
      ...(others.length > 0 ? { neighbour: worst(beside) } : {}),
    };
  }

  /** What an instrument reads, at the state a reading names. */
  reading(
    fault: PlainFault,
    asked: Pick<Reading, 'tool' | 'arrangement' | 'points' | 'switches'> & { dead: boolean },
  ) {
    const state: State = {
      on: asked.switches?.[String(this.place.position)] === 'on',
      out: asked.arrangement === 'device-out',
      breakersOff: asked.dead ? this.house.job.circuits.map(({ id }) => id) : [],
    };
    const first = this.solve(fault, state);
    const { volts } =
      first.tripped.length > 0
        ? this.solve(fault, {
            ...state,
            on: false,
            breakersOff: [...(state.breakersOff ?? []), ...first.tripped],
          })
        : first;
    const node = (point: string) => (point === 'reference' ? 'E' : `core ${this.place.boxId}/${point}`);
    const [one = '', other = ''] = asked.points;
    if (asked.tool === 'lamp') {
      const lamp = this.house.lamps.find(({ loadId }) => loadId === one);
      const share = lamp ? Math.abs(volts(lamp.a) - volts(lamp.b)) : 0;
      return fault.lampsOut?.includes(one) || share <= 0.1 ? 'dark' : share >= 0.85 ? 'lit' : 'dim';
    }
    if (asked.tool === 'indicator') return Math.abs(volts(node(one))) > 0.5 ? 'alert' : 'quiet';
    if (asked.tool !== 'ohms') return Math.abs(volts(node(one)) - volts(node(other))) * this.volts;
    return this.ohms(fault, node(one), node(other));
  }

  private ohms(fault: PlainFault, one: string, other: string): number | 'open' {
    const net = new Resistors();
    for (const [a, b] of this.wired(fault, false)) net.wire(a, b);
    for (const { loadId, a, b } of this.house.lamps)
      if (loadId === null || !fault.lampsOut?.includes(loadId))
        net.resistor(a, b, this.volts ** 2 / (loadId === null ? 60 : 80) / 12);
    for (const pole of [...new Set(this.house.neutralOf.values())]) net.wire(pole, 'E');
    const closed = this.house.job.boxes.flatMap((box) =>
      box.positions
        .filter(({ index, existing }) => existing === 'single-pole' && !this.deviceAt(box.id, index))
        .map(({ index }) => `post ${box.id}/${index}`),
    );
    for (const post of closed) net.wire(`${post}.a`, `${post}.b`);
    net.current(one, 1e-3);
    net.current(other, -1e-3);
    const volts = net.solve();
    const ohms = Math.abs(volts(one) - volts(other)) / 1e-3;
    return ohms > 1e6 ? 'open' : ohms;
  }
}

const without = (keys: ReadonlySet<string>, key: string) => new Set([...keys].filter((one) => one !== key));
const sameKeys = (one: ReadonlySet<string>, other: ReadonlySet<string>) =>
  one.size === other.size && [...one].every((key) => other.has(key));

function levelOf(share: number): string {
  if (share >= 1.1) return 'bright';
  return share >= 0.85 ? 'lit' : share <= 0.1 ? 'dark' : 'dim';
}

function lampShows(off: string, on: string): string {
  const isLit = (level: string) => level === 'lit' || level === 'bright';
  if (isLit(off)) return 'on';
  if (off === 'dim') return isLit(on) ? 'glow' : 'dim';
  return isLit(on) ? 'follows' : on === 'dim' ? 'dim' : 'off';
}

function worst(levels: readonly string[]): NonNullable<Symptoms['neighbour']> {
  if (levels.includes('dark')) return 'dead';
  return levels.includes('bright') ? 'bright' : levels.includes('dim') ? 'dim' : 'ok';
}
