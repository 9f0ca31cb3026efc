/**
 * The closed lists of the trade. The job's schemas, the practices and every engine are made of them; they
 * need no schema themselves, so that a worker which asks for a wire's size loads none.
 */
export const PRACTICES = ['us', 'ca', 'gb', 'modular'] as const;
export type PracticeId = (typeof PRACTICES)[number];

/** Editions of the counting rule, in a practice that has several. */
export const EDITIONS = ['2017', '2020', '2023'] as const;
export type Edition = (typeof EDITIONS)[number];

export const COLOURS = [
  'black',
  'white',
  'red',
  'blue',
  'brown',
  'grey',
  'yellow',
  'orange',
  'purple',
  'pink',
  'tan',
  'green',
  'green-yellow',
  'bare',
  'unknown',
] as const;
export type Colour = (typeof COLOURS)[number];

export const WIRE_SIZES = [
  '18AWG',
  '16AWG',
  '14AWG',
  '12AWG',
  '10AWG',
  '8AWG',
  '6AWG',
  '0.75mm2',
  '1.0mm2',
  '1.5mm2',
  '2.5mm2',
  '4.0mm2',
  '6.0mm2',
] as const;
export type WireSize = (typeof WIRE_SIZES)[number];

export const CONNECTOR_KINDS = ['twist-on', 'lever', 'terminal-block', 'crimp'] as const;
export type ConnectorKind = (typeof CONNECTOR_KINDS)[number];

export const RADIOS = ['wifi', 'mesh', 'subghz', 'maker', 'ble', 'none'] as const;
export type Radio = (typeof RADIOS)[number];

export const STRATEGIES = [
  'single',
  'both-ends',
  'keep-mechanical',
  'companion',
  'tie-through',
  'bulb-controller',
  'module',
  'linked',
] as const;
export type Strategy = (typeof STRATEGIES)[number];

export const LOAD_KINDS = [
  'led',
  'resistive',
  'heater',
  'fluorescent',
  'magnetic',
  'electronic',
  'fan-ac',
  'fan-dc',
  'fan-remote',
  'exhaust-fan',
  'receptacle',
  'smart-bulb',
  'shade',
  'motor',
] as const;
export type LoadKind = (typeof LOAD_KINDS)[number];

export const ROLES = [
  'line',
  'switched-line',
  'line-on',
  'load',
  'neutral',
  'ground',
  'traveler',
  'spare',
  'unknown',
] as const;
export type Role = (typeof ROLES)[number];

/** What can be fitted at a position. */
export const EXISTING_DEVICES = [
  'single-pole',
  'double-pole',
  'double-single-pole',
  'three-way',
  'four-way',
  'dimmer',
  'fan-control',
  'fan-light',
  'timer',
  'sensor',
  'receptacle',
  'smart',
  'blank',
  'none',
] as const;
export type ExistingDevice = (typeof EXISTING_DEVICES)[number];

export const LEGS = ['A', 'B', 'C'] as const;
export type Leg = (typeof LEGS)[number];

/** Protection beyond overcurrent. */
export const PROTECTIONS = ['none', 'gfci', 'afci', 'dual', 'rcd', 'rcbo'] as const;
export type Protection = (typeof PROTECTIONS)[number];

export const TOOLS = ['indicator', 'volts', 'volts-low-z', 'ohms', 'lamp', 'breaker'] as const;
export type Tool = (typeof TOOLS)[number];

/** Forms a device's terminal has. */
export const TERMINAL_FORMS = ['lead', 'screw', 'clamp', 'push-in'] as const;
export type TerminalForm = (typeof TERMINAL_FORMS)[number];
