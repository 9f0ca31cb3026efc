import type { JobLookup } from '../../job/lookup.js';
import type { ToHave, ToHaveCode } from '../../runsheet/before-leaving.js';
import { plural } from '../../units/plural.js';
import { lengthText, type UnitSystem } from '../../units/present.js';
import { connectorWords } from './connectors.js';

type Says = (item: ToHave, known: JobLookup, units: UnitSystem) => string;

const terminals = ({ count }: ToHave) => plural(count, 'terminal');

const SAYS: Record<ToHaveCode, Says> = {
  tester: () => 'Two-pole tester, fresh batteries, tried on a known source',
  meter: () => 'Meter with clip leads',
  headlamp: () => 'Headlamp: the light goes off with the breaker',
  'hand-tools': () => 'Strippers, pliers, cutter, level',
  labels: ({ count }) => `Labels and flags for ${plural(count, 'box', 'boxes')}`,
  painted: () => 'Knife, to score old paint around the plates',
  'screw-drive': (item) => `Drivers for screw terminals: ${terminals(item)}`,
  'clamp-drive': (item) => `Fine driver for clamps: ${terminals(item)}`,
  'push-in': (item) => `Narrow blade for push-in terminals: ${terminals(item)}`,
  strip: (item, _, units) => `Strip to ${lengthText(Number(item.what), units)}: ${terminals(item)}`,
  connector: ({ connector, count }, known) => `${count} × ${connectorWords(connector ?? null, known)}`,
  ladder: ({ count }) => `Ladder: ${plural(count, 'module')} at the fitting`,
  'spare-plate': ({ count }) => `Plates for ${plural(count, 'device')}, and a spare of each kind`,
  'phone-system': () => 'The client’s phone: its system is recent enough, and it is charged',
  'maker-app': ({ what, count }) => `${what}’s app is installed: ${plural(count, 'device')}`,
  'maker-account': ({ what }) => `An account with ${what}, and who holds it`,
  'mail-code': () => 'The mail in which codes come is open on the phone',
  'wifi-password': () => 'The network’s name and password are at hand, as they are typed',
  'hub-first': ({ what }, known) => {
    const hub = known.job.catalogue.hubs.find(({ id }) => id === what);
    return `${hub?.name ?? 'The hub'} is placed and powered before its devices`;
  },
  'tell-dark': () => 'Who is without light, and when, as the batches say',
  'clear-way': () => 'The way to the panel and to every box is clear',
  'old-device': ({ count }) => `${plural(count, 'old device')} to be taken out of its app`,
  'router-dark': () => 'The router goes dark for a while: calls and work at home',
};

/** What is to be packed, checked or told, as one line. */
export const toHaveText: Says = (item, known, units) => SAYS[item.code](item, known, units);
