import { describe, expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { moved } from './by-hand.js';
import { Costs } from './cost.js';
import { dayOf } from './day.js';
import { boxesFed } from './feeds.js';
import { recordedMinutes } from './learned.js';
import { minutesOf, sumOf } from './minutes.js';
import { planOf } from './plan-day.js';
import { bestSheet, movedSheet, runSheet } from './run-sheet.js';
import { batchInHand, boxesAside } from './site-record.js';

const sheetOf = (job: Job) => runSheet(lookup(job));
const boxesOf = (job: Job) => sheetOf(job).batches.map(({ boxIds }) => boxIds);

function sailLoft(change: (job: Job) => void = () => undefined): Job {
  const job = exampleJob('sail-loft');
  change(job);
  return job;
}

describe('the run sheet', () => {
  test('what is mounted, and what nothing is chosen for, is not on it', () => {
    const job = sailLoft((job) => {
      job.events.push({ id: 'm1', kind: 'mounted', boxId: 'door', at: '2026-05-04T09:00:00Z' });
      for (const selection of job.selections) if (selection.boxId === 'bench') selection.deviceId = null;
    });
    expect(boxesOf(job).flat().sort()).toEqual(['foot', 'head', 'rack']);
    job.events.push({ id: 'k1', kind: 'correction', of: 'm1' });
    expect(boxesOf({ ...job, events: [...job.events] }).flat()).toContain('door');
  });

  test('boxes of a group go together, even where they are more than may be open', () => {
    const job = sailLoft((job) => {
      job.run = { ...job.run, openAtOnce: 1 };
    });
    expect(boxesOf(job).map((boxIds) => [...boxIds].sort())).toEqual(
      expect.arrayContaining([['foot', 'head'], ['door'], ['rack'], ['bench']]),
    );
  });

  test('a box is fed through others, and through what passes unbroken', () => {
    const fed = boxesFed(lookup(sailLoft()));
    expect([...(fed.get('door') ?? [])]).toContain('rack');
    expect([...(fed.get('rack') ?? [])]).not.toContain('door');
  });

  test('the sum of minutes takes shared trips once; dark is less than the whole', () => {
    const sheet = sheetOf(sailLoft());
    const each = sheet.batches.reduce((sum, { minutes }) => sum + minutes, 0);
    const shared = sheet.batches.reduce((sum, { panelTrips }) => sum + panelTrips, 0) - sheet.panelTrips;
    expect(shared).toBe(1);
    expect(sheet.minutes).toBe(each - 3 * shared);
    expect(sheet.times.at(-1)?.to).toBe(sheet.minutes);
    for (const time of sheet.times) {
      expect(time.dark).toBeGreaterThan(0);
      expect(time.dark).toBeLessThan(time.to - time.from);
    }
  });

  test('two installers: each box in one pair of hands, and the day is shorter but not halved', () => {
    const alone = sheetOf(sailLoft());
    const two = sheetOf(
      sailLoft((job) => {
        job.run = { ...job.run, installers: 2 };
      }),
    );
    two.times.forEach(({ hands }, at) => {
      expect(hands).toHaveLength(2);
      expect(hands.flat().sort()).toEqual([...(two.batches[at]?.boxIds ?? [])].sort());
    });
    const [one, both] = [alone.times.at(-1)?.to ?? 0, two.times.at(-1)?.to ?? 0];
    expect(both).toBeLessThan(one);
    expect(both).toBeGreaterThan(one / 2);
    expect(two.minutes).toBe(alone.minutes);
  });

  test('a batch with the router comes first, and pairing after it', () => {
    for (const circuit of ['s1', 's5']) {
      const sheet = sheetOf(
        sailLoft((job) => {
          job.brief = { ...job.brief, wifi: { routerCircuit: circuit } };
        }),
      );
      expect(sheet.batches.map(({ routerCircuits }) => routerCircuits)).toEqual([[circuit], []]);
      expect(sheet.pairing.afterBatch).toBe(0);
      expect(sheet.panelTrips).toBe(13);
    }
    expect(sheetOf(sailLoft()).pairing.afterBatch).toBeNull();
  });

  test('as somebody arranged it: what it costs more, and what it does not name comes by itself', () => {
    const job = sailLoft((job) => {
      job.run = { ...job.run, batches: [['door'], ['foot', 'bench'], ['gone']] };
    });
    expect(boxesOf(job)).toEqual([['door'], ['foot', 'head', 'bench'], ['rack']]);
    const [sheet, best] = [sheetOf(job), bestSheet(lookup(job))];
    expect(sheet.panelTrips).toBeGreaterThan(best.panelTrips);
    expect(sheet.lowerBound).toBe(best.panelTrips);
  });

  test('a move is told what it costs, and refused where one feeds another or too many are open', () => {
    const costs = new Costs(dayOf(lookup(sailLoft())));
    const numberOf = (boxId: string) => costs.day.units.findIndex(({ boxIds }) => boxIds.includes(boxId));
    const [pair, door, rack, bench] = ['foot', 'door', 'rack', 'bench'].map(numberOf) as [
      number,
      ...number[],
    ] &
      number[];
    const now = [
      [pair, door as number],
      [rack as number, bench as number],
    ];
    expect(moved(now, door as number, 1, costs).because).toBe('feeds');
    expect(moved(now, bench as number, 0, costs).because).toBe('too-many');
    const alone = moved(now, door as number, 2, costs);
    expect(alone.because).toBeNull();
    expect(alone.batches).toEqual([[pair], [rack, bench], [door]]);
    expect(planOf(alone.batches, costs).panelTrips).toBeGreaterThan(13);
  });
});

describe('a batch in hand', () => {
  const begun = (more: object[] = []): Job =>
    sailLoft((job) => {
      const batch = { id: 'b1', kind: 'batch', boxIds: ['door', 'foot', 'head'], at: '2026-05-04T09:00:00Z' };
      job.events = [...job.events, batch, ...(more as Job['events'])];
    });

  test('is no more on the sheet; the command line still counts it', () => {
    expect(boxesOf(begun()).flat().sort()).toEqual(['bench', 'rack']);
    expect(bestSheet(lookup(begun())).panelTrips).toBe(13);
  });

  test('what is put aside comes back, and a batch that is closed and tried is none', () => {
    const aside = {
      id: 'a1',
      kind: 'aside',
      boxId: 'door',
      note: 'a core is too short',
      at: '2026-05-04T10:00:00Z',
    };
    expect(
      boxesOf(begun([aside]))
        .flat()
        .sort(),
    ).toEqual(['bench', 'door', 'rack']);
    const done = ['door', 'foot', 'head'].flatMap((boxId, at) => [
      { id: `m${at}`, kind: 'mounted', boxId, at: '2026-05-04T11:00:00Z' },
      { id: `t${at}`, kind: 'tried', boxId, position: 1, result: 'works', at: '2026-05-04T11:10:00Z' },
    ]);
    expect(batchInHand(begun())?.boxIds).toEqual(['door', 'foot', 'head']);
    expect(batchInHand(begun([aside]))?.boxIds).toEqual(['foot', 'head']);
    expect(batchInHand(begun(done))).toBeNull();
    // What was tried and does not work is not done with.
    const fails = {
      id: 'f1',
      kind: 'tried',
      boxId: 'foot',
      position: 1,
      result: 'fails',
      at: '2026-05-04T11:20:00Z',
    };
    expect(batchInHand(begun([...done, fails]))?.boxIds).toEqual(['door', 'foot', 'head']);
    expect(batchInHand(begun(done.slice(0, -1)))?.boxIds).toEqual(['door', 'foot', 'head']);
    expect([...boxesAside(begun([aside]))]).toEqual([['door', 'a core is too short']]);
  });

  test('a box moved by hand is worked where it was put', () => {
    const known = lookup(sailLoft());
    const at = runSheet(known).batches.findIndex(({ boxIds }) => boxIds.includes('bench'));
    expect(movedSheet('door', at, known)?.because).toBe('feeds');
    const alone = movedSheet('bench', 2, known);
    expect(alone).toMatchObject({ because: null, moreTrips: expect.any(Number) });
    expect(alone?.moreTrips).toBeGreaterThan(0);
    expect(
      boxesOf(sailLoft((job) => Object.assign(job, { run: { ...job.run, batches: alone?.batches } }))),
    ).toEqual(alone?.batches);
    expect(movedSheet('nowhere', 0, known)).toBeNull();
  });
});

describe('times from the record', () => {
  const MINUTE = 60_000;
  const start = Date.parse('2026-05-04T08:00:00Z');
  const at = (minutes: number) => new Date(start + minutes * MINUTE).toISOString();

  /** A box worked in an hour, with a trip to the panel in it, while the bench was worked in between. */
  function worked(boxId: string): Job {
    return sailLoft((job) => {
      const events: [string, string | null, number][] = [
        ['switched', null, 0],
        ['proved', boxId, 4],
        ['wired', boxId, 10],
        ['proved', 'bench', 16],
        ['wired', boxId, 20],
        ['switched', null, 25],
        ['switched', null, 30],
        ['wired', boxId, 90],
        ['mounted', boxId, 100],
      ];
      events.forEach(([kind, about, minute], index) => {
        job.events.push({
          id: `w${index}`,
          kind,
          at: at(minute),
          ...(about === null ? { circuitId: 's1', state: 'off' } : { boxId: about }),
          ...(kind === 'wired' ? { step: `cap:${index}` } : {}),
        });
      });
    });
  }

  test('what lies before an entry belongs to its box; a trip and a long pause to none', () => {
    expect([...recordedMinutes({ job: worked('foot') })]).toEqual([['foot', 4 + 6 + 4 + 10]]);
  });

  test('replace the times for planning, for boxes of that kind alone', () => {
    const manner = { needsCheck: false, testBeforeFold: true };
    const minutes = (job: Job, id: string) =>
      sumOf(minutesOf(job.boxes.find((box) => box.id === id) as Box, lookup(job), manner));
    expect(minutes(worked('foot'), 'head')).toBeCloseTo(24);
    expect(minutes(worked('foot'), 'bench')).toBe(minutes(sailLoft(), 'bench'));
    expect(minutes(sailLoft(), 'head')).toBeGreaterThan(24);
  });
});
