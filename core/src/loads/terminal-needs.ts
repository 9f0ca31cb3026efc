import type { Device } from '../job/schema/catalogue.js';
import { perObject } from '../units/kept.js';

/** What a device wants of the conductors at its place. */
export interface TerminalNeeds {
  line: boolean;
  load: boolean;
  neutral: boolean;
  travelers: number;
}

export const terminalNeeds = perObject((device: Device): TerminalNeeds => {
  const has = (role: string) =>
    device.terminals.some((terminal) => terminal.role === role && !terminal.optional);
  return { line: has('line'), load: has('load'), neutral: device.needs.neutral, travelers: 0 };
});

/**
 * Fed through the lamps: no neutral wanted and none to land, yet powered from the mains and switching a load.
 */
export function isTwoWire(device: Device): boolean {
  return (
    device.power !== 'battery' &&
    !device.needs.neutral &&
    device.terminals.some((terminal) => terminal.role === 'load') &&
    !device.terminals.some((terminal) => terminal.role === 'neutral')
  );
}
