import type { WireStep } from '../wire/steps.js';

/** A step of a wiring that is about nothing in particular. */
export const bareStep = (
  kind: WireStep['kind'],
  gate: WireStep['gate'] = 'open',
  key: string = kind,
): WireStep => ({
  key,
  kind,
  gate,
  ends: [],
  jointId: null,
  net: null,
  position: null,
  strip: null,
  stranded: [],
});
