import type {
  Colour,
  ConnectorKind,
  ExistingDevice,
  LoadKind,
  Radio,
  Role,
  Strategy,
} from '../terms/trade.js';

/** The trade's words where they differ by practice; everything a sentence needs is looked up here. */
export interface Words {
  practice: string;
  roles: Record<Role, string>;
  ground: string;
  /** The letter it is marked with. */
  groundMark: string;
  existing: Record<ExistingDevice, string>;
  gang: string;
  circuitBreaker: string;
}

/** The words where no practice has its own. */
export const USUAL_WORDS: Omit<Words, 'practice'> = {
  roles: {
    line: 'line',
    'switched-line': 'switched line',
    'line-on': 'line on',
    load: 'load',
    neutral: 'neutral',
    ground: 'ground',
    traveler: 'traveler',
    spare: 'spare',
    unknown: 'not labelled',
  },
  ground: 'ground',
  groundMark: 'G',
  existing: {
    'single-pole': 'single-pole switch',
    'double-pole': 'double-pole switch',
    'double-single-pole': 'two switches on one yoke',
    'three-way': 'three-way switch',
    'four-way': 'four-way switch',
    dimmer: 'dimmer',
    'fan-control': 'fan control',
    'fan-light': 'fan and light control',
    timer: 'timer',
    sensor: 'sensor switch',
    receptacle: 'receptacle',
    smart: 'smart device',
    blank: 'blank',
    none: 'nothing fitted',
  },
  gang: 'gang',
  circuitBreaker: 'breaker',
};

/** Those of Britain, and of practices that grew from hers. */
export const BRITISH_WORDS: Omit<Words, 'practice'> = {
  ...USUAL_WORDS,
  roles: {
    ...USUAL_WORDS.roles,
    line: 'permanent live',
    'switched-line': 'live from another switch',
    'line-on': 'live out',
    load: 'switched live',
    ground: 'earth',
    traveler: 'strapper',
  },
  ground: 'earth',
  groundMark: 'E',
  existing: {
    ...USUAL_WORDS.existing,
    'single-pole': 'one-way switch',
    'double-single-pole': 'two-switch plate',
    'three-way': 'two-way switch',
    'four-way': 'intermediate switch',
    receptacle: 'socket',
  },
};

export const LOAD_WORDS: Record<LoadKind, string> = {
  led: 'LED lamps',
  resistive: 'filament lamps',
  heater: 'heater',
  fluorescent: 'fluorescent tubes',
  magnetic: 'magnetic transformer',
  electronic: 'electronic transformer',
  'fan-ac': 'AC fan',
  'fan-dc': 'DC fan',
  'fan-remote': 'fan with its own remote',
  'exhaust-fan': 'exhaust fan',
  receptacle: 'receptacle',
  'smart-bulb': 'smart bulbs',
  shade: 'shade',
  motor: 'motor',
};

export const STRATEGY_WORDS: Record<Strategy, string> = {
  single: 'on its own',
  'both-ends': 'a smart device at both ends',
  'keep-mechanical': 'smart here, the other switch stays',
  companion: 'main device with a companion',
  'tie-through': 'the far switch is tied through',
  'bulb-controller': 'bulbs on constant power',
  module: 'a module at the fitting',
  linked: 'linked by the hub',
};

export const CONNECTOR_WORDS: Record<ConnectorKind, string> = {
  'twist-on': 'twist-on',
  lever: 'lever connector',
  'terminal-block': 'terminal block',
  crimp: 'crimp',
};

export const RADIO_WORDS: Record<Radio, string> = {
  wifi: 'Wi-Fi',
  mesh: 'mesh',
  subghz: 'sub-GHz',
  maker: 'maker’s own radio',
  ble: 'Bluetooth LE',
  none: 'no radio',
};

export const COLOUR_WORDS: Record<Colour, string> = {
  black: 'black',
  white: 'white',
  red: 'red',
  blue: 'blue',
  brown: 'brown',
  grey: 'grey',
  yellow: 'yellow',
  orange: 'orange',
  purple: 'purple',
  pink: 'pink',
  tan: 'tan',
  green: 'green',
  'green-yellow': 'green-yellow',
  bare: 'bare',
  unknown: 'colour unknown',
};
