import { describe, expect, test } from '@jest/globals';
import { additionParts } from '../commission/pairing/record.js';
import { deviceTasks } from '../commission/pairing/tasks.js';
import { boardRows } from '../findings/board-rows.js';
import { blockerText } from '../findings/words/progress.js';
import { putPart, removePart, setParts } from '../job/edit/parts.js';
import { reduce } from '../job/edit/reduce.js';
import { mountedBoxes } from '../job/events.js';
import { lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { circuitPower } from '../power/power.js';
import { signalAt } from '../radio/signal.js';
import { exampleJob } from '../test-support/examples.js';
import { boxProgress, jobProgress } from './progress.js';
import { STAGES } from './stages.js';
import { worstBlockers } from './worst-blockers.js';

const apply = (job: Job, parts: Parameters<typeof reduce>[1]['parts']): Job => {
  const result = reduce(job, { parts });
  if (!result.ok) throw new Error(JSON.stringify(result.refusal));
  return result.job;
};
const event = (job: Job, id: string, more: object) => apply(job, [putPart('event', id, { id, ...more })]);
const box = (job: Job) => job.boxes[0] as Box;
const nextOf = (job: Job) => boxProgress(box(job), lookup(job)).next;

describe('a box goes through its stages', () => {
  test('one after the other, each blocker gone by the finding that settles it', () => {
    let job = exampleJob('pantry');
    job = apply(job, [
      ...setParts('box', 'pantry', box(job), { labels: [], circuitIds: [] }),
      ...job.selections.map((entry) => removePart('selection', `${entry.boxId}/${entry.position}`)),
    ]);
    const bare = exampleJob('pantry');
    expect(nextOf(job)).toBe('surveyed');
    expect(boxProgress(box(job), lookup(job)).blockers.map(blockerText)).toContain('no circuit named');
    job = apply(job, setParts('box', 'pantry', box(job), { circuitIds: box(bare).circuitIds }));
    expect(nextOf(job)).toBe('identified');
    job = apply(
      job,
      setParts('box', 'pantry', box(job), {
        labels: box(bare).labels.length > 0 ? box(bare).labels : labelled(box(bare)),
      }),
    );
    expect(nextOf(job)).toBe('chosen');
    const [device] = job.catalogue.devices;
    job = apply(job, [
      putPart('selection', 'pantry/1', {
        boxId: 'pantry',
        position: 1,
        deviceId: device?.id,
        strategy: 'single',
        with: [],
      }),
    ]);
    expect(nextOf(job)).toBe('wired');
    job = event(job, 'e1', { kind: 'mounted', boxId: 'pantry', at: '2026-05-04T10:00:00Z' });
    expect(nextOf(job)).toBe('paired');
    for (const { channels } of deviceTasks(lookup(job)))
      for (const at of channels)
        job = apply(
          job,
          additionParts(
            at,
            { attempts: [{ id: `a${at.channel.id}`, at: '2026-05-04T10:05:00Z', outcome: 'joined' }] },
            () => `p${at.channel.id}`,
          ),
        );
    expect(nextOf(job)).toBeNull();
    job = event(job, 'e2', { kind: 'correction', of: 'e1' });
    expect(mountedBoxes(job)).toEqual(new Set());
    expect(nextOf(job)).toBe('wired');
  });

  function labelled(from: Box): Box['labels'] {
    return from.conductors
      .filter((conductor) => conductor.cableId)
      .map((conductor) => ({
        conductorId: conductor.id,
        role: conductor.colour === 'white' ? 'neutral' : 'line',
      }));
  }
});

test('the counts of the rooms add up to the boxes, and the board has a row for each', () => {
  const job = exampleJob('stairs');
  const known = lookup(job);
  const rooms = jobProgress(job);
  for (const stage of STAGES) expect(rooms.reduce((sum, room) => sum + room.counts[stage].of, 0)).toBe(2);
  const rows = boardRows(
    known,
    rooms.flatMap((room) => room.boxes),
  );
  expect(rows.map((row) => row.box).sort()).toEqual(job.boxes.map((entry) => entry.name).sort());
  expect(rows[0]).toMatchObject({
    devices: expect.stringContaining('1: '),
    identified: 'done',
    wired: 'due',
  });
});

test('faults come before waiting work, then the blocker of most boxes', () => {
  const job = exampleJob('galley');
  const boxes = jobProgress(job).flatMap((room) => room.boxes);
  expect(worstBlockers(boxes)[0]).toMatchObject({ code: 'over-full', boxIds: ['galley'] });
  expect(worstBlockers([])).toEqual([]);
});

test('power: the latest switching that was not corrected; on, where clock and order do not agree', () => {
  const job = exampleJob('pantry');
  const circuit = job.circuits[0]?.id ?? '';
  const state = (events: Job['events']) => circuitPower({ ...job, events })[0];
  const off = { id: 'e1', kind: 'switched', circuitId: circuit, state: 'off', at: '2026-05-04T09:00:00Z' };
  const on = { id: 'e2', kind: 'switched', circuitId: circuit, state: 'on', at: '2026-05-04T10:00:00Z' };
  expect(state([])).toEqual({ circuitId: circuit, state: 'unknown', since: null });
  expect(state([on, off])).toMatchObject({ state: 'on', since: on.at });
  expect(state([on, { ...off, at: '2026-05-04T11:00:00Z' }])).toMatchObject({ state: 'off' });
  expect(state([{ ...off, at: '2026-05-04T11:00:00Z' }, on])).toMatchObject({ state: 'on' });
  expect(state([off, on, { kind: 'correction', of: 'e2' }])).toMatchObject({ state: 'off', since: off.at });
});

describe('pairing', () => {
  test('every attempt is kept in one record a channel; a later one changes its state', () => {
    let job = exampleJob('pantry');
    const [device] = job.catalogue.devices;
    job = apply(job, [
      putPart('selection', 'pantry/1', {
        boxId: 'pantry',
        position: 1,
        deviceId: device?.id,
        strategy: 'single',
      }),
    ]);
    const attempt = (outcome: 'joined' | 'failed', id: string) => {
      const [at] = deviceTasks(lookup(job)).flatMap(({ channels }) => channels);
      const reason = outcome === 'failed' ? { reason: 'weak-signal' } : {};
      const attempts = [{ id, at: '2026-05-04T09:00:00Z', outcome, ...reason }];
      if (at)
        job = apply(
          job,
          additionParts(at, { attempts }, () => 'p1'),
        );
    };
    attempt('failed', 'a1');
    attempt('failed', 'a2');
    attempt('joined', 'a3');
    expect(job.pairings).toMatchObject([
      { id: 'p1', state: 'joined', attempts: [{ id: 'a1' }, { id: 'a2' }, { id: 'a3' }] },
    ]);
  });

  test('bars stand for a signal', () => {
    const job = exampleJob('pantry');
    expect(signalAt({ ...box(job), signal: { bars: 2 } })).toEqual({ bars: 2, rssi: -72, lost: 0 });
    expect(signalAt({ ...box(job), signal: undefined })).toBeNull();
  });
});
