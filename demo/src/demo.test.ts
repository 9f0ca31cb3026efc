import { readFileSync } from 'node:fs';
import { assessBoxes, jobProgress, matchJob, readJobDocument, STAGES } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { demoCatalogue, quillonPoint } from './index.js';

describe('the keeper’s house', () => {
  const job = quillonPoint();

  test('is a job file without problems, as large as promised', () => {
    expect(readJobDocument(job).problems).toEqual([]);
    expect(job.boxes.length).toBeGreaterThanOrEqual(8);
    expect(job.rooms.length).toBeGreaterThanOrEqual(5);
    expect(job.circuits.length).toBeGreaterThanOrEqual(4);
  });

  test('has boxes due at every stage, and one that is done', () => {
    const boxes = jobProgress(job).flatMap((room) => room.boxes);
    for (const stage of STAGES) expect(boxes.map((box) => box.next)).toContain(stage);
    expect(boxes.map((box) => box.next)).toContain(null);
  });

  test('hides an over-full box', () => {
    expect(
      assessBoxes(job, 'planned')
        .filter((result) => result.verdict === 'over')
        .map((result) => result.boxId),
    ).toEqual(['kitchen-range']);
  });

  test('every surveyed and identified place has a device that fits, some only with a part', () => {
    const best = new Map(matchJob(job).map((place) => [place.boxId, new Set(place.devices.map((device) => device.verdict))]));
    expect(best.get('radio-desk')).toContain('fits-with');
    for (const box of ['kitchen-door', 'stair-foot', 'stair-head', 'gallery-rail', 'boat-door', 'oil-fan'])
      expect([box, ...(best.get(box) ?? [])]).toContain('fits');
  });

  test('is written out as the file in demo/jobs', () => {
    const file = readFileSync(new URL('../jobs/quillon-point.inventario.json', import.meta.url), 'utf8');
    expect(JSON.parse(file)).toEqual(JSON.parse(JSON.stringify(job)));
  });
});

test('the catalogue has at least 24 devices in six families, consistent in themselves', () => {
  const { devices } = demoCatalogue();
  expect(devices.length).toBeGreaterThanOrEqual(24);
  expect(new Set(devices.map((device) => device.family)).size).toBe(6);
  for (const device of devices) {
    const roles = device.terminals.map((terminal) => terminal.role);
    expect([device.id, device.needs.neutral]).toEqual([device.id, roles.includes('neutral')]);
    for (const channel of device.channels)
      expect([
        device.id,
        device.terminals.filter((terminal) => terminal.role === 'load' && terminal.channel === channel.id).length,
      ]).toEqual([device.id, 1]);
  }
});
