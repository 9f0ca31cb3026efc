import type { Device } from './schema/catalogue.js';
import type { ExistingDevice, Position } from './schema/survey.js';

/** Terminals of a device that nobody recognises, in the order they are found. */
export const UNRECOGNISED: readonly string[] = ['u1', 'u2', 'u3', 'u4'];

/**
 * The terminals of the devices found in boxes, in the order they are drawn. The first list is what the device
 * usually shows; every device may have a `ground`, and terminals nobody recognised are `u1` to `u4`.
 */
const TERMINALS: Record<Exclude<ExistingDevice, 'smart'>, readonly string[]> = {
  'single-pole': ['a', 'b'],
  timer: ['a', 'b'],
  sensor: ['a', 'b'],
  'double-pole': ['a1', 'b1', 'a2', 'b2'],
  'double-single-pole': ['a1', 'b1', 'a2', 'b2'],
  'three-way': ['common', 't1', 't2'],
  'four-way': ['t1', 't2', 't3', 't4'],
  dimmer: ['a', 'b', 'common', 't1', 't2'],
  'fan-control': ['a', 'b', 'common', 't1', 't2'],
  'fan-light': ['line', 'fan', 'light'],
  receptacle: ['hot', 'hot2', 'neutral', 'neutral2'],
  blank: [],
  none: [],
};

/** Terminal ids of what is fitted at a position; a smart device brings its own from the catalogue. */
export function existingTerminals(position: Position, devices: ReadonlyMap<string, Device>): string[] {
  if (position.existing === 'smart')
    return devices.get(position.deviceId ?? '')?.terminals.map((terminal) => terminal.id) ?? [];
  const own = TERMINALS[position.existing];
  return own.length === 0 ? [] : [...own, 'ground'];
}

/**
 * Every terminal a conductor may be recorded on: those the device usually shows, its ground, and any that
 * nobody recognises.
 */
export function recordableTerminals(position: Position, devices: ReadonlyMap<string, Device>): string[] {
  const own = existingTerminals(position, devices);
  if (own.length === 0 && position.existing !== 'smart') return [];
  return [...new Set([...own, 'ground', ...UNRECOGNISED])];
}

export function isKnownTerminal(
  position: Position,
  terminal: string,
  devices: ReadonlyMap<string, Device>,
): boolean {
  return (
    existingTerminals(position, devices).includes(terminal) ||
    terminal === 'ground' ||
    UNRECOGNISED.includes(terminal)
  );
}
