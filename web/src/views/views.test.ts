import { type Box, type Job, ML_PER_IN3, moneyText, newBox } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import type { BoxReckoning } from '../data/engines.worker.js';
import { shownAs } from './figures/shown-as.js';
import { rowsByTrouble } from './fit/by-trouble.js';
import { breakersOf, newBench, readingOf } from './survey/hand/bench-state.js';

test('money', () => {
  expect([moneyText(3900, 'USD'), moneyText(5, undefined)]).toEqual(['$39.00', '0.05']);
});

describe('boxes by their trouble', () => {
  const reckoned = (
    boxId: string,
    used: number | null,
    capacity: number | null,
    needed: number,
    available: number | null,
  ): [string, BoxReckoning] => {
    const over = used !== null && capacity !== null && used > capacity;
    const result = {
      usedMl: used,
      capacityMl: capacity,
      verdict: over ? 'over' : 'ok',
      depth: {
        neededMm: needed,
        availableMm: available,
        verdict: available !== null && needed > available ? 'too-deep' : 'fits',
      },
      packing: { occupancy: capacity === null ? null : 0.4, verdict: 'comfortable' },
    };
    return [boxId, { boxId, planned: result, found: result } as unknown as BoxReckoning];
  };
  const boxes = ['full', 'deep', 'both', 'roomy', 'unread', 'gone'].map((id) =>
    newBox({ id, roomId: 'r', name: id, order: 1 }, 'us'),
  );
  const house = new Map([
    reckoned('full', 120, 100, 30, 60),
    reckoned('deep', 50, 100, 70, 60),
    reckoned('both', 150, 100, 70, 60),
    reckoned('roomy', 50, 100, 30, 60),
    reckoned('unread', null, null, 30, null),
  ]);

  test('more troubles first, then what is fullest; what the engines have not told yet is left out', () => {
    const rows = rowsByTrouble(boxes, house);
    expect(rows.map((row) => row.box.id)).toEqual(['both', 'full', 'deep', 'roomy', 'unread']);
    expect(rows.map((row) => row.troubles)).toEqual([['fill', 'depth'], ['fill'], ['depth'], [], []]);
  });

  test('what was not read is no share, never a nought', () => {
    const unread = rowsByTrouble(boxes, house).find((row) => row.box.id === 'unread');
    expect([unread?.fill, unread?.depth, unread?.packing]).toEqual([null, null, null]);
  });
});

test('a figure is shown in the units of the trade, and shares as per cent', () => {
  expect(shownAs('mL', 2.25 * ML_PER_IN3, 'inch')).toEqual({ shown: 2.25, unit: 'in³' });
  expect(shownAs('mL', 24.6, 'metric')).toEqual({ shown: 24.6, unit: 'mL' });
  expect(shownAs('share', 0.4, 'inch')).toEqual({ shown: 40, unit: '%' });
  expect(shownAs('count', 4, 'inch')).toEqual({ shown: 4, unit: '' });
});

describe('a reading takes its state from where it shows', () => {
  const box: Box = {
    ...newBox({ id: 'b', roomId: 'r', name: 'B', order: 1 }, 'us', ['c1']),
    positions: [
      { index: 1, existing: 'single-pole', loadIds: ['l1'] },
      { index: 2, existing: 'single-pole', loadIds: [] },
    ],
  };
  const what = {
    id: 'm',
    at: '2026-05-04T09:00:00Z',
    tool: 'volts-low-z' as const,
    points: ['w1', 'reference'],
    value: 119,
  };

  test('breakers of the box, and what else is off; a switch whose device is out has no state', () => {
    const bench = { ...newBench('test'), switches: { '1': 'on' as const, '2': 'off' as const } };
    const reading = readingOf(
      box,
      { arrangement: 'device-out', position: 1 },
      bench,
      { c1: 'on', c2: 'on', c3: 'off' },
      what,
    );
    expect(reading).toMatchObject({
      position: 1,
      breakers: { c1: 'on', c3: 'off' },
      switches: { '2': 'off' },
      method: 'clipped',
    });
  });

  test('what is lifted is told, else the conductor in hand; parted, no switch has a state; lamps out are named', () => {
    const stands = { arrangement: 'lifted' as const, position: null };
    const bench = { ...newBench('test'), held: 'w1', out: ['l1'] };
    expect(readingOf(box, stands, bench, {}, what)).toMatchObject({ lifted: ['w1'], loads: { l1: 'out' } });
    expect(readingOf(box, stands, bench, {}, { ...what, lifted: ['w2'] })).toMatchObject({ lifted: ['w2'] });
    expect(
      readingOf(
        box,
        { arrangement: 'parted', position: null },
        { ...newBench('test'), switches: { '2': 'on' } },
        {},
        what,
      ).switches,
    ).toEqual({});
  });

  test('a breaker nobody recorded stays unnamed', () => {
    const job = { circuits: [{ id: 'c1' }, { id: 'c2' }] } as unknown as Job;
    const power = [
      { circuitId: 'c1', state: 'on' as const, since: null },
      { circuitId: 'c2', state: 'unknown' as const, since: null },
      { circuitId: 'gone', state: 'off' as const, since: null },
    ];
    expect(breakersOf(job, power)).toEqual({ c1: 'on' });
  });
});
