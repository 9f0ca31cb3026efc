import { describe, expect, test } from '@jest/globals';
import { lookup } from '../../job/lookup.js';
import type { Load } from '../../job/schema/job.js';
import type { Box, Reading } from '../../job/schema/survey.js';
import { exampleJob } from '../../test-support/examples.js';
import { identifyBox } from '../identify.js';

type Made = Partial<Reading> & Pick<Reading, 'tool' | 'points' | 'value'>;

/** The pantry's box, device out, after these readings: what it says of one conductor. */
function after(readings: readonly Made[], id: string, lamps: Partial<Load> = {}) {
  const job = exampleJob('pantry');
  Object.assign(job.loads[0] as Load, lamps);
  const box: Box = {
    ...(job.boxes[0] as Box),
    readings: readings.map(
      (reading, at): Reading => ({
        id: `m${at}`,
        at: '2026-05-04T09:00:00Z',
        arrangement: 'device-out',
        position: 1,
        breakers: { c4: 'on' },
        ...reading,
      }),
    ),
  };
  const result = identifyBox(box, lookup({ ...job, boxes: [box] }));
  const { role, grade } = result.conductors.find((entry) => entry.id === id) ?? {};
  return `${role} ${grade}`;
}

const FEED = 'pantry-feed-black';
const NEUTRAL = 'pantry-feed-white';
const LAMPS = 'pantry-lamps-black';
const GROUND = 'pantry-feed-bare';
const [load] = exampleJob('pantry').loads;
const out = { loads: { [String(load?.id)]: 'out' as const } };
const off = { breakers: { c4: 'off' as const } };

const alert: Made = { tool: 'indicator', points: [FEED], value: 'alert' };
const lowZ: Made = { tool: 'volts-low-z', points: [FEED, 'reference'], value: 118 };
const lowZGone: Made = { ...lowZ, ...off, value: 0 };
const highZ: Made = { ...lowZ, tool: 'volts' };
const highZGone: Made = { ...highZ, ...off, value: 0 };
const toNeutral = (tool: 'volts' | 'volts-low-z', more: Partial<Reading> = {}): Made => ({
  tool,
  points: [FEED, NEUTRAL],
  value: 118,
  ...more,
});
const neutralOhms = (more: Partial<Reading> = {}): Made => ({
  tool: 'ohms',
  points: [NEUTRAL, 'reference'],
  value: 0.4,
  ...off,
  ...more,
});

describe('what each role asks for before it is confirmed', () => {
  test.each<[string, string, Made[], string]>([
    ['nothing read', FEED, [], 'line guess'],
    ['an indicator alone', FEED, [alert], 'line indicated'],
    ['low impedance, not seen gone', FEED, [lowZ], 'line indicated'],
    ['low impedance, gone with its breaker', FEED, [lowZ, lowZGone], 'line confirmed'],
    ['high impedance, gone with its breaker', FEED, [highZ, highZGone], 'line indicated'],
  ])('a line: %s', (_, id, readings, expected) => {
    expect(after(readings, id)).toBe(expected);
  });

  test.each<[string, Made[], string]>([
    ['a quiet indicator', [{ tool: 'indicator', points: [NEUTRAL], value: 'quiet' }], 'neutral indicated'],
    [
      'high-impedance volts from a confirmed line, loads out',
      [lowZ, lowZGone, toNeutral('volts', out)],
      'neutral indicated',
    ],
    [
      'low-impedance volts from a confirmed line, its load told to be on another net',
      [lowZ, lowZGone, toNeutral('volts-low-z')],
      'neutral confirmed',
    ],
    [
      'low-impedance volts from a confirmed line, loads out',
      [lowZ, lowZGone, toNeutral('volts-low-z', out)],
      'neutral confirmed',
    ],
    [
      'low-impedance volts from a line nobody confirmed, loads out',
      [toNeutral('volts-low-z', out)],
      'neutral indicated',
    ],
    ['at most 1 ohm to a known earth, loads out', [neutralOhms(out)], 'neutral confirmed'],
    [
      'at most 1 ohm to a known earth, its load told to be on another net',
      [neutralOhms()],
      'neutral confirmed',
    ],
    ['more than 1 ohm', [neutralOhms({ ...out, value: 1.4 })], 'neutral indicated'],
  ])('a neutral: %s', (_, readings, expected) => {
    expect(after(readings, NEUTRAL)).toBe(expected);
  });

  test.each<[string, Made[], string]>([
    ['nothing read', [], 'ground guess'],
    [
      'at most 1 ohm to a known earth',
      [{ tool: 'ohms', points: [GROUND, 'reference'], value: 0.5, ...off }],
      'ground confirmed',
    ],
    [
      'more than 1 ohm to it',
      [{ tool: 'ohms', points: [GROUND, 'reference'], value: 3, ...off }],
      'ground indicated',
    ],
  ])('a ground: %s', (_, readings, expected) => {
    expect(after(readings, GROUND)).toBe(expected);
  });

  test.each<[string, Made[], string]>([
    // Two black cores: which is which nobody can say before a reading.
    ['nothing read', [], 'line guess'],
    ['quiet on the indicator', [{ tool: 'indicator', points: [LAMPS], value: 'quiet' }], 'load indicated'],
    ['dead ohms alone', [{ tool: 'ohms', points: [LAMPS, NEUTRAL], value: 'open', ...off }], 'line guess'],
  ])('a load: %s', (_, readings, expected) => {
    expect(after(readings, LAMPS)).toBe(expected);
  });

  test('lamps that are nearly a closed switch when cold are not told from a neutral by ohms', () => {
    // 1600 W of filaments at 120 V are 0.75 ohm cold: not five times the reading.
    const bank = { kind: 'resistive', count: 16, wattsEach: 100 } as const;
    expect(after([neutralOhms()], NEUTRAL, bank)).toBe('neutral indicated');
    expect(after([neutralOhms(out)], NEUTRAL, bank)).toBe('neutral confirmed');
  });
});
