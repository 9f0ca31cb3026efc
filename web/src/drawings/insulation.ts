import type { Colour } from '@inventario/core';

/** Tone and writing of the board, as the theme has them for everything drawn on it. */
export const BOARD = '#7f8380';
export const DARK = '#0c0e10';

/**
 * The real colours of insulation, as they look under a lamp, the code written on each conductor, and what it
 * is written in.
 */
export const INSULATION: Record<Colour, { fill: string; code: string; ink: string }> = {
  black: { fill: '#191b1d', code: 'BK', ink: '#ffffff' },
  white: { fill: '#f7f5ef', code: 'WH', ink: DARK },
  red: { fill: '#c4232c', code: 'RD', ink: '#ffffff' },
  blue: { fill: '#2160b5', code: 'BU', ink: '#ffffff' },
  brown: { fill: '#77472a', code: 'BN', ink: '#ffffff' },
  grey: { fill: '#a3a9ae', code: 'GY', ink: DARK },
  yellow: { fill: '#f2c81c', code: 'YE', ink: DARK },
  orange: { fill: '#e8791d', code: 'OG', ink: DARK },
  purple: { fill: '#6d3f97', code: 'VT', ink: '#ffffff' },
  pink: { fill: '#e79ab4', code: 'PK', ink: DARK },
  tan: { fill: '#cfae83', code: 'TN', ink: DARK },
  green: { fill: '#2d8745', code: 'GN', ink: '#ffffff' },
  'green-yellow': { fill: '#2d8745', code: 'G/Y', ink: '#ffffff' },
  bare: { fill: '#c5854a', code: 'bare', ink: DARK },
  unknown: { fill: BOARD, code: '?', ink: DARK },
};
