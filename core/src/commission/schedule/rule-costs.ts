import { placeKey } from '../../job/lookup.js';
import { loadsOfChannel } from '../channel-loads.js';
import type { Firing, Rule, RuleCost, ScheduleGround } from './vocabulary.js';

const YEAR_DAYS = 365;

/**
 * What each rule that switches something on costs in a year, by the firings of a range that is taken for any:
 * from its switching on to whatever switches off next. What nothing switches off again is on for the rest of
 * the range.
 * @param tariff minor units a kWh; null: cost is not told
 */
export function ruleCosts(
  ground: ScheduleGround,
  firings: readonly Firing[],
  tariff: number | null,
): RuleCost[] {
  const end = ground.clock.startOf(ground.toDay);
  const days = ground.toDay - ground.fromDay;
  const minutes = minutesOn(firings, end);
  const watts = new Map([...ground.channels].map(([id, at]) => [id, wattsOf(ground, at)]));
  return ground.rules
    .filter((rule) => [...rule.effects.values()].includes('on'))
    .map((rule) => {
      const own = minutes.get(rule.id);
      if (!byClockOrSun(rule)) return { automationId: rule.id, hours: null, kWh: null, cost: null };
      const share = YEAR_DAYS / days / 60;
      const targets = [...(own ?? [])];
      const kWh = targets.reduce((sum, [id, on]) => sum + ((watts.get(id) ?? 0) * on * share) / 1000, 0);
      const hours = targets.length === 0 ? 0 : Math.max(...targets.map(([, on]) => on)) * share;
      return { automationId: rule.id, hours, kWh, cost: tariff === null ? null : kWh * tariff };
    });
}

const byClockOrSun = ({ automation: { when } }: Rule) => when.at !== undefined || when.sun !== undefined;

/** By rule, then by target: for how many minutes it is on because of it. */
function minutesOn(firings: readonly Firing[], end: number): Map<string, Map<string, number>> {
  const lit = new Map<string, { by: string; since: number }>();
  const minutes = new Map<string, Map<string, number>>();
  const settle = (target: string, at: number) => {
    const since = lit.get(target);
    if (!since) return;
    const own = minutes.get(since.by) ?? new Map<string, number>();
    minutes.set(since.by, own.set(target, (own.get(target) ?? 0) + at - since.since));
    lit.delete(target);
  };
  for (const { rule, at } of firings)
    for (const [target, effect] of rule.effects) {
      if (effect === 'on' && !lit.has(target)) lit.set(target, { by: rule.id, since: at });
      else if (effect === 'off' || (effect === 'toggle' && lit.has(target))) settle(target, at);
      else if (effect === 'toggle') lit.set(target, { by: rule.id, since: at });
    }
  for (const target of [...lit.keys()]) settle(target, end);
  return minutes;
}

function wattsOf({ known }: ScheduleGround, at: Parameters<typeof loadsOfChannel>[1]): number {
  const selection = known.selections.get(placeKey(at.box.id, at.position.index));
  // Smart bulbs draw by themselves whatever the switch is.
  if (selection?.strategy === 'bulb-controller') return 0;
  return loadsOfChannel(known, at).reduce((sum, { count, wattsEach }) => sum + count * wattsEach, 0);
}
