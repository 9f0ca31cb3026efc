import { type Box, type Device, newBox, presetContents } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import type { JudgedDevice } from '../data/engines.worker.js';
import { bestFirst } from './choose/best-first.js';
import { moneyText } from './choose/money-text.js';
import { nextUntold } from './survey/next-untold.js';

describe('devices in order of suitability', () => {
  const device = (id: string, price: number) => ({ id, price }) as Device;
  const devices = new Map(
    [device('dear', 90), device('cheap', 10), device('part', 5), device('never', 1)].map((entry) => [entry.id, entry]),
  );
  const way = (
    deviceId: string,
    strategy: JudgedDevice['strategy'],
    verdict: JudgedDevice['verdict'],
    ...codes: string[]
  ): JudgedDevice => ({
    deviceId,
    strategy,
    verdict,
    with: [],
    partners: [],
    reasons: codes.map((code) => ({ rule: 'fill', code, outcome: verdict === 'no' ? 'block' : 'note', text: code })),
  });

  test('fits before fits-with before not proved before no; then the cheaper', () => {
    const rows = bestFirst(
      [
        way('never', 'single', 'no', 'fill.over'),
        way('dear', 'single', 'fits'),
        way('part', 'single', 'fits-with'),
        way('cheap', 'single', 'fits'),
      ],
      devices,
    );
    expect(rows.map((row) => row.device.id)).toEqual(['cheap', 'dear', 'part', 'never']);
  });

  test('a device that goes nowhere is shown by the way that tells most, and possible ways beside the best are offered', () => {
    const [row] = bestFirst(
      [way('never', 'module', 'no', 'body.not-a-module'), way('never', 'single', 'no', 'fill.over', 'depth.too-deep')],
      devices,
    );
    expect(row?.best.strategy).toBe('single');
    const [both] = bestFirst(
      [way('dear', 'linked', 'unproved'), way('dear', 'both-ends', 'fits'), way('dear', 'module', 'no', 'x')],
      devices,
    );
    expect([both?.best.strategy, both?.others.map((other) => other.strategy)]).toEqual(['both-ends', ['linked']]);
  });
});

test('the next conductor to tell goes round once and leaves grounds by colour alone', () => {
  let serial = 0;
  const box: Box = { ...newBox('b', 'r', 'B', 1, 'us', []), ...presetContents('power-at-switch', 'us', '14AWG', [], () => `c${++serial}`) };
  const order = box.conductors;
  const walked: string[] = [];
  let current: Box = box;
  for (let at: string | undefined = order[3]?.id; at; at = nextUntold(order, current, at)) {
    walked.push(at);
    current = { ...current, labels: [...current.labels, { conductorId: at, role: 'line' }] };
  }
  const colours = walked.map((id) => order.find((conductor) => conductor.id === id)?.colour);
  expect(colours).toEqual(['black', 'white', 'black', 'white']);
});

test('money', () => {
  expect([moneyText(3900, 'USD'), moneyText(5, undefined)]).toEqual(['39.00 USD', '0.05']);
});
