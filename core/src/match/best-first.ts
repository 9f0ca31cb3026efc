import type { Device } from '../job/schema/catalogue.js';
import { type Candidate, OF_THE_WAY } from './candidate.js';
import type { MatchRule, Verdict } from './reason.js';

/** What of a candidate its place in the order rests on; a screen may carry more of it. */
type Ranked = Pick<Candidate, 'deviceId' | 'verdict'> & {
  reasons: readonly { rule: MatchRule; outcome: Candidate['reasons'][number]['outcome']; code: string }[];
};

/** A device at a place, in the way that suits it best there. */
export interface DeviceRow<Way extends Ranked> {
  device: Device;
  best: Way;
  /** Other ways that are possible too. */
  others: Way[];
}

const RANK: Record<Verdict, number> = { fits: 0, 'fits-with': 1, unproved: 2, no: 3 };

/**
 * One row a device, the suitable ones first, then the cheaper; among ways that are stopped the one with the
 * fewest reasons stands for it. What speaks of the way itself (not offered, the wrong end, not a module)
 * tells less than what a possible way is stopped by.
 */
export function bestFirst<Way extends Ranked>(
  judged: readonly Way[],
  devices: ReadonlyMap<string, Device>,
): DeviceRow<Way>[] {
  const ways = new Map<string, Way[]>();
  for (const candidate of judged)
    ways.set(candidate.deviceId, [...(ways.get(candidate.deviceId) ?? []), candidate]);
  const stops = ({ reasons }: Way) => reasons.filter(({ outcome }) => outcome === 'block').length;
  const warnings = ({ reasons }: Way) => reasons.filter(({ outcome }) => outcome !== 'note').length;
  const besides = ({ reasons }: Way) => Number(reasons.some(({ code }) => OF_THE_WAY.has(code)));
  return [...ways]
    .flatMap(([deviceId, own]): DeviceRow<Way>[] => {
      const device = devices.get(deviceId);
      const [best, ...rest] = own.toSorted(
        (a, b) => RANK[a.verdict] - RANK[b.verdict] || besides(a) - besides(b) || stops(a) - stops(b),
      );
      return device && best ? [{ device, best, others: rest.filter(({ verdict }) => verdict !== 'no') }] : [];
    })
    .sort(
      (a, b) =>
        RANK[a.best.verdict] - RANK[b.best.verdict] ||
        warnings(a.best) - warnings(b.best) ||
        a.device.price - b.device.price,
    );
}

/** How many devices each rule stops; a way that is none for the device tells nothing of the place. */
export function stoppedBy(judged: readonly Ranked[]): { rule: MatchRule; devices: number }[] {
  const stopped = new Map<MatchRule, Set<string>>();
  for (const { deviceId, verdict, reasons } of judged) {
    if (verdict !== 'no' || reasons.some(({ code }) => OF_THE_WAY.has(code))) continue;
    for (const { rule, outcome } of reasons)
      if (outcome === 'block') stopped.set(rule, (stopped.get(rule) ?? new Set()).add(deviceId));
  }
  return [...stopped]
    .map(([rule, devices]) => ({ rule, devices: devices.size }))
    .sort((a, b) => b.devices - a.devices || (a.rule < b.rule ? -1 : 1));
}
