import type { FunctionCheck } from '../../diagnose/function-test.js';
import { listed } from './stops.js';

const SAYS: Record<FunctionCheck['code'], (what: readonly string[]) => string> = {
  breaker: () => 'The breaker holds, and nothing is warm, crackles or smells',
  indicator: () => 'Its light shows what is drawn, or what the maker says of a new device',
  wall: (what) => `From the wall it works ${what.length > 0 ? listed(what) : 'its load'}: on, and off again`,
  each: (what) => `Each key works its own: ${listed(what)}`,
  dims: () => 'It dims down and up, without flicker and without going out',
  sensor: (what) => `Its sensor answers (${listed(what)}): give it its trigger, and wait out its time`,
  socket: (what) => `A plug-in load runs in ${listed(what)}`,
  far: () => 'The other place of this light works it, in each of its positions',
  neighbours: () => 'What else hangs on this box works as before',
};

/** What is looked at when a device is tried. */
export const functionCheckText = ({ code, what }: FunctionCheck): string => SAYS[code](what);
