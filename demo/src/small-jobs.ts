import { type Job, newJob } from '@inventario/core';
import { demoCatalogue } from './catalogue/index.js';
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
    ],
    boxes: WHERRY.map((plan, index) => surveyed(plan, index + 1, 'gb')),
  };
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

/** A small job with modular plates: one live and neutral in, a wire for each load. */
export function saffronTerrace(): Job {
  return {
    ...newJob('saffron-terrace-3', 'Saffron Terrace, flat 3', 'modular', undefined, demoCatalogue()),
    circuits: [{ id: 's1', panel: 'Hall', breaker: '2', label: 'Lights and fans', amps: 6, volts: 230 }],
    rooms: [
      { id: 'lounge', name: 'Lounge', floor: 3, order: 1 },
      { id: 'bath', name: 'Bath', floor: 3, order: 2 },
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
    ],
    boxes: SAFFRON.map((plan, index) => surveyed(plan, index + 1, 'modular')),
  };
}
