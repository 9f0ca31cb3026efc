import { type Device, type MatchRule, OF_THE_WAY, type Verdict } from '@inventario/core';
import type { JudgedDevice } from '../../data/engines.worker.js';

export interface DeviceRow {
  device: Device;
  /** The device in the way that suits best here. */
  best: JudgedDevice;
  /** Other ways that are possible too. */
  others: JudgedDevice[];
}

const RANK: Record<Verdict, number> = { fits: 0, 'fits-with': 1, unproved: 2, no: 3 };

/**
 * One row a device, the suitable ones first, then the cheaper; among ways that are stopped the one with the
 * fewest reasons stands for it.
 */
export function bestFirst(
  judged: readonly JudgedDevice[],
  devices: ReadonlyMap<string, Device>,
): DeviceRow[] {
  const ways = new Map<string, JudgedDevice[]>();
  for (const candidate of judged)
    ways.set(candidate.deviceId, [...(ways.get(candidate.deviceId) ?? []), candidate]);
  const stops = (candidate: JudgedDevice) =>
    candidate.reasons.filter((reason) => reason.outcome === 'block').length;
  const warnings = (candidate: JudgedDevice) =>
    candidate.reasons.filter((reason) => reason.outcome !== 'note').length;
  // Being stopped by the way itself (not offered, the wrong end, not a module) tells less than what a
  // possible way is stopped by.
  const besides = (candidate: JudgedDevice) =>
    candidate.reasons.some((reason) => OF_THE_WAY.has(reason.code)) ? 1 : 0;
  return [...ways]
    .map(([deviceId, own]) => {
      const sorted = own.toSorted(
        (a, b) => RANK[a.verdict] - RANK[b.verdict] || besides(a) - besides(b) || stops(a) - stops(b),
      );
      const [best, ...rest] = sorted as [JudgedDevice, ...JudgedDevice[]];
      return {
        device: devices.get(deviceId) as Device,
        best,
        others: rest.filter((candidate) => candidate.verdict !== 'no'),
      };
    })
    .sort(
      (a, b) =>
        RANK[a.best.verdict] - RANK[b.best.verdict] ||
        warnings(a.best) - warnings(b.best) ||
        a.device.price - b.device.price,
    );
}

/**
 * How many devices each rule stops, in the way that suits them best; what speaks of the way itself tells
 * nothing of the place.
 */
export function stoppedBy(judged: readonly JudgedDevice[]): { rule: MatchRule; devices: number }[] {
  const stopped = new Map<string, Set<string>>();
  for (const { deviceId, verdict, reasons } of judged) {
    if (verdict !== 'no' || reasons.some(({ code }) => OF_THE_WAY.has(code))) continue;
    for (const { rule, outcome } of reasons)
      if (outcome === 'block') stopped.set(rule, (stopped.get(rule) ?? new Set()).add(deviceId));
  }
  return [...stopped]
    .map(([rule, devices]) => ({ rule: rule as MatchRule, devices: devices.size }))
    .sort((a, b) => b.devices - a.devices || (a.rule < b.rule ? -1 : 1));
}
