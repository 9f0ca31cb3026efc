import { expect, test } from '@jest/globals';
import { clockAfter, durationText } from './duration.js';

test.each([
  [0, '0 min'],
  [40, '40 min'],
  [59.6, '1 h'],
  [60, '1 h'],
  [764, '12 h 44 min'],
])('%s minutes are %s', (minutes, text) => expect(durationText(minutes)).toBe(text));

test.each([
  ['08:00', 95, '09:35'],
  ['08:15', 0, '08:15'],
  ['22:30', 120, '00:30'],
])('%s and %s minutes are %s', (starts, minutes, text) => expect(clockAfter(starts, minutes)).toBe(text));
