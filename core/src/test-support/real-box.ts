import { newJob } from '../job/new-job.js';
import type { Circuit, Job, Load } from '../job/schema/job.js';
import type { Colour, PracticeId, Role } from '../job/schema/primitives.js';
import type { At, Box, Conductor, ExistingDevice, Position, Reading } from '../job/schema/survey.js';
import { newBox } from '../survey/new-box.js';
import type { Random } from './random.js';
import { Resistors } from './resistors.js';

/** What a test asks, as it is proposed. */
export type Asked = Pick<Reading, 'tool' | 'arrangement' | 'points'> & {
  position: number | null;
  lifted: readonly string[];
  joined: readonly string[];
  breakers: Readonly<Record<string, string>>;
  switches: Readonly<Record<string, string>>;
  loads: Readonly<Record<string, string>>;
};

/**
 * A box of copper and lamps behind a plate: its survey, what it truly is, and what instruments show of it.
 */
export interface RealBox {
  name: string;
  job: Job;
  box: Box;
  /** What each insulated conductor truly is. */
  truth: ReadonlyMap<string, Role>;
  /** Loads of which nothing is there: a missing lamp, a chain pulled off. */
  gone: ReadonlySet<string>;
  answer(asked: Asked, id: string): Reading;
}

interface Colours {
  line: Colour;
  neutral: Colour;
  load: Colour;
  second: Colour;
  loopLine: Colour;
  loopLoad: Colour;
  travelers: [Colour, Colour];
  third: Colour;
  ground: Colour;
}

const AMERICA: Colours = {
  line: 'black',
  neutral: 'white',
  load: 'black',
  second: 'red',
  loopLine: 'white',
  loopLoad: 'black',
  travelers: ['black', 'red'],
  third: 'white',
  ground: 'bare',
};
const COLOURS: Record<PracticeId, Colours> = {
  us: AMERICA,
  ca: AMERICA,
  gb: {
    line: 'brown',
    neutral: 'blue',
    load: 'brown',
    second: 'grey',
    loopLine: 'brown',
    loopLoad: 'blue',
    travelers: ['black', 'grey'],
    third: 'brown',
    ground: 'bare',
  },
  modular: {
    line: 'red',
    neutral: 'black',
    load: 'yellow',
    second: 'blue',
    loopLine: 'red',
    loopLoad: 'yellow',
    travelers: ['yellow', 'blue'],
    third: 'red',
    ground: 'green',
  },
};

const KINDS = ['led', 'resistive', 'fluorescent', 'exhaust-fan', 'magnetic'] as const;

/**
 * Far ends are named nodes: `L:c1` behind a breaker, `N:c1` its neutral, `E` earth, or any name that parts
 * share.
 */
class Site {
  readonly cables: Box['cables'] = [];
  readonly conductors: Conductor[] = [];
  readonly joints: Box['joints'] = [];
  readonly positions: Position[] = [];
  readonly loads: Load[] = [];
  readonly truth = new Map<string, Role>();
  readonly farEnds = new Map<string, string>();
  /** Loads between two nodes, with their ohms to a meter dead, alive, and at work. */
  readonly lamps: {
    id: string;
    a: string;
    b: string;
    dead: number;
    alive: number;
    work: number;
    gone: boolean;
  }[] = [];
  /** Switches elsewhere: their common, and the two it chooses between. */
  readonly farSwitches: { key: string; common: string; one: string; two: string; turned: boolean }[] = [];
  readonly groups: Job['groups'] = [];
  private serial = 0;

  constructor(
    readonly random: Random,
    readonly practice: PracticeId,
    readonly colours: Colours,
    readonly volts: number,
  ) {}

  id(prefix: string): string {
    this.serial += 1;
    return `${prefix}${this.serial}`;
  }

  cable(): string {
    const id = this.id('k');
    this.cables.push({ id });
    return id;
  }

  joint(): At {
    const id = this.id('j');
    this.joints.push({ id, connector: 'unknown' });
    return { joint: id };
  }

  core(cableId: string, colour: Colour, at: At, role: Role, far: string | null): string {
    const id = this.id('w');
    this.conductors.push({
      id,
      cableId,
      size: this.practice === 'us' || this.practice === 'ca' ? '14AWG' : '1.5mm2',
      colour,
      at,
    });
    if (role !== 'ground') this.truth.set(id, role);
    if (far !== null) this.farEnds.set(id, far);
    return id;
  }

  ground(cableId: string, at: At): void {
    this.core(cableId, this.colours.ground, at, 'ground', 'E');
  }

  tail(from: At, to: At): void {
    this.conductors.push({
      id: this.id('t'),
      size: this.practice === 'us' || this.practice === 'ca' ? '14AWG' : '1.5mm2',
      colour: 'black',
      ends: [from, to],
    });
  }

  position(existing: ExistingDevice, loadIds: string[]): number {
    const index = this.positions.length + 1;
    this.positions.push({ index, existing, loadIds, need: { smart: true } });
    return index;
  }

  /** A lamp or fan between two nodes. */
  load(a: string, b: string, of?: Load['kind']): string {
    const id = this.id('l');
    const kind = of ?? this.random.pick(KINDS);
    const load: Load = {
      id,
      name: id,
      roomId: 'r1',
      kind,
      count: this.random.int(1, 5),
      wattsEach: this.random.int(8, 60),
    };
    this.loads.push(load);
    const watts = load.count * load.wattsEach;
    const work = (kind === 'heater' ? 2 * this.volts : this.volts) ** 2 / watts;
    const driver = kind === 'led' || kind === 'fluorescent';
    const winding = this.random.int(8, 120);
    let [dead, alive] = [winding, winding * 4];
    if (kind === 'heater') [dead, alive] = [work, work];
    else if (kind === 'resistive') [dead, alive] = [work / 12, work / 12];
    else if (driver) {
      dead = this.random.chance(0.5) ? 1e12 : this.random.int(5, 90) * 1000;
      alive = this.random.int(40, 300) * 1000;
    }
    this.lamps.push({ id, a, b, dead, alive, work, gone: this.random.chance(0.05) });
    return id;
  }
}

type Wiring = (site: Site, circuit: string) => void;

/** The two terminals of a plain switch, either way up. */
function sides(site: Site): [string, string] {
  return site.random.chance(0.5) ? ['a', 'b'] : ['b', 'a'];
}

/** A lamp's own cable: its hot core on a place of the box, its return with the neutrals. */
function lampCable(site: Site, hot: At, neutrals: At, grounds: At, colour = site.colours.load): string {
  const cable = site.cable();
  const [a, b] = [site.id('n'), site.id('n')];
  const load = site.load(a, b);
  site.core(cable, colour, hot, 'load', a);
  site.core(cable, site.colours.neutral, neutrals, 'neutral', b);
  site.ground(cable, grounds);
  return load;
}

const works = (site: Site, position: number, load: string) => {
  const at = site.positions.find((entry) => entry.index === position) as Position;
  at.loadIds = [...at.loadIds, load];
};

/** Feed to the switch, lamp from it, neutrals joined. */
const powerAtSwitch =
  (existing: ExistingDevice = 'single-pole'): Wiring =>
  (site, circuit) => {
    const { line, neutral } = site.colours;
    const [hot, switched] = sides(site);
    const [neutrals, grounds] = [site.joint(), site.joint()];
    const position = site.position(existing, []);
    const feed = site.cable();
    site.core(feed, line, { position, terminal: hot }, 'line', `L:${circuit}`);
    site.core(feed, neutral, neutrals, 'neutral', `N:${circuit}`);
    site.ground(feed, grounds);
    works(site, position, lampCable(site, { position, terminal: switched }, neutrals, grounds));
  };

/**
 * One cable from the fitting: always live down, switched live back; a third core for the neutral, capped, or
 * none.
 */
const loop =
  (withNeutral: boolean): Wiring =>
  (site, circuit) => {
    const [hot, switched] = sides(site);
    const position = site.position('single-pole', []);
    const cable = site.cable();
    const a = site.id('n');
    works(site, position, site.load(a, `N:${circuit}`));
    const { loopLine, loopLoad, line, second, neutral } = site.colours;
    site.core(cable, withNeutral ? line : loopLine, { position, terminal: hot }, 'line', `L:${circuit}`);
    site.core(cable, withNeutral ? second : loopLoad, { position, terminal: switched }, 'load', a);
    if (withNeutral) site.core(cable, neutral, { capped: true }, 'neutral', `N:${circuit}`);
    site.ground(cable, { boxScrew: true });
  };

/** A third cable carries line and neutral on, to a lamp of another box or to nothing anybody named. */
const feedThrough =
  (underOneScrew: boolean): Wiring =>
  (site, circuit) => {
    const { line, neutral } = site.colours;
    const [hot, switched] = sides(site);
    const [neutrals, grounds] = [site.joint(), site.joint()];
    const position = site.position('single-pole', []);
    const place: At = underOneScrew ? { position, terminal: hot } : site.joint();
    const [feed, onward] = [site.cable(), site.cable()];
    site.core(feed, line, place, 'line', `L:${circuit}`);
    site.core(feed, neutral, neutrals, 'neutral', `N:${circuit}`);
    const [a, b] = [site.id('n'), site.id('n')];
    site.core(onward, line, place, 'line-on', a);
    site.core(onward, neutral, neutrals, 'neutral', b);
    if (site.random.chance(0.7))
      site.lamps.push({
        id: 'onward',
        a,
        b,
        dead: site.random.int(15, 900),
        alive: 200,
        work: 200,
        gone: false,
      });
    for (const cable of [feed, onward]) site.ground(cable, grounds);
    if (!underOneScrew) site.tail(place, { position, terminal: hot });
    works(site, position, lampCable(site, { position, terminal: switched }, neutrals, grounds));
  };

/** Two switches of one feed, joined by two tails. */
const twoOfOneFeed: Wiring = (site, circuit) => {
  const { line, neutral } = site.colours;
  const [lines, neutrals, grounds] = [site.joint(), site.joint(), site.joint()];
  const feed = site.cable();
  site.core(feed, line, lines, 'line', `L:${circuit}`);
  site.core(feed, neutral, neutrals, 'neutral', `N:${circuit}`);
  site.ground(feed, grounds);
  for (const colour of [site.colours.load, site.colours.load]) {
    const [hot, switched] = sides(site);
    const position = site.position('single-pole', []);
    site.tail(lines, { position, terminal: hot });
    works(site, position, lampCable(site, { position, terminal: switched }, neutrals, grounds, colour));
  }
};

/** The lamp and the fan of one ceiling on two cores of one cable. */
const fanAndLight: Wiring = (site, circuit) => {
  const { line, neutral, load, second } = site.colours;
  const [neutrals, grounds, lines] = [site.joint(), site.joint(), site.joint()];
  const feed = site.cable();
  site.core(feed, line, lines, 'line', `L:${circuit}`);
  site.core(feed, neutral, neutrals, 'neutral', `N:${circuit}`);
  site.ground(feed, grounds);
  const ceiling = site.cable();
  const back = site.id('n');
  for (const colour of [load, second]) {
    const [hot, switched] = sides(site);
    const position = site.position('single-pole', []);
    site.tail(lines, { position, terminal: hot });
    const a = site.id('n');
    works(site, position, site.load(a, back));
    site.core(ceiling, colour, { position, terminal: switched }, 'load', a);
  }
  site.core(ceiling, neutral, neutrals, 'neutral', back);
  site.ground(ceiling, grounds);
};

/** The end of a stair where the feed is: the far switch has the lamp. */
const stairLineEnd: Wiring = (site, circuit) => {
  const { line, neutral, travelers } = site.colours;
  const [neutrals, grounds] = [site.joint(), site.joint()];
  const position = site.position('three-way', []);
  const [feed, link] = [site.cable(), site.cable()];
  site.core(feed, line, { position, terminal: 'common' }, 'line', `L:${circuit}`);
  site.core(feed, neutral, neutrals, 'neutral', `N:${circuit}`);
  site.ground(feed, grounds);
  const [one, two, common, back] = [site.id('n'), site.id('n'), site.id('n'), site.id('n')];
  site.core(link, travelers[0], { position, terminal: 't1' }, 'traveler', one);
  site.core(link, travelers[1], { position, terminal: 't2' }, 'traveler', two);
  site.core(link, neutral, neutrals, 'neutral', back);
  site.ground(link, grounds);
  works(site, position, site.load(common, back));
  site.farSwitches.push({ key: 'far/1', common, one, two, turned: site.random.chance(0.5) });
};

/** The end where the lamp is: line and neutral come with the travelers from the other switch. */
const stairLoadEnd: Wiring = (site, circuit) => {
  const { neutral, travelers } = site.colours;
  const [neutrals, grounds] = [site.joint(), site.joint()];
  const position = site.position('three-way', []);
  const link = site.cable();
  const [one, two] = [site.id('n'), site.id('n')];
  site.core(link, travelers[0], { position, terminal: 't1' }, 'traveler', one);
  site.core(link, travelers[1], { position, terminal: 't2' }, 'traveler', two);
  site.core(link, neutral, neutrals, 'neutral', `N:${circuit}`);
  site.ground(link, grounds);
  works(site, position, lampCable(site, { position, terminal: 'common' }, neutrals, grounds));
  site.farSwitches.push({ key: 'far/1', common: `L:${circuit}`, one, two, turned: site.random.chance(0.5) });
};

/** A core that ends nowhere, capped at both ends, beside a plain feed and lamp. */
const withSpare: Wiring = (site, circuit) => {
  const { line, neutral, load, second } = site.colours;
  const [hot, switched] = sides(site);
  const [neutrals, grounds] = [site.joint(), site.joint()];
  const position = site.position('single-pole', []);
  const feed = site.cable();
  site.core(feed, line, { position, terminal: hot }, 'line', `L:${circuit}`);
  site.core(feed, neutral, neutrals, 'neutral', `N:${circuit}`);
  site.ground(feed, grounds);
  const lamp = site.cable();
  const [a, b] = [site.id('n'), site.id('n')];
  site.core(lamp, load, { position, terminal: switched }, 'load', a);
  site.core(lamp, second, { capped: true }, 'spare', null);
  site.core(lamp, neutral, neutrals, 'neutral', b);
  site.ground(lamp, grounds);
  works(site, position, site.load(a, b));
};

/** Two lines of two legs on one neutral, each to a switch of its own. */
const sharedNeutral: Wiring = (site) => {
  const { line, neutral, second } = site.colours;
  const [neutrals, grounds] = [site.joint(), site.joint()];
  const feed = site.cable();
  [line, second].forEach((colour, at) => {
    const [hot, switched] = sides(site);
    const position = site.position('single-pole', []);
    site.core(feed, colour, { position, terminal: hot }, 'line', `L:c${at + 1}`);
    works(site, position, lampCable(site, { position, terminal: switched }, neutrals, grounds));
  });
  site.core(feed, neutral, neutrals, 'neutral', 'N:c1');
  site.ground(feed, grounds);
};

/**
 * A receptacle that carries line and neutral on through its terminals: out with it, and the neutral further
 * on is open.
 */
const throughReceptacle: Wiring = (site, circuit) => {
  const { line, neutral } = site.colours;
  const grounds = site.joint();
  const position = site.position('receptacle', []);
  const [feed, onward] = [site.cable(), site.cable()];
  site.core(feed, line, { position, terminal: 'hot' }, 'line', `L:${circuit}`);
  site.core(feed, neutral, { position, terminal: 'neutral' }, 'neutral', `N:${circuit}`);
  const [a, b] = [site.id('n'), site.id('n')];
  site.core(onward, line, { position, terminal: 'hot2' }, 'line-on', a);
  site.core(onward, neutral, { position, terminal: 'neutral2' }, 'neutral', b);
  for (const cable of [feed, onward]) site.ground(cable, grounds);
  // Nothing is plugged in.
  const load: Load = {
    id: site.id('l'),
    name: 'Sockets',
    roomId: 'r1',
    kind: 'receptacle',
    count: 1,
    wattsEach: 0,
  };
  site.loads.push(load);
  site.lamps.push({ id: load.id, a: site.id('n'), b: site.id('n'), dead: 1, alive: 1, work: 1, gone: true });
  works(site, position, load.id);
};

/**
 * Line and lamp are both here: the line goes to the far switch on the third core, and comes back over one
 * traveler or the other.
 */
const stairBothHere: Wiring = (site, circuit) => {
  const { line, neutral, travelers, third } = site.colours;
  const [lines, neutrals, grounds] = [site.joint(), site.joint(), site.joint()];
  const position = site.position('three-way', []);
  const [feed, link] = [site.cable(), site.cable()];
  site.core(feed, line, lines, 'line', `L:${circuit}`);
  site.core(feed, neutral, neutrals, 'neutral', `N:${circuit}`);
  site.ground(feed, grounds);
  const [one, two, common] = [site.id('n'), site.id('n'), site.id('n')];
  site.core(link, travelers[0], { position, terminal: 't1' }, 'traveler', one);
  site.core(link, travelers[1], { position, terminal: 't2' }, 'traveler', two);
  site.core(link, third, lines, 'line-on', common);
  site.ground(link, grounds);
  works(site, position, lampCable(site, { position, terminal: 'common' }, neutrals, grounds));
  site.farSwitches.push({ key: 'far/1', common, one, two, turned: site.random.chance(0.5) });
};

/** The switch in the middle of a stair: a pair from the end that is fed, a pair to the end with the lamp. */
const stairMiddle: Wiring = (site, circuit) => {
  const { neutral, travelers } = site.colours;
  const [neutrals, grounds] = [site.joint(), site.joint()];
  const position = site.position('four-way', []);
  const lamp = site.id('n');
  const back = site.id('n');
  works(site, position, site.load(lamp, back));
  const pairs: [string, string, string, string][] = [
    ['t1', 't2', 'far/1', `L:${circuit}`],
    ['t3', 't4', 'far2/1', lamp],
  ];
  for (const [first, second, key, common] of pairs) {
    const link = site.cable();
    const [one, two] = [site.id('n'), site.id('n')];
    site.core(link, travelers[0], { position, terminal: first }, 'traveler', one);
    site.core(link, travelers[1], { position, terminal: second }, 'traveler', two);
    site.core(link, neutral, neutrals, 'neutral', key === 'far/1' ? `N:${circuit}` : back);
    site.ground(link, grounds);
    site.farSwitches.push({ key, common, one, two, turned: site.random.chance(0.5) });
  }
};

/** Two lines of one breaker to a heater, no neutral. */
const pair240: Wiring = (site) => {
  const { line, second } = site.colours;
  const grounds = site.joint();
  const position = site.position('double-pole', []);
  const [feed, heater] = [site.cable(), site.cable()];
  const [a, b] = [site.id('n'), site.id('n')];
  site.core(feed, line, { position, terminal: 'a1' }, 'line', 'L:c1');
  site.core(feed, second, { position, terminal: 'a2' }, 'line', 'L:c1 other');
  site.core(heater, line, { position, terminal: 'b1' }, 'load', a);
  site.core(heater, second, { position, terminal: 'b2' }, 'load', b);
  for (const cable of [feed, heater]) site.ground(cable, grounds);
  works(site, position, site.load(a, b, 'heater'));
};

/** Modular: one live and one neutral in, and a single wire to each load, whose return is elsewhere. */
const wireToEachLoad =
  (count: number): Wiring =>
  (site, circuit) => {
    const { line, neutral } = site.colours;
    const [lines, grounds] = [site.joint(), site.joint()];
    const mains = site.cable();
    site.core(mains, line, lines, 'line', `L:${circuit}`);
    site.core(mains, neutral, { capped: true }, 'neutral', `N:${circuit}`);
    site.ground(mains, grounds);
    for (const colour of [site.colours.load, site.colours.second].slice(0, count)) {
      const [hot, switched] = sides(site);
      const position = site.position('single-pole', []);
      site.tail(lines, { position, terminal: hot });
      const a = site.id('n');
      works(site, position, site.load(a, `N:${circuit}`));
      site.core(site.cable(), colour, { position, terminal: switched }, 'load', a);
    }
  };

interface Situation {
  name: string;
  practices: readonly PracticeId[];
  positions: 1 | 2;
  wire: (site: Site) => void;
  circuits?: 2;
  /** Fields of every circuit. */
  circuit?: (at: number) => Partial<Circuit>;
}

const ALL: readonly PracticeId[] = ['us', 'ca', 'gb', 'modular'];
const NORTH: readonly PracticeId[] = ['us', 'ca'];
const one = (name: string, practices: readonly PracticeId[], wiring: Wiring): Situation => ({
  name,
  practices,
  positions: 1,
  wire: (site) => wiring(site, 'c1'),
});
const two = (
  name: string,
  practices: readonly PracticeId[],
  first: Wiring,
  second: Wiring,
  circuits?: 2,
): Situation => ({
  name,
  practices,
  positions: 2,
  ...(circuits ? { circuits } : {}),
  wire: (site) => {
    first(site, 'c1');
    second(site, circuits ? 'c2' : 'c1');
  },
});

/** Everything a box of one or two positions is usually found as. */
export const SITUATIONS: readonly Situation[] = [
  one('power at the switch', ALL, powerAtSwitch()),
  one('power at a dimmer', ALL, powerAtSwitch('dimmer')),
  one('switch loop', ALL, loop(false)),
  one('loop with a neutral', ALL, loop(true)),
  one('feed-through, joined', ALL, feedThrough(false)),
  one('feed-through, two under one screw', ALL, feedThrough(true)),
  one('a spare core', NORTH, withSpare),
  one('stair, line end', NORTH, stairLineEnd),
  one('stair, load end', NORTH, stairLoadEnd),
  one('stair, line and lamp here', NORTH, stairBothHere),
  one('stair, the middle', NORTH, stairMiddle),
  one('a receptacle that carries the neutral', NORTH, throughReceptacle),
  { ...one('a 240 V pair', NORTH, pair240), circuit: () => ({ volts: 240, poles: 2 }) },
  one('a wire to the load', ['modular'], wireToEachLoad(1)),
  {
    name: 'a wire to each load',
    practices: ['modular'],
    positions: 2,
    wire: (site) => wireToEachLoad(2)(site, 'c1'),
  },
  {
    name: 'two circuits, one neutral',
    practices: NORTH,
    positions: 2,
    circuits: 2,
    circuit: (at) => ({ sharesNeutralWith: [`c${2 - at}`], commonTrip: true }),
    wire: (site) => sharedNeutral(site, 'c1'),
  },
  { name: 'two of one feed', practices: ALL, positions: 2, wire: (site) => twoOfOneFeed(site, 'c1') },
  { name: 'fan and light', practices: ALL, positions: 2, wire: (site) => fanAndLight(site, 'c1') },
  two('two feeds of one circuit', ALL, powerAtSwitch(), powerAtSwitch()),
  two('two circuits, apart', ALL, powerAtSwitch(), powerAtSwitch(), 2),
  two('power at the switch beside a loop', ALL, powerAtSwitch(), loop(false)),
  two('feed-through beside a loop of another circuit', NORTH, feedThrough(false), loop(true), 2),
];

/**
 * One of the situations, its colours, lamps and far ends drawn; the circuits' protection now and then more
 * than a plain breaker.
 */
export function realBox(random: Random, practice: PracticeId, situation: Situation): RealBox {
  const volts = practice === 'us' || practice === 'ca' ? 120 : 230;
  const site = new Site(random, practice, COLOURS[practice], volts);
  situation.wire(site);
  const isolates = practice !== 'us' && practice !== 'ca' && random.chance(0.15);
  const circuits = Array.from(
    { length: situation.circuits ?? 1 },
    (_, at): Circuit => ({
      id: `c${at + 1}`,
      panel: 'Main',
      breaker: String(at + 1),
      label: '',
      amps: practice === 'us' || practice === 'ca' ? 15 : 6,
      volts,
      ...(practice === 'us' || practice === 'ca' ? { leg: at === 0 ? ('A' as const) : ('B' as const) } : {}),
      ...(isolates ? { isolatesNeutral: true } : {}),
      ...situation.circuit?.(at),
    }),
  );
  const metal = random.chance(0.4);
  const box: Box = {
    ...newBox(
      { id: 'b1', roomId: 'r1', name: 'Box', order: 1 },
      practice,
      circuits.map(({ id }) => id),
    ),
    cables: site.cables,
    conductors: site.conductors,
    joints: site.joints,
    positions: site.positions,
  };
  box.enclosure = { ...box.enclosure, material: metal ? 'metal' : 'plastic', grounded: metal };
  const far = site.farSwitches.map(
    ({ key }, at): Box => ({
      ...newBox({ id: key.split('/')[0] as string, roomId: 'r1', name: 'Far', order: 2 + at }, practice),
      positions: [{ index: 1, existing: 'three-way', loadIds: box.positions[0]?.loadIds ?? [] }],
    }),
  );
  const nothing = { devices: [], hubs: [], parts: [], connectors: [], enclosures: [], platforms: [] };
  const job: Job = {
    ...newJob('j', 'Job', practice, undefined, nothing),
    circuits,
    loads: site.loads,
    rooms: [{ id: 'r1', name: 'Room', floor: 0, order: 1 }],
    boxes: [box, ...far],
    groups:
      far.length === 0
        ? []
        : [
            {
              id: 'g1',
              loadIds: box.positions[0]?.loadIds ?? [],
              places: [box, ...far].map(({ id }) => ({ boxId: id, position: 1 })),
            },
          ],
  };
  const house = new House(site, box, circuits, volts, random);
  return {
    name: `${practice}, ${situation.name}`,
    job,
    box,
    truth: site.truth,
    gone: new Set(site.lamps.flatMap(({ id, gone }) => (gone ? [id] : []))),
    answer: (asked, id) => house.answer(asked, id),
  };
}

const HIGH_OHMS = 10_000_000;
const LOW_OHMS = 3000;
/** Beyond this an ohmmeter shows open. */
const OPEN_OHMS = 20_000_000;

/** The box and what hangs on it, put together anew for every reading. */
class House {
  private readonly hidden = new Map<string, boolean>();
  /** Between cores that run side by side, ohm at mains frequency. */
  private readonly coupling: number;
  private readonly rest: number;

  constructor(
    private readonly site: Site,
    private readonly box: Box,
    private readonly circuits: readonly Circuit[],
    private readonly volts: number,
    private readonly random: Random,
  ) {
    this.coupling = random.int(3, 12) * 1_000_000;
    this.rest = random.int(20, 3000);
  }

  answer(asked: Asked, id: string): Reading {
    const { tool, arrangement, points, position, lifted, joined, breakers, switches, loads } = asked;
    return {
      id,
      at: '2026-05-04T09:00:00Z',
      tool,
      arrangement,
      points: [...points],
      ...(position === null ? {} : { position }),
      ...(lifted.length > 0 ? { lifted: [...lifted] } : {}),
      ...(joined.length > 0 ? { joined: [...joined] } : {}),
      breakers: { ...breakers } as Reading['breakers'],
      switches: { ...switches } as Reading['switches'],
      ...(Object.keys(loads).length > 0 ? { loads: { ...loads } } : {}),
      value: this.value(asked),
    } as Reading;
  }

  private value(asked: Asked): Reading['value'] {
    const [first = '', second = ''] = asked.points;
    switch (asked.tool) {
      case 'ohms':
        return this.ohms(asked, first, second);
      case 'volts':
      case 'volts-low-z': {
        const network = this.network(asked, true);
        network.resistor(this.node(first), this.node(second), asked.tool === 'volts' ? HIGH_OHMS : LOW_OHMS);
        const at = network.solve();
        return Math.round(10 * Math.abs(at(this.node(first)) - at(this.node(second)))) / 10;
      }
      case 'indicator':
        return Math.abs(this.network(asked, true).solve()(this.node(first))) > 0.62 * this.volts
          ? 'alert'
          : 'quiet';
      case 'lamp': {
        const lamp = this.site.lamps.find((entry) => entry.id === first);
        if (!lamp || lamp.gone || asked.loads[first] === 'out') return 'dark';
        const at = this.network(asked, true).solve();
        const share = Math.abs(at(lamp.a) - at(lamp.b)) / (this.circuits[0]?.volts ?? this.volts);
        return share > 0.85 ? 'lit' : share > 0.1 ? 'dim' : 'dark';
      }
      default:
        return 'held';
    }
  }

  private ohms(asked: Asked, first: string, second: string): Reading['value'] {
    const network = this.network(asked, false);
    network.current(this.node(first), 1);
    network.current(this.node(second), -1);
    const at = network.solve();
    const ohms = at(this.node(first)) - at(this.node(second));
    return ohms > OPEN_OHMS ? 'open' : Math.max(0.1, Math.round(10 * ohms) / 10);
  }

  private node(point: string): string {
    if (point === 'reference') return 'E';
    return point === 'box' ? 'box' : `core:${point}`;
  }

  /** @param alive with the sources, and what couples at their frequency */
  private network(asked: Asked, alive: boolean): Resistors {
    const network = new Resistors();
    network.source('E', 0, 0.001);
    if (this.box.enclosure.material === 'metal') network.resistor('box', 'E', 0.1);
    this.supply(network, asked, alive);
    for (const conductor of this.box.conductors) {
      const far = this.site.farEnds.get(conductor.id);
      if (far !== undefined) network.resistor(`core:${conductor.id}`, far, 0.05);
    }
    this.inTheBox(network, asked);
    for (const lamp of this.site.lamps)
      if (!lamp.gone && asked.loads[lamp.id] !== 'out')
        network.resistor(lamp.a, lamp.b, alive ? lamp.alive : lamp.dead);
    for (const { key, common, one, two, turned } of this.site.farSwitches)
      network.wire(common, (this.stateOf(asked, key) === 'up') !== turned ? one : two);
    if (alive) this.couple(network);
    return network;
  }

  private supply(network: Resistors, asked: Asked, alive: boolean): void {
    this.circuits.forEach((circuit, at) => {
      const on = (asked.breakers[circuit.id] ?? 'on') === 'on';
      if (on && alive && circuit.poles === 2) network.source(`L:${circuit.id} other`, -this.volts, 0.1);
      if (on && alive)
        network.source(
          `L:${circuit.id}`,
          at === 0 || circuit.leg === undefined ? this.volts : -this.volts,
          0.1,
        );
      if (on || !circuit.isolatesNeutral) network.resistor(`N:${circuit.id}`, 'E', 0.2);
      // Whatever else is left on along the circuit.
      network.resistor(`L:${circuit.id}`, `N:${circuit.id}`, this.rest);
    });
  }

  /** What is joined in the box in this arrangement, and the contacts left in it. */
  private inTheBox(network: Resistors, { arrangement, position, lifted, joined, ...asked }: Asked): void {
    const out =
      arrangement === 'device-out' ? (position ?? (this.box.positions.length === 1 ? 1 : null)) : null;
    const isGround = (conductor: Conductor) =>
      !this.site.truth.has(conductor.id) && conductor.cableId !== undefined;
    const place = (at: At, conductor: Conductor): string | null => {
      if (at.boxScrew) return 'box';
      if (at.joint !== undefined) {
        if (arrangement === 'parted' && !isGround(conductor) && !joined.includes(at.joint)) return null;
        return `joint:${at.joint}`;
      }
      if (at.position === undefined || at.position === out || arrangement === 'parted') return null;
      return `terminal:${at.position}.${at.terminal}`;
    };
    for (const conductor of this.box.conductors) {
      if (arrangement === 'lifted' && lifted.includes(conductor.id)) continue;
      if (conductor.ends) {
        const [from, to] = conductor.ends.map((at) => place(at, conductor));
        if (from && to) network.wire(from, to);
      } else if (conductor.at) {
        const at = place(conductor.at, conductor);
        if (at) network.wire(`core:${conductor.id}`, at);
      }
    }
    if (arrangement === 'parted') return;
    for (const { index, existing } of this.box.positions) {
      if (index === out) continue;
      const terminal = (name: string) => `terminal:${index}.${name}`;
      const state = this.stateOf(asked, String(index));
      if (existing === 'three-way')
        network.wire(
          terminal('common'),
          (state === 'up') !== this.isTurned(index) ? terminal('t1') : terminal('t2'),
        );
      else if (existing === 'four-way') {
        const straight = (state === 'up') !== this.isTurned(index);
        network.wire(terminal('t1'), terminal(straight ? 't3' : 't4'));
        network.wire(terminal('t2'), terminal(straight ? 't4' : 't3'));
      } else if (existing === 'receptacle') {
        network.wire(terminal('hot'), terminal('hot2'));
        network.wire(terminal('neutral'), terminal('neutral2'));
      } else if (state === 'on') {
        network.wire(terminal('a'), terminal('b'));
        network.wire(terminal('a1'), terminal('b1'));
        network.wire(terminal('a2'), terminal('b2'));
      }
    }
  }

  private isTurned(index: number): boolean {
    const key = `turned:${index}`;
    const kept = this.hidden.get(key) ?? this.random.chance(0.5);
    this.hidden.set(key, kept);
    return kept;
  }

  /** As asked; a switch that nobody named stands as it was left. */
  private stateOf(asked: Pick<Asked, 'switches'>, key: string): string {
    const named = asked.switches[key];
    if (named !== undefined) return named;
    const kept = this.hidden.get(key) ?? this.random.chance(0.5);
    this.hidden.set(key, kept);
    const own = this.box.positions.find(({ index }) => String(index) === key)?.existing;
    const multi = key.includes('/') || own === 'three-way' || own === 'four-way';
    return multi ? (kept ? 'up' : 'down') : kept ? 'on' : 'off';
  }

  private couple(network: Resistors): void {
    for (const { id } of this.box.cables) {
      const cores = this.box.conductors.filter(
        (conductor) => conductor.cableId === id && this.site.truth.has(conductor.id),
      );
      cores.forEach((core, at) => {
        network.resistor(`core:${core.id}`, 'E', 1.6 * this.coupling);
        for (const other of cores.slice(at + 1))
          network.resistor(`core:${core.id}`, `core:${other.id}`, this.coupling);
      });
    }
  }
}
