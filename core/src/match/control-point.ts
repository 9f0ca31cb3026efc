import { deviceName } from '../catalogue/device-name.js';
import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { ControlPoint } from '../job/schema/job.js';
import { type Reason, type Verdict, verdictOf } from './reason.js';

export interface JudgedControl {
  id: string;
  verdict: Verdict;
  reasons: readonly Reason[];
}

/**
 * A control without a box of its own (stuck on the wall, in a further gang of a wider plate, over a switch
 * that is left on): whether it reaches everything it is meant to work. It reaches bulbs of its families,
 * devices on its hub, and those it is a partner of.
 */
export function judgeControlPoint(point: ControlPoint, known: JobLookup): JudgedControl {
  const device = known.devices.get(point.deviceId);
  if (!device)
    return { id: point.id, verdict: 'no', reasons: [reason('control-point.no-device', 'block', {})] };
  const reasons: Reason[] = [];
  if (device.terminals.length > 0) reasons.push(reason('control-point.wants-wires', 'block', {}));
  if (point.targets.length === 0) reasons.push(reason('control-point.no-target', 'unproved', {}));
  for (const target of point.targets) reasons.push(...targetReasons(device, target, known));
  if (point.mounting === 'over-switch') reasons.push(reason('control-point.left-on', 'note', {}));
  if (point.mounting === 'extra-gang') reasons.push(reason('control-point.wider-plate', 'note', {}));
  for (const { name, want } of known.job.brief?.platforms ?? [])
    if (want === 'must' && !device.platforms.includes(name) && !device.hubId)
      reasons.push({
        rule: 'platform',
        outcome: 'warn',
        code: 'platform.nice',
        facts: { platform: name, offers: device.platforms },
      });
  if (device.power === 'battery')
    reasons.push({
      rule: 'battery-only',
      outcome: 'note',
      code: 'control-point.battery',
      facts: { years: device.batteryYears ?? null },
    });
  return { id: point.id, verdict: verdictOf(reasons, []), reasons };
}

const reason = (code: string, outcome: Reason['outcome'], facts: Reason['facts']): Reason => ({
  rule: 'multi-location',
  outcome,
  code,
  facts,
});

function targetReasons(device: Device, target: ControlPoint['targets'][number], known: JobLookup): Reason[] {
  if (target.loadId !== undefined) {
    const load = known.loads.get(target.loadId);
    if (!load || device.bulbFamilies?.includes(load.bulbFamily ?? '')) return [];
    const facts = { load: load.name, family: load.bulbFamily ?? '', families: device.bulbFamilies ?? [] };
    if (load.kind === 'smart-bulb' && load.bulbFamily === undefined)
      return [{ rule: 'bulb-family', outcome: 'unproved', code: 'bulb-family.unknown', facts }];
    return [
      {
        rule: 'bulb-family',
        outcome: 'block',
        code: load.kind === 'smart-bulb' ? 'bulb-family.other' : 'bulb-family.plain-lamps',
        facts,
      },
    ];
  }
  if (target.boxId === undefined || target.position === undefined) return [];
  const box = known.boxes.get(target.boxId)?.name ?? target.boxId;
  const there = known.devices.get(
    known.selections.get(placeKey(target.boxId, target.position))?.deviceId ?? '',
  );
  if (!there) return [reason('control-point.nothing-chosen', 'unproved', { box, position: target.position })];
  return reaches(device, there)
    ? []
    : [
        reason('control-point.cannot-reach', 'block', {
          box,
          position: target.position,
          device: deviceName(there),
        }),
      ];
}

function reaches(control: Device, there: Device): boolean {
  const partners = (device: Device) =>
    (device.multiLocation ?? []).flatMap((entry) => entry.partnerIds ?? []);
  return (
    (control.hubId !== undefined && control.hubId === there.hubId) ||
    partners(there).includes(control.id) ||
    partners(control).includes(there.id)
  );
}
