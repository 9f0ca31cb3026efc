import type { LoadKind } from '../job/schema/primitives.js';

/** Loads that give light. */
export const LAMP_KINDS: ReadonlySet<LoadKind> = new Set([
  'led',
  'resistive',
  'fluorescent',
  'magnetic',
  'electronic',
  'smart-bulb',
]);
