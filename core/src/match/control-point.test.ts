import { describe, expect, test } from '@jest/globals';
import { sentence } from '../findings/words/reasons.js';
import { lookup } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { ControlPoint, Job } from '../job/schema/job.js';
import { exampleJob } from '../test-support/examples.js';
import { judgeControlPoint } from './control-point.js';

const judge = (
  targets: ControlPoint['targets'],
  change: (job: Job, control: Device) => void = () => {},
  more: Partial<ControlPoint> = {},
) => {
  const job = exampleJob('shed');
  const control: Device = {
    ...(job.catalogue.devices[0] as Device),
    id: 'knob',
    mount: 'surface',
    power: 'battery',
    batteryYears: 5,
    radio: 'mesh',
    hubId: 'ha-hub',
    terminals: [],
    channels: [],
    bulbController: true,
    bulbFamilies: ['glow'],
  };
  job.catalogue.devices.push(control);
  change(job, control);
  const judged = judgeControlPoint(
    { id: 'cp', roomId: 'shed-room', name: 'By the bed', deviceId: 'knob', targets, ...more },
    lookup(job),
  );
  for (const reason of judged.reasons) expect(sentence(reason, 'us')).not.toMatch(/undefined/);
  return [judged.verdict, ...judged.reasons.map((reason) => reason.code)];
};
const YARD = { boxId: 'shed', position: 2 };
const BENCH = { boxId: 'shed', position: 1 };

describe('a control without a box', () => {
  test('reaches a device on its hub, and not one on Wi-Fi', () => {
    expect(judge([YARD])).toEqual(['fits', 'control-point.battery']);
    expect(judge([YARD, BENCH])).toEqual(['no', 'control-point.cannot-reach', 'control-point.battery']);
  });
  test('reaches a device that names it as its partner, whatever the hub', () => {
    const named = judge([BENCH], (job) => {
      (job.catalogue.devices[0] as Device).multiLocation = [
        { strategy: 'tie-through', partnerIds: ['knob'] },
      ];
    });
    expect(named[0]).toBe('fits');
  });
  test('reaches bulbs of its family; several things at once', () => {
    const bulbs = (family: string | undefined) => (job: Job) => {
      Object.assign(job.loads[0] as object, {
        kind: 'smart-bulb',
        ...(family ? { bulbFamily: family } : {}),
      });
    };
    expect(judge([{ loadId: 'bench-light' }, YARD], bulbs('glow'))[0]).toBe('fits');
    expect(judge([{ loadId: 'bench-light' }], bulbs('other'))).toContain('bulb-family.other');
    expect(judge([{ loadId: 'bench-light' }], bulbs(undefined))).toContain('bulb-family.unknown');
    expect(judge([{ loadId: 'bench-light' }])).toContain('bulb-family.plain-lamps');
  });
  test('says what is left open, and what the way of fixing it asks for', () => {
    expect(judge([])).toEqual(['unproved', 'control-point.no-target', 'control-point.battery']);
    expect(judge([YARD], (job) => Object.assign(job, { selections: [] }))).toContain(
      'control-point.nothing-chosen',
    );
    expect(judge([YARD], undefined, { mounting: 'over-switch' })).toContain('control-point.left-on');
    expect(judge([YARD], undefined, { mounting: 'extra-gang' })).toContain('control-point.wider-plate');
    expect(judge([YARD], undefined, { deviceId: 'none' })).toEqual(['no', 'control-point.no-device']);
    expect(
      judge([YARD], (_, control) =>
        Object.assign(control, { terminals: [{ id: 'L', role: 'line', form: 'lead' }] }),
      ),
    ).toContain('control-point.wants-wires');
  });
});
