import { type Job, profileOf, standardBoxes } from '@inventario/core';
import { FENNIMORE_DEVICES } from './fennimore.js';
import { HALVORN_DEVICES } from './halvorn.js';
import { OSKRA_DEVICES } from './oskra.js';
import { PELLWORTH_DEVICES } from './pellworth.js';
import { WRENLOCK_DEVICES } from './wrenlock.js';
import { ZINNET_DEVICES } from './zinnet.js';

type Catalogue = Job['catalogue'];

const twistOn = (id: string, conductors: number[], section: number[], mL: number, price: number) => ({
  id,
  kind: 'twist-on' as const,
  conductors,
  section,
  mL,
  price,
});
const lever = (ports: number, mL: number, price: number) => ({
  id: `lever-${ports}`,
  kind: 'lever' as const,
  conductors: [2, ports],
  section: [0.5, 4],
  ports,
  mL,
  price,
});
/** Plates for one to four gangs of each opening, in the shades of the makers. */
const plates = () =>
  (['tall', 'wide'] as const).flatMap((opening) =>
    [1, 2, 3, 4].map((gangs) => ({
      id: `plate-${opening}-${gangs}`,
      name: `Plate, ${opening} opening, ${gangs} gang`,
      kind: 'plate',
      price: 120 + 140 * gangs + (opening === 'wide' ? 60 : 0),
      gangs,
      opening,
      colours: ['white'],
    })),
  );

/** A catalogue of made-up devices in six families, new at every call. */
export function demoCatalogue(): Catalogue {
  return structuredClone({
    devices: [
      ...PELLWORTH_DEVICES,
      ...WRENLOCK_DEVICES,
      ...HALVORN_DEVICES,
      ...OSKRA_DEVICES,
      ...ZINNET_DEVICES,
      ...FENNIMORE_DEVICES,
    ],
    hubs: [
      {
        id: 'ha-hub',
        name: 'Halvorn Cairn',
        price: 6900,
        radio: 'mesh' as const,
        platforms: ['Orrery', 'Bellwether'],
        deviceLimit: 60,
        wired: true,
      },
      {
        id: 'wr-hub',
        name: 'Wrenlock Nest',
        price: 8900,
        radio: 'maker' as const,
        platforms: ['Orrery', 'Hearthside', 'Bellwether'],
        deviceLimit: 75,
        wired: true,
      },
      {
        id: 'os-hub',
        name: 'Oskra Relay Post',
        price: 5500,
        radio: 'subghz' as const,
        platforms: ['Orrery', 'Hearthside'],
        deviceLimit: 30,
        wired: false,
      },
    ],
    parts: [
      { id: 'wr-bypass', name: 'Wrenlock bypass', kind: 'bypass', price: 700, where: 'fitting' as const },
      { id: 'zi-bypass', name: 'Zinnet bypass', kind: 'bypass', price: 600, where: 'fitting' as const },
      {
        id: 'wr-steady',
        name: 'Wrenlock steady capacitor',
        kind: 'capacitor',
        price: 500,
        where: 'box' as const,
      },
      { id: 'pack-screws', name: 'Mounting screw from the package', kind: 'screws', price: 0 },
      {
        id: 'pack-twist',
        name: 'Medium twist-on from the package',
        kind: 'connector',
        price: 0,
        connectorId: 'twist-medium',
      },
      ...plates(),
      {
        id: 'bulb-glow',
        name: 'Halvorn Glow bulb',
        kind: 'bulb',
        price: 1400,
        where: 'fitting' as const,
        bulbFamily: 'halvorn glow',
        fullColour: true,
      },
      {
        id: 'bulb-ember',
        name: 'Wrenlock Ember bulb',
        kind: 'bulb',
        price: 1100,
        where: 'fitting' as const,
        bulbFamily: 'wrenlock ember',
        fullColour: false,
      },
      { id: 'ha-step', name: 'Halvorn mains repeater', kind: 'extender', price: 2400 },
      { id: 'pw-reach', name: 'Pellworth Wi-Fi extender', kind: 'extender', price: 3900 },
      {
        id: 'ring-16',
        name: 'Extension ring 5/8 in',
        kind: 'extension-ring',
        price: 450,
        in3: 6,
        depth: 16,
        where: 'box' as const,
      },
      {
        id: 'ring-38',
        name: 'Extension ring 1-1/2 in',
        kind: 'extension-ring',
        price: 980,
        in3: 13,
        depth: 38,
        where: 'box' as const,
      },
      {
        id: 'spacer-13',
        name: 'Plate spacer 13 mm',
        kind: 'extension-ring',
        price: 320,
        mL: 60,
        depth: 13,
        where: 'box' as const,
      },
    ],
    connectors: [
      twistOn('twist-small', [2, 3], [1.6, 4.2], 1.6, 12),
      twistOn('twist-medium', [2, 4], [2.6, 10], 3.1, 16),
      twistOn('twist-large', [2, 6], [4.1, 17], 6, 24),
      lever(2, 1.8, 45),
      lever(3, 2.6, 55),
      lever(5, 4.2, 80),
      {
        id: 'block-1',
        kind: 'terminal-block' as const,
        conductors: [2, 2],
        section: [0.5, 4],
        ports: 2,
        mL: 1.5,
        price: 30,
      },
    ],
    enclosures: standardBoxes(profileOf({ practice: 'us' })).map((box) => ({
      ...box,
      price: 140 + Math.round(22 * (box.in3 ?? 0)),
    })),
    platforms: [
      {
        name: 'Orrery',
        matching: 'tolerant' as const,
        groupsByRoom: true,
        phrasePerAction: false,
        reserved: ['everything'],
      },
      {
        name: 'Hearthside',
        matching: 'exact' as const,
        groupsByRoom: true,
        phrasePerAction: false,
        reserved: [],
      },
      {
        name: 'Bellwether',
        matching: 'tolerant' as const,
        groupsByRoom: false,
        phrasePerAction: true,
        reserved: [],
      },
    ],
  });
}
