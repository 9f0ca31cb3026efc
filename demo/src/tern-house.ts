import { type At, type Job, newJob, type Run } from '@inventario/core';
import { demoCatalogue } from './catalogue/index.js';
import { CopperBox, common, type LinkCore, linked, load, travelersOf } from './copper.js';

/** Where two three-way switches share a light: their boxes, and the run between. */
interface Pair {
  boxes: CopperBox[];
  runs: Run[];
}

const at = (position: number, terminal: string) => ({ position, terminal });

/**
 * A house where every box is labelled and chosen, and each is wired another way: what the Wire screen has to
 * show, once each. One of them cannot be ready, and says why.
 */
export function ternHouse(): Job {
  const pairs = [companionStair(), tiedCellar(), heardLanding(), whiteAgain(), threePlaces()];
  const boxes = [...singleBoxes(), ...pairs.flatMap((pair) => pair.boxes)];
  const job = newJob('tern-house', 'Tern House', 'us', undefined, demoCatalogue());
  return {
    ...job,
    brief: { ...job.brief, platforms: [], hubsOwned: ['os-hub', 'ha-hub', 'wr-hub'] },
    circuits: ['1', '2', '3', '4'].map((breaker, index) => ({
      id: `t${breaker}`,
      panel: 'Cellar',
      breaker,
      label: ['Ground floor', 'Stairs', 'Workroom A', 'Workroom B'][index] ?? '',
      amps: 15,
      volts: 120,
      leg: index % 2 === 0 ? ('A' as const) : ('B' as const),
      ...(index > 1 ? { sharesNeutralWith: [index === 2 ? 't4' : 't3'], commonTrip: true } : {}),
    })),
    rooms: [
      { id: 'ground-floor', name: 'Ground floor', floor: 0, order: 1 },
      { id: 'workroom', name: 'Workroom', floor: 0, order: 2 },
      { id: 'stairs', name: 'Stairs', floor: 1, order: 3 },
    ],
    loads: LOADS,
    boxes: boxes.map((box, index) => box.box(index + 1, METAL.has(box.id) ? { material: 'metal' } : {})),
    runs: [porchRun, ...pairs.flatMap((pair) => pair.runs)],
    groups: GROUPS,
    selections: SELECTIONS,
  };
}

/** A steel box that nothing was bonded to: the plan bonds it. */
const METAL: ReadonlySet<string> = new Set(['larder']);

const LOADS: Job['loads'] = [
  load('hall-light', 'Hall light', 'ground-floor'),
  load('porch-light', 'Porch light', 'ground-floor'),
  load('sink-light', 'Sink light', 'ground-floor'),
  load('stove-light', 'Stove light', 'ground-floor'),
  load('table-light', 'Table light', 'ground-floor'),
  load('larder-light', 'Larder light', 'ground-floor', { count: 1, wattsEach: 6 }),
  load('snug-lamp', 'Snug lamps', 'ground-floor', { kind: 'resistive', count: 2, wattsEach: 40 }),
  load('snug-socket', 'Snug reading socket', 'ground-floor', { kind: 'receptacle', count: 1, wattsEach: 60 }),
  load('bench-a', 'Bench light', 'workroom'),
  load('bench-b', 'Vice light', 'workroom'),
  load('work-fan', 'Ceiling fan', 'workroom', { kind: 'fan-ac', count: 1, wattsEach: 60, speeds: 3 }),
  load('work-lamp', 'Fan lamp', 'workroom'),
  load('glow', 'Window bulbs', 'workroom', { kind: 'smart-bulb', bulbFamily: 'halvorn glow' }),
  load('kiln-lamp', 'Kiln lamp', 'workroom'),
  load('shelf-light', 'Shelf light', 'workroom'),
  load('store-light', 'Store light', 'workroom'),
  load('stair-light', 'Stair lights', 'stairs', { kind: 'resistive', count: 2, wattsEach: 40 }),
  load('cellar-light', 'Cellar lights', 'stairs'),
  load('landing-light', 'Landing lights', 'stairs'),
  load('attic-light', 'Attic lights', 'stairs'),
  load('long-light', 'Long passage lights', 'stairs'),
];

const choose = (
  boxId: string,
  position: number,
  deviceId: string | null,
  strategy: Job['selections'][number]['strategy'] = 'single',
  parts: string[] = [],
): Job['selections'][number] => ({ boxId, position, deviceId, strategy, with: parts });

const SELECTIONS: Job['selections'] = [
  choose('hall', 1, 'pw-plain-15'),
  choose('kitchen', 1, 'pw-dim'),
  choose('kitchen', 2, 'ha-slate'),
  choose('kitchen', 3, 'pw-shallow'),
  choose('larder', 1, 'wr-strand', 'single', ['wr-bypass']),
  choose('snug', 1, 'wr-notice', 'single', ['wr-steady']),
  choose('reading', 1, 'pw-socket'),
  choose('work-door', 1, 'ha-plain'),
  choose('work-door', 2, 'ha-plain'),
  choose('work-fan-switch', 1, 'os-breeze'),
  choose('work-window', 1, 'ha-turn', 'bulb-controller'),
  choose('work-kiln', 1, 'os-apart'),
  choose('work-store', 1, 'ha-plain'),
  choose('work-shelf', 1, 'ha-tuck', 'module'),
  choose('stair-low', 1, 'os-comp', 'companion'),
  choose('stair-high', 1, 'os-main', 'companion'),
  choose('cellar-top', 1, 'wr-full-s', 'tie-through'),
  choose('cellar-foot', 1, null, 'tie-through'),
  choose('landing-near', 1, 'os-hears', 'keep-mechanical'),
  choose('landing-far', 1, null, 'keep-mechanical'),
  choose('attic-low', 1, 'pw-pair', 'both-ends'),
  choose('attic-high', 1, 'pw-pair', 'both-ends'),
  choose('long-west', 1, 'ha-twofold', 'both-ends'),
  choose('long-middle', 1, 'ha-far', 'both-ends'),
  choose('long-east', 1, 'ha-far', 'both-ends'),
];

const GROUPS: Job['groups'] = [
  group('stair', ['stair-light'], ['stair-low', 'stair-high']),
  group('cellar', ['cellar-light'], ['cellar-top', 'cellar-foot']),
  group('landing', ['landing-light'], ['landing-near', 'landing-far']),
  group('attic', ['attic-light'], ['attic-low', 'attic-high']),
  group('long', ['long-light'], ['long-west', 'long-middle', 'long-east']),
];

function group(id: string, loadIds: string[], boxIds: string[]): Job['groups'][number] {
  return { id, loadIds, places: boxIds.map((boxId) => ({ boxId, position: 1 })) };
}

/** Two under one screw: the porch hangs on the hall's line. */
const hall = new CopperBox('hall', 'ground-floor', 'Hall', ['t1']);
const porch = new CopperBox('porch', 'ground-floor', 'Porch', ['t1']);
const porchRun = ((): Run => {
  const index = hall.position('single-pole', ['hall-light']);
  hall.feed('t1', at(index, 'a'));
  const onward = hall.onward('t1', at(index, 'a'), 'porch feed');
  hall.lamp('t1', ['hall-light'], at(index, 'b'));
  const there = porch.position('single-pole', ['porch-light'], { need: {} });
  const cable = porch.cable('hall feed');
  const cores = [
    porch.core(cable, 'line', at(there, 'a'), { circuitId: 't1' }),
    porch.core(cable, 'neutral', porch.joint('n:t1'), { circuitId: 't1' }),
    porch.core(cable, 'ground', porch.joint('ground')),
  ];
  porch.lamp('t1', ['porch-light'], at(there, 'b'));
  return {
    id: 'hall-porch',
    ends: [
      { boxId: 'hall', cableId: onward.cable },
      { boxId: 'porch', cableId: cable },
    ],
    pairs: onward.cores.map((core, which): [string, string] => [core, cores[which] ?? '']),
    known: 'seen',
  };
})();

function singleBoxes(): CopperBox[] {
  return [
    hall,
    porch,
    kitchen(),
    larder(),
    snug(),
    reading(),
    workDoor(),
    workFan(),
    workWindow(),
    workKiln(),
    workStore(),
    workShelf(),
  ];
}

/** Three devices on one feed that runs on: a bundle no connector takes, leads beside screws. */
function kitchen(): CopperBox {
  const box = new CopperBox('kitchen', 'ground-floor', 'Kitchen', ['t1']);
  box.feed('t1', box.joint('l'));
  box.onward('t1', box.joint('l'));
  for (const lamp of ['sink-light', 'stove-light', 'table-light']) {
    const index = box.position('single-pole', [lamp]);
    box.tail(box.joint('l'), at(index, 'a'));
    box.lamp('t1', [lamp], at(index, 'b'));
  }
  return box;
}

/** A loop without a neutral, nobody knows which side is the line: leads that go either way, and a bypass. */
function larder(): CopperBox {
  const box = new CopperBox('larder', 'ground-floor', 'Larder', ['t1']);
  const index = box.position('single-pole', ['larder-light']);
  const cable = box.cable();
  box.core(cable, null, at(index, 'a'), { colour: 'white' });
  box.core(cable, null, at(index, 'b'), { colour: 'black' });
  box.core(cable, 'ground', at(index, 'ground'));
  return box;
}

/** A capacitor in the box beside a two-wire device. */
function snug(): CopperBox {
  const box = new CopperBox('snug', 'ground-floor', 'Snug', ['t1']);
  const lamp = box.position('single-pole', ['snug-lamp']);
  box.feed('t1', at(lamp, 'a'));
  box.lamp('t1', ['snug-lamp'], at(lamp, 'b'));
  return box;
}

/** A socket elsewhere, one half fed always and one by the switch, over three cores. */
function reading(): CopperBox {
  const box = new CopperBox('reading', 'ground-floor', 'Snug, reading corner', ['t1']);
  const index = box.position('single-pole', ['snug-socket']);
  box.feed('t1', box.joint('l'));
  box.tail(box.joint('l'), at(index, 'a'));
  const cable = box.cable('socket');
  box.core(cable, 'line-on', box.joint('l'), { circuitId: 't1' });
  box.core(cable, 'load', at(index, 'b'), { loadIds: ['snug-socket'], colour: 'red' });
  box.core(cable, 'neutral', box.joint('n:t1'), { circuitId: 't1' });
  box.core(cable, 'ground', box.joint('ground'));
  return box;
}

/** Two circuits on one neutral: it is never carried through a device. */
function workDoor(): CopperBox {
  const box = new CopperBox('work-door', 'workroom', 'Workroom, door', ['t3', 't4']);
  const first = box.position('single-pole', ['bench-a']);
  const second = box.position('single-pole', ['bench-b']);
  const cable = box.cable();
  box.core(cable, 'line', at(first, 'a'), { circuitId: 't3' });
  box.core(cable, 'line', at(second, 'a'), { circuitId: 't4', colour: 'red' });
  box.core(cable, 'neutral', box.joint('n:t3'), { circuitId: 't3' });
  box.core(cable, 'ground', box.joint('ground'));
  box.lamp('t3', ['bench-a'], at(first, 'b'));
  box.lamp('t3', ['bench-b'], at(second, 'b'));
  return box;
}

/** A fan and its lamp on two wires, from one device. */
function workFan(): CopperBox {
  const box = new CopperBox('work-fan-switch', 'workroom', 'Workroom, fan', ['t3']);
  const index = box.position('fan-light', ['work-fan', 'work-lamp']);
  box.feed('t3', at(index, 'line'));
  const cable = box.cable();
  box.core(cable, 'load', at(index, 'fan'), { loadIds: ['work-fan'], colour: 'black' });
  box.core(cable, 'load', at(index, 'light'), { loadIds: ['work-lamp'], colour: 'red' });
  box.core(cable, 'neutral', box.joint('n:t3'), { circuitId: 't3' });
  box.core(cable, 'ground', box.joint('ground'));
  return box;
}

/** Bulbs on constant power, a dial on the wall. */
function workWindow(): CopperBox {
  const box = new CopperBox('work-window', 'workroom', 'Workroom, window', ['t3']);
  const index = box.position('dimmer', ['glow']);
  box.feed('t3', at(index, 'a'));
  box.lamp('t3', ['glow'], at(index, 'b'));
  return box;
}

/** A double device: one contact of the device's own line, one that switches another circuit. */
function workKiln(): CopperBox {
  const box = new CopperBox('work-kiln', 'workroom', 'Workroom, kiln', ['t3', 't1']);
  const index = box.position('double-single-pole', ['kiln-lamp', 'store-light']);
  box.feed('t3', at(index, 'a1'));
  box.feed('t1', at(index, 'a2'));
  box.lamp('t3', ['kiln-lamp'], at(index, 'b1'));
  box.lamp('t1', ['store-light'], at(index, 'b2'));
  return box;
}

/** A loop that brought no neutral, and a device that wants one: it cannot be ready. */
function workStore(): CopperBox {
  const box = new CopperBox('work-store', 'workroom', 'Workroom, store', ['t3']);
  const index = box.position('single-pole', ['store-light']);
  const cable = box.cable();
  box.core(cable, 'line', at(index, 'a'), { circuitId: 't3', colour: 'white' });
  box.core(cable, 'load', at(index, 'b'), { loadIds: ['store-light'] });
  box.core(cable, 'ground', box.joint('ground'));
  box.core(cable, 'spare', { capped: true }, { colour: 'red' });
  return box;
}

/** A module at the fitting: here line and load are joined. */
function workShelf(): CopperBox {
  const box = new CopperBox('work-shelf', 'workroom', 'Workroom, shelf', ['t3']);
  const index = box.position('single-pole', ['shelf-light']);
  box.feed('t3', at(index, 'a'));
  box.lamp('t3', ['shelf-light'], at(index, 'b'));
  return box;
}

const pair = (id: string, names: [string, string]): [CopperBox, CopperBox] => [
  new CopperBox(`${id}-${names[0]}`, 'stairs', `${capital(id)}, ${names[0]}`, ['t2']),
  new CopperBox(`${id}-${names[1]}`, 'stairs', `${capital(id)}, ${names[1]}`, ['t2']),
];
const capital = (text: string) => text.slice(0, 1).toUpperCase() + text.slice(1);

/** Feed below, lamp above: a companion below, its signal over one traveler, the line over the other. */
function companionStair(): Pair {
  const [low, high] = pair('stair', ['low', 'high']);
  const places: [number, number] = [
    low.position('three-way', ['stair-light']),
    high.position('three-way', ['stair-light']),
  ];
  low.feed('t2', common(1));
  high.lamp('t2', ['stair-light'], common(1));
  const run = linked(
    'stair-run',
    [low, high],
    [
      ...travelersOf('stair', places, ['red', 'black']),
      {
        roles: ['neutral', 'neutral'],
        at: [low.joint('n:t2'), high.joint('n:t2')],
        told: { circuitId: 't2' },
      },
    ],
  );
  return { boxes: [low, high], runs: [run] };
}

/** The far place is tied through, and carries the load back. */
function tiedCellar(): Pair {
  const [top, foot] = pair('cellar', ['top', 'foot']);
  const places: [number, number] = [
    top.position('three-way', ['cellar-light']),
    foot.position('three-way', ['cellar-light']),
  ];
  top.feed('t2', common(1));
  foot.lamp('t2', ['cellar-light'], common(1));
  const run = linked(
    'cellar-run',
    [top, foot],
    [
      ...travelersOf('cellar', places, ['red', 'black']),
      {
        roles: ['neutral', 'neutral'],
        at: [top.joint('n:t2'), foot.joint('n:t2')],
        told: { circuitId: 't2' },
      },
    ],
  );
  return { boxes: [top, foot], runs: [run] };
}

/** Line and lamp at one end; the far switch stays, and is heard over a traveler. */
function heardLanding(): Pair {
  const [near, far] = pair('landing', ['near', 'far']);
  const places: [number, number] = [
    near.position('three-way', ['landing-light']),
    far.position('three-way', ['landing-light'], { need: {} }),
  ];
  near.feed('t2', near.joint('l'));
  near.lamp('t2', ['landing-light'], common(1));
  const run = linked(
    'landing-run',
    [near, far],
    [
      ...travelersOf('landing', places, ['red', 'white']),
      { roles: ['line-on', 'line'], at: [near.joint('l'), common(1)], told: { circuitId: 't2' } },
    ],
  );
  return { boxes: [near, far], runs: [run] };
}

/** Both ends want a neutral and no core brings one to the far end: the white traveler becomes one again. */
function whiteAgain(): Pair {
  const [low, high] = pair('attic', ['low', 'high']);
  for (const box of [low, high]) box.position('three-way', ['attic-light']);
  low.feed('t2', low.joint('l'));
  low.lamp('t2', ['attic-light'], common(1));
  const run = linked(
    'attic-run',
    [low, high],
    [
      {
        roles: ['traveler', 'traveler'],
        at: [at(1, 't1'), at(1, 't1')],
        told: { groupId: 'attic', traveler: 1, colour: 'red' },
      },
      // Labelled a neutral at both ends: that is what the installer makes of it.
      { roles: ['neutral', 'neutral'], at: [at(1, 't2'), at(1, 't2')], told: { circuitId: 't2' } },
      { roles: ['line-on', 'line'], at: [low.joint('l'), common(1)], told: { circuitId: 't2' } },
    ],
  );
  return { boxes: [low, high], runs: [run] };
}

/** Three places: the four-way in the middle goes, and a companion comes there too. */
function threePlaces(): Pair {
  const west = new CopperBox('long-west', 'stairs', 'Long passage, west', ['t2']);
  const middle = new CopperBox('long-middle', 'stairs', 'Long passage, middle', ['t2']);
  const east = new CopperBox('long-east', 'stairs', 'Long passage, east', ['t2']);
  west.position('three-way', ['long-light']);
  middle.position('four-way', ['long-light']);
  east.position('three-way', ['long-light']);
  west.feed('t2', west.joint('l'));
  west.lamp('t2', ['long-light'], common(1));
  return {
    boxes: [west, middle, east],
    runs: [
      passage('long-run-1', [west, middle], ['t1', 't2'], middle.joint('l')),
      passage('long-run-2', [middle, east], ['t3', 't4'], common(1)),
    ],
  };
}

/** A length of the passage: two travelers from these terminals, the neutral, and the line carried on. */
function passage(id: string, [from, to]: [CopperBox, CopperBox], leaving: [string, string], line: At): Run {
  const travelers = leaving.map(
    (terminal, which): LinkCore => ({
      roles: ['traveler', 'traveler'],
      at: [at(1, terminal), at(1, `t${which + 1}`)],
      told: { groupId: 'long', traveler: which + 1, colour: which === 0 ? 'red' : 'blue' },
    }),
  );
  const told = { circuitId: 't2' };
  return linked(
    id,
    [from, to],
    [
      ...travelers,
      { roles: ['neutral', 'neutral'], at: [from.joint('n:t2'), to.joint('n:t2')], told },
      { roles: ['line-on', 'line'], at: [from.joint('l'), line], told },
    ],
  );
}
