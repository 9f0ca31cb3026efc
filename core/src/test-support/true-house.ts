import { newJob } from '../job/new-job.js';
import type { Device, Terminal } from '../job/schema/catalogue.js';
import type { Circuit, Job, Load, Run, Selection } from '../job/schema/job.js';
import type { Colour, PracticeId, Role, Strategy } from '../job/schema/primitives.js';
import type { At, Box, Conductor, Label, Position } from '../job/schema/survey.js';
import { newBox } from '../survey/new-box.js';
import type { Random } from './random.js';

/**
 * A house of copper: what each conductor truly ends on beyond its box, and which lamps hang where. Far ends
 * are names that parts share: `L:c1` behind a breaker, `N:c1` the neutral of the house for it, `E` earth.
 */
export interface TrueHouse {
  name: string;
  job: Job;
  /** By `BOX/CONDUCTOR`. */
  far: ReadonlyMap<string, string>;
  lamps: readonly TrueLamp[];
  /** Neutrals that are one, by circuit. */
  neutralOf: ReadonlyMap<string, string>;
  /** The circuit each place is truly on, by `BOX/POSITION`. */
  circuitAt: ReadonlyMap<string, string>;
}

interface TrueLamp {
  /** The load's id; null: something fed on, which is lit whenever its breaker is on. */
  loadId: string | null;
  circuitId: string;
  a: string;
  b: string;
}

const COLOURS: Record<'us' | 'gb' | 'modular', Record<string, Colour>> = {
  us: { line: 'black', neutral: 'white', load: 'red', ground: 'bare', t1: 'red', t2: 'white', t3: 'black' },
  gb: {
    line: 'brown',
    neutral: 'blue',
    load: 'brown',
    ground: 'green-yellow',
    t1: 'black',
    t2: 'grey',
    t3: 'brown',
  },
  modular: {
    line: 'red',
    neutral: 'black',
    load: 'yellow',
    ground: 'green',
    t1: 'yellow',
    t2: 'blue',
    t3: 'red',
  },
};

/** One box in the making. */
class SiteBox {
  readonly cables: Box['cables'] = [];
  readonly conductors: Conductor[] = [];
  readonly joints: Box['joints'] = [];
  readonly positions: Position[] = [];
  readonly labels: Label[] = [];
  readonly circuitIds = new Set<string>();
  private readonly netJoints = new Map<string, string>();

  constructor(
    readonly site: Site,
    readonly id: string,
  ) {}

  cable(): string {
    const id = this.site.id('k');
    this.cables.push({ id });
    return id;
  }

  joint(net: string): At {
    let id = this.netJoints.get(net);
    if (!id) {
      id = this.site.id('j');
      this.netJoints.set(net, id);
      this.joints.push({ id, connector: this.site.random.pick(['twist-on', 'lever', 'unknown'] as const) });
    }
    return { joint: id };
  }

  /** @param told what its label says beside its role, and its colour where it is not the usual one */
  core(
    cableId: string,
    role: Role,
    far: string,
    at: At,
    { colour, ...label }: Partial<Label> & { colour?: Colour | undefined } = {},
  ): string {
    const id = this.site.id('w');
    const { colours, random } = this.site;
    this.conductors.push({
      id,
      cableId,
      size: this.site.metric
        ? random.pick(['1.0mm2', '1.5mm2', '2.5mm2'] as const)
        : random.pick(['14AWG', '12AWG'] as const),
      colour: colour ?? colours[role === 'line-on' ? 'line' : role] ?? 'black',
      at,
    });
    this.site.far.set(`${this.id}/${id}`, far);
    if (!random.chance(this.site.unlabelled) || role === 'ground')
      this.labels.push({ conductorId: id, role, ...label });
    return id;
  }

  tail(from: At, to: At): void {
    const size = this.site.metric ? '1.5mm2' : '14AWG';
    this.conductors.push({ id: this.site.id('t'), size, colour: 'black', ends: [from, to] });
  }

  ground(cableId: string, at: At = this.joint('ground')): void {
    this.core(cableId, 'ground', 'E', at);
  }

  position(existing: Position['existing'], loadIds: string[], more: Partial<Position> = {}): number {
    const index = this.positions.length + 1;
    this.positions.push({ index, existing, loadIds, need: { smart: true }, ...more });
    return index;
  }

  feed(circuit: string, line: At, neutral: At | null = this.joint(`n:${this.site.neutral(circuit)}`)): void {
    const cable = this.cable();
    this.circuitIds.add(circuit);
    this.core(cable, 'line', `L:${circuit}`, line, { circuitId: circuit });
    if (neutral) this.core(cable, 'neutral', this.site.neutral(circuit), neutral, { circuitId: circuit });
    this.ground(cable);
  }

  /** A lamp with its own cable; its return with the neutrals, or straight to the house's. */
  lamp(circuit: string, hot: At, back: At | null = this.joint(`n:${this.site.neutral(circuit)}`)): string {
    const cable = this.cable();
    const [a, b] = [this.site.id('n'), back ? this.site.id('n') : this.site.neutral(circuit)];
    const load = this.site.load(circuit, a, b);
    this.core(cable, 'load', a, hot, { loadIds: [load] });
    if (back) this.core(cable, 'neutral', b, back, { circuitId: circuit });
    this.ground(cable);
    return load;
  }

  /** Line and neutral on to something nobody switches here. */
  onward(circuit: string, line: At, neutral: At = this.joint(`n:${this.site.neutral(circuit)}`)): void {
    const cable = this.cable();
    const [a, b] = [this.site.id('n'), this.site.id('n')];
    this.site.lamps.push({ loadId: null, circuitId: circuit, a, b });
    this.core(cable, 'line-on', a, line, { circuitId: circuit });
    this.core(cable, 'neutral', b, neutral, { circuitId: circuit });
    this.ground(cable);
  }

  works(index: number, ...loadIds: string[]): void {
    const at = this.positions.find((position) => position.index === index) as Position;
    at.loadIds = [...at.loadIds, ...loadIds];
  }

  box(): Box {
    const { random } = this.site;
    const metal = random.chance(0.4);
    return {
      ...newBox({ id: this.id, roomId: 'r1', name: this.id, order: 1 }, this.site.practice, [
        ...this.circuitIds,
      ]),
      enclosure: {
        gangs: Math.max(1, this.positions.length),
        material: metal ? 'metal' : 'plastic',
        grounded: metal && random.chance(0.6),
        capacity: { from: 'marked', mL: 900 },
        depth: 90,
        internalClamps: false,
        supportFittings: 0,
      },
      cables: this.cables,
      conductors: this.conductors,
      joints: this.joints.filter(({ id }) =>
        this.conductors.some(({ at, ends }) => at?.joint === id || ends?.some((end) => end.joint === id)),
      ),
      positions: this.positions,
      labels: this.labels,
    };
  }
}

class Site {
  readonly boxes: SiteBox[] = [];
  readonly loads: Load[] = [];
  readonly lamps: TrueLamp[] = [];
  readonly far = new Map<string, string>();
  readonly runs: Run[] = [];
  readonly groups: Job['groups'] = [];
  readonly devices: Device[] = [];
  readonly selections: Selection[] = [];
  readonly circuitAt = new Map<string, string>();
  circuits: Circuit[] = [];
  unlabelled = 0;
  readonly metric: boolean;
  readonly colours: Record<string, Colour>;
  private serial = 0;

  constructor(
    readonly random: Random,
    readonly practice: PracticeId,
  ) {
    this.metric = practice === 'gb' || practice === 'modular';
    this.colours = COLOURS[practice === 'gb' ? 'gb' : practice === 'modular' ? 'modular' : 'us'];
    const shared = random.chance(0.25);
    this.circuits = [1, 2].map((at) => ({
      id: `c${at}`,
      panel: 'Main',
      breaker: `${at}`,
      label: 'Lights',
      amps: 15,
      volts: this.metric ? 230 : 120,
      leg: at === 1 ? 'A' : 'B',
      ...(shared ? { sharesNeutralWith: [at === 1 ? 'c2' : 'c1'], commonTrip: true } : {}),
    }));
  }

  id(prefix: string): string {
    this.serial += 1;
    return `${prefix}${this.serial}`;
  }

  get sharesNeutral(): boolean {
    return (this.circuits[0]?.sharesNeutralWith?.length ?? 0) > 0;
  }

  neutral(circuit: string): string {
    return this.sharesNeutral ? 'N:c1' : `N:${circuit}`;
  }

  newBox(): SiteBox {
    const box = new SiteBox(this, this.id('b'));
    this.boxes.push(box);
    return box;
  }

  load(circuit: string, a: string, b: string): string {
    const id = this.id('l');
    this.loads.push({
      id,
      name: id,
      roomId: 'r1',
      kind: 'resistive',
      count: 2,
      wattsEach: 40,
      dimmable: true,
    });
    this.lamps.push({ loadId: id, circuitId: circuit, a, b });
    return id;
  }

  group(loadIds: string[], places: { boxId: string; position: number }[]): string {
    const id = this.id('g');
    this.groups.push({ id, loadIds, places });
    return id;
  }

  choose(box: SiteBox, position: number, device: Device | null, strategy: Strategy, circuit: string): void {
    this.selections.push({ boxId: box.id, position, deviceId: device?.id ?? null, strategy });
    this.circuitAt.set(`${box.id}/${position}`, circuit);
  }

  /** A device of random terminals that wants what is named. */
  device(wants: {
    neutral?: boolean;
    loads?: number;
    travelers?: number;
    dry?: boolean;
    ground?: boolean;
    either?: boolean;
    strategies?: Device['multiLocation'];
    mount?: Device['mount'];
    controller?: boolean;
  }): Device {
    const { random } = this;
    const { neutral = true, loads = 1, travelers = 0, dry = false, ground = true } = wants;
    const form = this.metric
      ? random.pick(['clamp', 'clamp', 'lead'] as const)
      : random.pick(['lead', 'lead', 'screw'] as const);
    const holds = form === 'lead' ? 1 : random.int(1, 3);
    const make = (id: string, role: Terminal['role'], more: Partial<Terminal> = {}): Terminal => ({
      id,
      mark: id,
      role,
      form,
      strip: 12,
      holds,
      ...more,
    });
    const id = this.id('d');
    const inBox = (wants.mount ?? 'box') === 'box' && !wants.controller;
    const terminals = inBox
      ? [
          make('L', 'line'),
          ...Array.from({ length: loads }, (_, at) => make(`O${at + 1}`, 'load', { channel: at + 1 })),
          ...(dry ? [make('D2', 'line', { channel: 2, optional: true })] : []),
          ...(neutral ? [make('N', 'neutral')] : []),
          ...(ground ? [make('G', 'ground')] : []),
          ...Array.from({ length: travelers }, (_, at) => make(`T${at + 1}`, 'traveler')),
        ]
      : [];
    const device: Device = {
      id,
      maker: 'Made',
      model: id,
      family: 'f',
      price: 1000,
      practices: [this.practice],
      volts: [100, 250],
      gangs: 1,
      mount: wants.controller ? 'surface' : (wants.mount ?? 'box'),
      body: { width: 40, height: 60, depth: 25 },
      radio: wants.controller ? 'ble' : 'wifi',
      platforms: [],
      terminals: random.chance(0.5) ? terminals : [...terminals].reverse(),
      ...(wants.either ? { interchangeableLineLoad: true } : {}),
      needs: { neutral, ground: ground ? 'recommended' : 'none' },
      channels: inBox
        ? Array.from({ length: loads }, (_, at) => ({
            id: at + 1,
            kind: 'relay' as const,
            ratings: [{ kinds: ['resistive' as const], limit: [1000], unit: 'W' as const }],
          }))
        : [],
      ...(wants.strategies ? { multiLocation: wants.strategies } : {}),
      ...(wants.controller ? { bulbController: true, power: 'battery' as const } : {}),
    };
    this.devices.push(device);
    return device;
  }

  house(name: string): TrueHouse {
    const catalogue = {
      devices: this.devices,
      hubs: [],
      parts: [],
      connectors: [],
      enclosures: [],
      platforms: [],
    };
    const base = newJob('house', name, this.practice, '2023', catalogue);
    const preferred = this.metric
      ? ['lever', 'twist-on']
      : this.random.pick([
          ['twist-on', 'lever'],
          ['lever', 'twist-on'],
        ]);
    return {
      name,
      far: this.far,
      lamps: this.lamps,
      circuitAt: this.circuitAt,
      neutralOf: new Map(this.circuits.map(({ id }) => [id, this.neutral(id)])),
      job: {
        ...base,
        brief: { ...base.brief, connectors: preferred as never },
        circuits: this.circuits,
        rooms: [{ id: 'r1', name: 'Room', floor: 0, order: 1 }],
        loads: this.loads,
        boxes: this.boxes.map((box) => box.box()),
        groups: this.groups,
        selections: this.selections,
        ...(this.runs.length > 0 ? { runs: this.runs } : {}),
      },
    };
  }
}

type Kind = (site: Site) => void;

const sides = (site: Site): [string, string] => (site.random.chance(0.5) ? ['a', 'b'] : ['b', 'a']);

/** Feed, onward feed, one to four switches with their lamps; some of the switches stay. */
const gangs: Kind = (site) => {
  const { random } = site;
  const box = site.newBox();
  const count = random.int(1, 4);
  const own = count > 1 && random.chance(0.3);
  const direct = count === 1 && random.chance(0.6);
  const circuits = Array.from({ length: count }, (_, at) => (own && at > 0 ? 'c2' : 'c1'));
  const [hot, switched] = sides(site);
  if (direct) box.feed('c1', { position: 1, terminal: hot });
  else for (const circuit of new Set(circuits)) box.feed(circuit, box.joint(`l:${circuit}`));
  circuits.forEach((circuit) => {
    const position = box.position('single-pole', []);
    if (!direct) box.tail(box.joint(`l:${circuit}`), { position, terminal: hot });
    box.works(position, box.lamp(circuit, { position, terminal: switched }));
    if (position === 1 || random.chance(0.7)) {
      const neutral = random.chance(0.7);
      const device = site.device({ neutral, either: !neutral, ground: random.chance(0.8) });
      site.choose(box, position, device, 'single', circuit);
    }
  });
  if (random.chance(0.5)) box.onward('c1', direct ? { position: 1, terminal: hot } : box.joint('l:c1'));
  if (random.chance(0.3)) box.core(box.cable(), 'spare', site.id('n'), { capped: true });
};

/** A loop from the ceiling, with or without a neutral. */
const loop: Kind = (site) => {
  const box = site.newBox();
  const [hot, switched] = sides(site);
  const withNeutral = site.random.chance(0.5);
  const position = box.position('single-pole', []);
  const cable = box.cable();
  box.circuitIds.add('c1');
  const a = site.id('n');
  const load = site.load('c1', a, site.neutral('c1'));
  box.works(position, load);
  box.core(cable, 'line', 'L:c1', { position, terminal: hot }, { circuitId: 'c1' });
  box.core(cable, 'load', a, { position, terminal: switched }, { loadIds: [load] });
  if (withNeutral) box.core(cable, 'neutral', site.neutral('c1'), { capped: true }, { circuitId: 'c1' });
  box.ground(cable, site.random.chance(0.5) ? { position, terminal: 'ground' } : { boxScrew: true });
  const device = site.device({ neutral: withNeutral, either: !withNeutral && site.random.chance(0.6) });
  site.choose(box, position, device, 'single', 'c1');
};

/** Two loads on one device: fan and light, or two lamps; the second contact may be a dry one. */
const double: Kind = (site) => {
  const box = site.newBox();
  const dry = site.random.chance(0.4);
  const second = dry && site.random.chance(0.5) ? 'c2' : 'c1';
  const position = box.position('double-single-pole', []);
  box.feed('c1', { position, terminal: 'a1' });
  if (second === 'c2') box.feed('c2', { position, terminal: 'a2' });
  else box.tail({ position, terminal: 'a1' }, { position, terminal: 'a2' });
  box.works(position, box.lamp('c1', { position, terminal: 'b1' }));
  box.works(position, box.lamp(second, { position, terminal: 'b2' }));
  site.choose(box, position, site.device({ loads: 2, dry }), 'single', 'c1');
};

/** A switch beside a receptacle that stays, and may carry line and neutral on. */
const besideReceptacle: Kind = (site) => {
  const box = site.newBox();
  const through = site.random.chance(0.5);
  const position = box.position('single-pole', []);
  const socket = box.position('receptacle', [], { need: {} });
  const n = `n:${site.neutral('c1')}`;
  if (through) {
    box.feed('c1', { position: socket, terminal: 'hot' }, { position: socket, terminal: 'neutral' });
    box.tail({ position: socket, terminal: 'hot2' }, { position, terminal: 'a' });
    box.works(
      position,
      box.lamp('c1', { position, terminal: 'b' }, { position: socket, terminal: 'neutral2' }),
    );
  } else {
    box.feed('c1', box.joint('l'));
    box.tail(box.joint('l'), { position, terminal: 'a' });
    box.tail(box.joint('l'), { position: socket, terminal: 'hot' });
    box.tail(box.joint(n), { position: socket, terminal: 'neutral' });
    box.works(position, box.lamp('c1', { position, terminal: 'b' }));
  }
  box.tail(box.joint('ground'), { position: socket, terminal: 'ground' });
  site.choose(
    box,
    position,
    site.device({ neutral: site.random.chance(0.7), either: false }),
    'single',
    'c1',
  );
};

/** Bulbs on constant power, or a module at the fitting. */
const fedAlways: Kind = (site) => {
  const box = site.newBox();
  const position = box.position('single-pole', []);
  box.feed('c1', { position, terminal: 'a' });
  box.works(position, box.lamp('c1', { position, terminal: 'b' }));
  const module = site.random.chance(0.4);
  const device = module ? site.device({ mount: 'fitting' }) : site.device({ controller: true });
  site.choose(box, position, device, module ? 'module' : 'bulb-controller', 'c1');
};

/** How the two ends of a stair are wired. */
type Layout = 'line-load' | 'all-at-foot' | 'line-carried' | 'conversion';

interface Stair {
  places: { box: SiteBox; position: number }[];
  load: string;
  layout: Layout;
  /** Whether the link cables bring a neutral to the head. */
  neutral: boolean;
  middle: boolean;
}

/** A light worked from two places, or three. */
function stair(site: Site): Stair {
  const { random } = site;
  const layout = random.pick(
    site.practice === 'gb'
      ? (['line-load', 'all-at-foot', 'conversion'] as const)
      : (['line-load', 'all-at-foot', 'line-carried'] as const),
  );
  const middle = layout !== 'conversion' && random.chance(0.3);
  const neutral = layout === 'line-load' || random.chance(0.5);
  const names = middle ? ['foot', 'mid', 'head'] : ['foot', 'head'];
  const places = names.map((_, at) => {
    const box = site.newBox();
    box.circuitIds.add('c1');
    const between = at > 0 && at < names.length - 1;
    return { box, position: box.position(between ? 'four-way' : 'three-way', []) };
  });
  const [foot, head] = [places[0], places.at(-1)] as [Stair['places'][0], Stair['places'][0]];
  const groupId = site.id('g');
  const common = ({ position }: { position: number }): At => ({ position, terminal: 'common' });
  const n = `n:${site.neutral('c1')}`;
  if (layout === 'conversion') return conversion(site, places, groupId);
  const carried = layout === 'line-carried';
  foot.box.feed('c1', layout === 'line-load' ? common(foot) : foot.box.joint('l'));
  let load: string;
  let returned: string | null = null;
  if (layout === 'line-load') load = head.box.lamp('c1', common(head));
  else if (carried) {
    load = foot.box.lamp('c1', common(foot));
  } else {
    // The feed goes to the foot's common, and what the head switches comes back over a core of its own.
    foot.box.tail(foot.box.joint('l'), common(foot));
    load = foot.box.lamp('c1', foot.box.joint('sw'));
    returned = site.lamps.find((lamp) => lamp.loadId === load)?.a ?? null;
  }
  for (let at = 1; at < places.length; at++) {
    const [from, to] = [places[at - 1], places[at]] as [Stair['places'][0], Stair['places'][0]];
    const [one, other] = [from.box.cable(), to.box.cable()];
    const pairs: [string, string][] = [];
    const both = (
      [near, beyond]: [Role, Role],
      [a, b]: [At, At],
      told: Partial<Label> & { colour?: Colour | undefined },
    ) => {
      const far = site.id('x');
      const core = from.box.core(one, near, far, a, told);
      pairs.push([core, to.box.core(other, beyond, far, b, told)]);
    };
    const { colours } = site;
    const first = at === 1 ? ['t1', 't2'] : ['t3', 't4'];
    for (const [which, terminal] of first.entries())
      both(
        ['traveler', 'traveler'],
        [
          { position: from.position, terminal },
          { position: to.position, terminal: `t${which + 1}` },
        ],
        { groupId, traveler: which + 1, colour: colours[`t${which + 1}`] },
      );
    const onward = (net: string): [At, At] => [
      from.box.joint(net),
      at === places.length - 1 ? common(to) : to.box.joint(net),
    ];
    if (neutral) both(['neutral', 'neutral'], [from.box.joint(n), to.box.joint(n)], { circuitId: 'c1' });
    if (carried) both(['line-on', 'line'], onward('l'), { circuitId: 'c1' });
    if (returned !== null) both(['load', 'load'], onward('sw'), { loadIds: [load] });
    from.box.ground(one);
    to.box.ground(other);
    if (random.chance(0.6))
      site.runs.push({
        id: site.id('run'),
        ends: [
          { boxId: from.box.id, cableId: one },
          { boxId: to.box.id, cableId: other },
        ],
        pairs,
        known: 'tested',
      });
  }
  // The lamp's far core at the foot and what comes back from the head are one wire.
  for (const { box, position } of places) box.works(position, load);
  site.groups.push({
    id: groupId,
    loadIds: [load],
    places: places.map(({ box, position }) => ({ boxId: box.id, position })),
  });
  return { places, load, layout, neutral, middle };
}

/** Commons linked; line and switch wire on the outer terminals of the first switch, and on to the second. */
function conversion(site: Site, places: Stair['places'], groupId: string): Stair {
  const [foot, head] = places as [Stair['places'][0], Stair['places'][0]];
  const at = (place: Stair['places'][0], terminal: string): At => ({ position: place.position, terminal });
  const drop = foot.box.cable();
  const a = site.id('n');
  const load = site.load('c1', a, site.neutral('c1'));
  foot.box.core(drop, 'line', 'L:c1', at(foot, 't1'), { circuitId: 'c1' });
  foot.box.core(drop, 'load', a, at(foot, 't2'), { loadIds: [load] });
  foot.box.ground(drop);
  const [one, other] = [foot.box.cable(), head.box.cable()];
  const both = (
    [near, beyond]: [Role, Role],
    terminal: string,
    told: Partial<Label> & { colour?: Colour | undefined },
  ) => {
    const far = site.id('x');
    foot.box.core(one, near, far, at(foot, terminal), told);
    head.box.core(other, beyond, far, at(head, terminal), told);
  };
  both(['line-on', 'line'], 't1', { circuitId: 'c1', colour: site.colours.t1 });
  both(['load', 'load'], 't2', { loadIds: [load], colour: site.colours.t2 });
  both(['traveler', 'traveler'], 'common', { groupId, traveler: 1, colour: site.colours.t3 });
  foot.box.ground(one);
  head.box.ground(other);
  for (const { box, position } of places) box.works(position, load);
  site.groups.push({
    id: groupId,
    loadIds: [load],
    places: places.map(({ box, position }) => ({ boxId: box.id, position })),
  });
  return { places, load, layout: 'conversion', neutral: false, middle: false };
}

const entry = (
  strategy: Strategy,
  partner: { line?: boolean; neutral?: boolean; travelers?: number },
  middle: 'tie' | 'companion' | 'keep',
  mainAt: 'line' | 'load' | 'either' = 'either',
): Device['multiLocation'] => [{ strategy, mainAt, partner, middle }];

/** Every strategy on every layout, sensible or not: what cannot work must not be marked ready. */
const group =
  (strategy: Strategy): Kind =>
  (site) => {
    const { places, layout } = stair(site);
    const { random } = site;
    const neutral = layout !== 'conversion' && random.chance(0.8);
    const signals = strategy === 'companion' || strategy === 'keep-mechanical' ? 1 : 0;
    const partner =
      strategy === 'companion'
        ? { line: true, neutral: false, travelers: 1 }
        : strategy === 'both-ends' || strategy === 'linked'
          ? { line: true, neutral, travelers: 0 }
          : { line: strategy === 'keep-mechanical', neutral: false, travelers: 1 };
    const middle =
      strategy === 'keep-mechanical'
        ? 'keep'
        : strategy === 'companion' || strategy === 'both-ends' || strategy === 'linked'
          ? 'companion'
          : 'tie';
    const strategies = entry(strategy, partner, middle);
    const mainAt = layout === 'line-load' && random.chance(0.7) ? places.length - 1 : 0;
    places.forEach(({ box, position }, at) => {
      const device = (() => {
        if (strategy === 'bulb-controller') return at === mainAt ? site.device({ controller: true }) : null;
        if (strategy === 'module') return at === mainAt ? site.device({ mount: 'fitting' }) : null;
        if (at === mainAt) return site.device({ neutral, travelers: signals, strategies });
        if (strategy === 'companion')
          return site.device({ neutral: false, loads: 0, travelers: 1, strategies });
        if (strategy === 'both-ends' || strategy === 'linked') return site.device({ neutral, strategies });
        return null;
      })();
      site.choose(box, position, device, strategy, 'c1');
    });
  };

const KINDS: Readonly<Record<string, Kind>> = {
  gangs,
  loop,
  double,
  besideReceptacle,
  fedAlways,
  bothEnds: group('both-ends'),
  keepMechanical: group('keep-mechanical'),
  companion: group('companion'),
  tieThrough: group('tie-through'),
  bulbs: group('bulb-controller'),
  module: group('module'),
  linked: group('linked'),
};

/** A made-up house of one box, or of the boxes of one light, with what is chosen for it. */
export function trueHouse(random: Random): TrueHouse {
  const practice = random.pick(['us', 'us', 'ca', 'gb', 'modular'] as const);
  const site = new Site(random, practice);
  site.unlabelled = random.chance(0.2) ? 0.1 : 0;
  const kind = random.pick(Object.keys(KINDS));
  KINDS[kind]?.(site);
  return site.house(`${practice} ${kind}`);
}
