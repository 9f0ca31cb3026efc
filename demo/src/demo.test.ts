import { readFileSync } from 'node:fs';
import {
  adoptParts,
  assessBoxes,
  bestSheet,
  homePlans,
  identifyBox,
  jobProgress,
  lookup,
  MATCH_RULES,
  matchJob,
  powerOf,
  readJobDocument,
  reduce,
  STAGES,
} from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { demoCatalogue, demoJobs, quillonPoint } from './index.js';

describe('the keeper’s house', () => {
  const job = quillonPoint();

  test('is a job file without problems, as large as promised', () => {
    expect(readJobDocument(job).problems).toEqual([]);
    expect(job.boxes.length).toBe(24);
    expect(job.rooms.length).toBe(10);
    expect(job.circuits.length).toBe(9);
  });

  test('has boxes due at every stage, and one that is done', () => {
    const boxes = jobProgress(job).flatMap((room) => room.boxes);
    for (const stage of STAGES) expect(boxes.map((box) => box.next)).toContain(stage);
    expect(boxes.map((box) => box.next)).toContain(null);
  });

  test('hides two contradictions, a box on two breakers and a stop finding', () => {
    const known = lookup(job);
    const conflicts = job.boxes.filter((box) =>
      identifyBox(box, known).conflicts.some((conflict) => conflict.open),
    );
    expect(conflicts.map((box) => box.id).sort()).toEqual(['bunk-door', 'loft-hatch']);
    expect(job.boxes.filter((box) => box.circuitIds.length > 1).map((box) => box.id)).toEqual(['lobby-door']);
    expect(
      powerOf(job)
        .boxes.filter(({ stops }) => stops.length > 0)
        .map(({ boxId }) => boxId),
    ).toEqual(['wash-fan']);
  });

  test('has boxes read through to confirmed roles', () => {
    const known = lookup(job);
    for (const id of ['loft-table', 'radio-shelf'])
      expect(identifyBox(known.boxes.get(id) as (typeof job.boxes)[number], known).summary).toEqual({
        line: 'confirmed',
        load: 'confirmed',
        neutral: 'confirmed',
        ground: 'confirmed',
      });
  });

  test('hides over-full boxes, the old small ones of steel', () => {
    expect(
      assessBoxes(job, 'planned')
        .filter((result) => result.verdict === 'over')
        .map((result) => result.boxId),
    ).toEqual(['kitchen-range', 'loft-hatch', 'wash-fan', 'oil-lamp']);
  });

  test('every surveyed and identified place has a device that fits, some only with a part', () => {
    const best = new Map(
      matchJob(job).map((place) => [place.boxId, new Set(place.devices.map((device) => device.verdict))]),
    );
    expect(best.get('radio-desk')).toContain('fits-with');
    for (const box of ['kitchen-door', 'stair-foot', 'stair-head', 'gallery-rail', 'boat-door', 'oil-fan'])
      expect([box, ...(best.get(box) ?? [])]).toContain('fits');
  });
});

test.each(demoJobs())('$id is a job file without problems, written out in demo/jobs', (made) => {
  expect(readJobDocument(made).problems).toEqual([]);
  const file = readFileSync(new URL(`../jobs/${made.id}.inventario.json`, import.meta.url), 'utf8');
  expect(JSON.parse(file)).toEqual(JSON.parse(JSON.stringify(made)));
});

test('between them the jobs, planned and with a router nearly full, meet every rule a device is judged by', () => {
  const met = new Set<string>();
  for (const job of demoJobs()) {
    const adopted = reduce(job, {
      parts: adoptParts(homePlans(job, ['fewest-families'])[0]?.choices ?? [], job),
    });
    const full = {
      ...job,
      brief: { ...job.brief, wifi: { ...job.brief?.wifi, clientsNow: 9, clientLimit: 9 } },
    };
    for (const house of [job, full, ...(adopted.ok ? [adopted.job] : [])])
      for (const { devices } of matchJob(house))
        for (const { reasons } of devices) for (const { rule } of reasons) met.add(rule);
  }
  expect(MATCH_RULES.filter((rule) => !met.has(rule))).toEqual([]);
});

test('a day’s houses, planned, are worked with at most 0.35 of the trips of box by box', () => {
  const quillon = quillonPoint();
  const adopted = reduce(quillon, {
    parts: adoptParts(homePlans(quillon, ['fewest-families'])[0]?.choices ?? [], quillon),
  });
  const tern = demoJobs().find(({ id }) => id === 'tern-house');
  for (const job of [adopted.ok ? adopted.job : null, tern ?? null]) {
    const { panelTrips, boxByBoxTrips, batches } = bestSheet(lookup(job as typeof quillon));
    expect(batches.length).toBeGreaterThan(2);
    expect(panelTrips / boxByBoxTrips).toBeLessThanOrEqual(0.35);
  }
});

test('the catalogue has at least 60 devices in six families, consistent in themselves', () => {
  const { devices } = demoCatalogue();
  expect(devices.length).toBeGreaterThanOrEqual(60);
  expect(new Set(devices.map((device) => device.family)).size).toBe(6);
  for (const device of devices) {
    const roles = device.terminals.map((terminal) => terminal.role);
    expect([device.id, device.needs.neutral]).toEqual([device.id, roles.includes('neutral')]);
    for (const channel of device.channels)
      expect([
        device.id,
        device.terminals.filter((terminal) => terminal.role === 'load' && terminal.channel === channel.id)
          .length,
      ]).toEqual([device.id, 1]);
  }
});
