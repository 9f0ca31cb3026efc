import { type Job, newJob } from '@inventario/core';
import { demoCatalogue } from './catalogue/index.js';
import { CopperBox, common, load } from './copper.js';
import { type BoxPlan, surveyed } from './survey-maker.js';

const WHERRY: BoxPlan[] = [
  {
    id: 'parlour-door',
    roomId: 'parlour',
    name: 'Parlour, door',
    circuitId: 'w1',
    enclosure: {
      material: 'metal',
      grounded: true,
      capacity: { from: 'standard', enclosureId: 'gb-1-35' },
      depth: 35,
    },
    preset: 'live-looped',
    loadId: 'parlour-light',
  },
  {
    id: 'bedroom-door',
    roomId: 'bedroom',
    name: 'Bedroom, door',
    circuitId: 'w2',
    enclosure: {
      material: 'metal',
      grounded: true,
      capacity: { from: 'standard', enclosureId: 'gb-1-16' },
      depth: 16,
      setBack: 5,
    },
    preset: 'ceiling-drop',
    loadId: 'bedroom-light',
  },
  {
    id: 'landing-top',
    roomId: 'landing',
    name: 'Landing, top',
    circuitId: 'w2',
    enclosure: {
      material: 'metal',
      grounded: true,
      capacity: { from: 'standard', enclosureId: 'gb-1-25' },
      depth: 25,
    },
    preset: 'two-way-three-core',
    loadId: 'landing-light',
  },
];

/** A small British job: drops without neutral, a live looped at the switch, one end of a two-way. */
export function wherryCottage(): Job {
  return {
    ...newJob('wherry-cottage', 'Wherry Cottage', 'gb', undefined, demoCatalogue()),
    circuits: [
      {
        id: 'w1',
        panel: 'Under the stairs',
        breaker: '3',
        label: 'Lights down',
        amps: 6,
        volts: 230,
        protection: 'rcd',
      },
      {
        id: 'w2',
        panel: 'Under the stairs',
        breaker: '4',
        label: 'Lights up',
        amps: 6,
        volts: 230,
        protection: 'rcd',
      },
    ],
    rooms: [
      { id: 'parlour', name: 'Parlour', floor: 0, order: 1 },
      { id: 'landing', name: 'Landing', floor: 1, order: 2 },
      { id: 'bedroom', name: 'Bedroom', floor: 1, order: 3 },
    ],
    loads: [
      {
        id: 'parlour-light',
        name: 'Parlour light',
        roomId: 'parlour',
        kind: 'led',
        count: 3,
        wattsEach: 6,
        dimmable: true,
      },
      {
        id: 'bedroom-light',
        name: 'Bedroom light',
        roomId: 'bedroom',
        kind: 'resistive',
        count: 1,
        wattsEach: 40,
        dimmable: true,
      },
      { id: 'landing-light', name: 'Landing light', roomId: 'landing', kind: 'led', count: 1, wattsEach: 8 },
      load('larder-light', 'Larder light', 'parlour', { kind: 'resistive', count: 1, wattsEach: 40 }),
      load('back-stairs-light', 'Back stairs light', 'landing', {
        kind: 'resistive',
        count: 1,
        wattsEach: 60,
      }),
    ],
    boxes: [
      ...WHERRY.map((plan, index) => surveyed(plan, index + 1, 'gb')),
      larderLoop().box(4),
      ...twoWayByConversion().map((box, index) => box.box(5 + index)),
    ],
    groups: [
      {
        id: 'back-stairs',
        loadIds: ['back-stairs-light'],
        places: [
          { boxId: 'stairs-foot', position: 1 },
          { boxId: 'stairs-top', position: 1 },
        ],
      },
    ],
    selections: [
      { boxId: 'larder-door', position: 1, deviceId: 'zi-drop-tie', strategy: 'single', with: [] },
      { boxId: 'stairs-foot', position: 1, deviceId: 'zi-drop-tie', strategy: 'tie-through', with: [] },
      { boxId: 'stairs-top', position: 1, deviceId: null, strategy: 'tie-through', with: [] },
    ],
  };
}

/** The live looped in and out at the switch: three conductors on one clamp. */
function larderLoop(): CopperBox {
  const box = new CopperBox('larder-door', 'parlour', 'Larder, door', ['w1'], 'gb');
  const position = box.position('single-pole', ['larder-light']);
  const [hot, switched] = ['a', 'b'].map((terminal) => ({ position, terminal }));
  box.feed('w1', hot ?? {});
  box.onward('w1', hot ?? {});
  box.lamp('w1', ['larder-light'], switched ?? {});
  return box;
}

/** Commons linked, line and switched live on the outer terminals of the first, and on to the second. */
function twoWayByConversion(): [CopperBox, CopperBox] {
  const foot = new CopperBox('stairs-foot', 'landing', 'Back stairs, foot', ['w2'], 'gb');
  const top = new CopperBox('stairs-top', 'landing', 'Back stairs, top', ['w2'], 'gb');
  for (const box of [foot, top]) box.position('three-way', ['back-stairs-light']);
  const at = (terminal: string) => ({ position: 1, terminal });
  const loadIds = ['back-stairs-light'];
  const drop = foot.cable('drop');
  foot.core(drop, 'line', at('t1'), { circuitId: 'w2' });
  foot.core(drop, 'load', at('t2'), { loadIds, colour: 'blue' });
  foot.core(drop, 'ground', foot.joint('ground'));
  const [one, other] = [foot.cable(), top.cable()];
  foot.core(one, 'line-on', at('t1'), { circuitId: 'w2', colour: 'brown' });
  top.core(other, 'line', at('t1'), { circuitId: 'w2', colour: 'brown' });
  for (const [box, cable] of [
    [foot, one],
    [top, other],
  ] as const) {
    box.core(cable, 'load', at('t2'), { loadIds, colour: 'grey' });
    box.core(cable, 'traveler', common(1), { groupId: 'back-stairs', traveler: 1, colour: 'black' });
    box.core(cable, 'ground', box.joint('ground'));
  }
  return [foot, top];
}

const SAFFRON: BoxPlan[] = [
  {
    id: 'lounge-plate',
    roomId: 'lounge',
    name: 'Lounge plate',
    circuitId: 's1',
    enclosure: { capacity: { from: 'standard', enclosureId: 'mod-4' }, depth: 45, gangs: 4 },
    preset: 'module-wire',
    loadId: 'lounge-tube',
    need: { dim: 'no' },
  },
  {
    id: 'bath-plate',
    roomId: 'bath',
    name: 'Bath plate',
    circuitId: 's1',
    enclosure: { capacity: { from: 'standard', enclosureId: 'mod-2' }, depth: 45, gangs: 2 },
    preset: 'module-wire',
    loadId: 'bath-fan',
    need: { dim: 'no' },
  },
];

/** Light, fan and a socket that is fed always, on one plate: live and neutral loop from module to module. */
function studyPlate(): CopperBox {
  const box = new CopperBox('study-plate', 'study', 'Study plate', ['s1'], 'modular');
  const at = (position: number, terminal: string) => ({ position, terminal });
  box.position('single-pole', ['study-light'], { gang: 1, width: 1 });
  box.position('fan-control', ['study-fan'], { gang: 2, width: 2 });
  box.position('receptacle', [], { gang: 4, width: 2, need: {} });
  const cable = box.cable('mains');
  box.core(cable, 'line', box.joint('l'), { circuitId: 's1', colour: 'red' });
  box.core(cable, 'neutral', box.joint('n'), { circuitId: 's1', colour: 'black' });
  box.core(cable, 'ground', at(3, 'ground'), { colour: 'green' });
  for (const terminal of [at(1, 'a'), at(2, 'a'), at(3, 'hot')]) box.tail(box.joint('l'), terminal);
  box.tail(box.joint('n'), at(3, 'neutral'));
  const wires = box.cable('to the ceiling');
  box.core(wires, 'load', at(1, 'b'), { loadIds: ['study-light'], colour: 'yellow' });
  box.core(wires, 'load', at(2, 'b'), { loadIds: ['study-fan'], colour: 'blue' });
  return box;
}

/** A small job with modular plates: one live and neutral in, a wire for each load. */
export function saffronTerrace(): Job {
  return {
    ...newJob('saffron-terrace-3', 'Saffron Terrace, flat 3', 'modular', undefined, demoCatalogue()),
    circuits: [{ id: 's1', panel: 'Hall', breaker: '2', label: 'Lights and fans', amps: 6, volts: 230 }],
    rooms: [
      { id: 'lounge', name: 'Lounge', floor: 3, order: 1 },
      { id: 'bath', name: 'Bath', floor: 3, order: 2 },
      { id: 'study', name: 'Study', floor: 3, order: 3 },
    ],
    loads: [
      {
        id: 'lounge-tube',
        name: 'Lounge tube',
        roomId: 'lounge',
        kind: 'fluorescent',
        count: 1,
        wattsEach: 40,
      },
      { id: 'bath-fan', name: 'Bath fan', roomId: 'bath', kind: 'exhaust-fan', count: 1, wattsEach: 40 },
      load('study-light', 'Study light', 'study', { count: 2 }),
      load('study-fan', 'Study fan', 'study', { kind: 'fan-ac', count: 1, wattsEach: 55 }),
    ],
    boxes: [
      ...SAFFRON.map((plan, index) => surveyed(plan, index + 1, 'modular')),
      studyPlate().box(3, {
        gangs: 6,
        capacity: { from: 'standard', enclosureId: 'mod-6' },
        depth: 48,
      }),
    ],
    selections: [
      { boxId: 'study-plate', position: 1, deviceId: 'fe-pass', strategy: 'single', with: [] },
      { boxId: 'study-plate', position: 2, deviceId: 'fe-fan-pass', strategy: 'single', with: [] },
    ],
  };
}
