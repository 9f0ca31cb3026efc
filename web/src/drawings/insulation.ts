import type { Colour } from '@inventario/core';

/** The real colours of insulation, as they look under a lamp. `unknown` is drawn as a dashed outline. */
export const INSULATION: Record<Colour, string> = {
  black: '#191b1d',
  white: '#f7f5ef',
  red: '#c4232c',
  blue: '#2160b5',
  brown: '#77472a',
  grey: '#8d9398',
  yellow: '#f2c81c',
  orange: '#e8791d',
  purple: '#6d3f97',
  pink: '#e79ab4',
  tan: '#cfae83',
  green: '#2d8745',
  'green-yellow': '#2d8745',
  bare: '#c5854a',
  unknown: 'transparent',
};
