import { describe, expect, test } from '@jest/globals';
import type { Device } from '../job/schema/catalogue.js';
import { bestFirst, stoppedBy } from './best-first.js';
import type { Candidate } from './candidate.js';

describe('devices in order of suitability', () => {
  const device = (id: string, price: number) => ({ id, price }) as Device;
  const devices = new Map(
    [device('dear', 90), device('cheap', 10), device('part', 5), device('never', 1)].map((entry) => [
      entry.id,
      entry,
    ]),
  );
  const way = (
    deviceId: string,
    strategy: Candidate['strategy'],
    verdict: Candidate['verdict'],
    ...codes: string[]
  ): Candidate => ({
    deviceId,
    strategy,
    verdict,
    with: [],
    partners: [],
    reasons: codes.map((code) => ({
      rule: 'fill',
      code,
      outcome: verdict === 'no' ? 'block' : 'note',
      facts: {},
    })),
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
      [
        way('never', 'module', 'no', 'body.not-a-module'),
        way('never', 'single', 'no', 'fill.over', 'depth.too-deep'),
      ],
      devices,
    );
    expect(row?.best.strategy).toBe('single');
    const [both] = bestFirst(
      [way('dear', 'linked', 'unproved'), way('dear', 'both-ends', 'fits'), way('dear', 'module', 'no', 'x')],
      devices,
    );
    expect([both?.best.strategy, both?.others.map((other) => other.strategy)]).toEqual([
      'both-ends',
      ['linked'],
    ]);
  });

  test('rules by how many devices each stops, a way that is none for its device left out', () => {
    expect(
      stoppedBy([
        way('dear', 'single', 'no', 'fill.over'),
        way('dear', 'linked', 'no', 'fill.over'),
        way('cheap', 'single', 'no', 'fill.over'),
        way('part', 'module', 'no', 'body.not-a-module'),
        way('never', 'single', 'unproved', 'fill.not-read'),
      ]),
    ).toEqual([{ rule: 'fill', devices: 2 }]);
  });
});
