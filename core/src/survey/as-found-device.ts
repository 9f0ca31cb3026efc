import type { Device, Terminal } from '../job/schema/catalogue.js';
import type { PracticeId } from '../job/schema/primitives.js';
import { profileOf } from '../practice/profiles.js';

/**
 * What one sees of an old smart device in a box: the mark beside each terminal, and what it is for where that
 * can be read.
 */
export interface FoundTerminal {
  id: string;
  mark: string;
  role: Terminal['role'];
}

/** The terminals most old smart switches have; others are added, and what cannot be read stays out. */
export const USUAL_FOUND_TERMINALS: readonly FoundTerminal[] = [
  { id: 'L', mark: 'L', role: 'line' },
  { id: 'LD', mark: 'LOAD', role: 'load' },
  { id: 'N', mark: 'N', role: 'neutral' },
  { id: 'G', mark: 'G', role: 'ground' },
  { id: 'T', mark: 'T', role: 'traveler' },
];

/**
 * The record of a smart device that is in no catalogue, as it was found in a box. It is made for no practice,
 * so that no plan ever buys it; body and form of its terminals are the usual ones until somebody measures
 * them.
 */
export function asFoundDevice(
  id: string,
  maker: string,
  model: string,
  terminals: readonly FoundTerminal[],
  practice: PracticeId,
): Device {
  const { from, to } = profileOf({ practice }).supply;
  const loads = terminals.filter(({ role }) => role === 'load');
  return {
    id,
    maker,
    model,
    family: 'as found',
    price: 0,
    practices: [],
    volts: [from, to],
    gangs: 1,
    mount: 'box',
    body: { width: 44, height: 68, depth: 38 },
    radio: 'none',
    platforms: [],
    terminals: terminals.map((terminal) => ({
      ...terminal,
      form: 'screw' as const,
      ...(terminal.role === 'load'
        ? { channel: loads.findIndex((load) => load.id === terminal.id) + 1 }
        : {}),
    })),
    needs: { neutral: terminals.some(({ role }) => role === 'neutral'), ground: 'none' },
    channels: loads.map((_, at) => ({ id: at + 1, kind: 'relay' as const, ratings: [] })),
  };
}
