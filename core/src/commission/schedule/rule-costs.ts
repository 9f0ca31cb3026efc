import { placeKey } from '../../job/lookup.js';
import { loadsOfChannel } from '../channel-loads.js';
import type { Effect, Firing, Rule, RuleCost, ScheduleGround } from './vocabulary.js';

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
  const parts = partsOf(ground, firings, end);
  const watts = new Map([...ground.channels].map(([id, at]) => [id, wattsOf(ground, at)]));
  return ground.rules
    .filter((rule) => [...rule.effects.values()].includes('on'))
    .map((rule) => {
      if (!byClockOrSun(rule)) return { automationId: rule.id, hours: null, kWh: null, cost: null };
      const share = YEAR_DAYS / days / 60;
      const own = parts.get(rule) ?? [];
      const wattMinutes = own.reduce(
        (sum, { lamp, minutes }) => sum + (watts.get(lamp.target) ?? 0) * minutes,
        0,
      );
      const kWh = (wattMinutes * share) / 1000;
      const hours = Math.max(0, ...own.map(({ minutes }) => minutes)) * share;
      return { automationId: rule.id, hours, kWh, cost: tariff === null ? null : kWh * tariff };
    });
}

const byClockOrSun = ({ automation: { when } }: Rule) => when.at !== undefined || when.sun !== undefined;

/** A target that rules act on, with what has switched it on while it is on. */
interface Lamp {
  target: string;
  lit: { by: Part; since: number } | null;
}

/** What a rule does to one target, and for how many minutes that is on because of it. */
interface Part {
  lamp: Lamp;
  effect: Effect;
  minutes: number;
}

/** By rule: what it does to each target, and how long that is on because of it. */
function partsOf({ rules }: ScheduleGround, firings: readonly Firing[], end: number): Map<Rule, Part[]> {
  const lamps = new Map<string, Lamp>();
  const parts = new Map(
    rules.map((rule) => [
      rule,
      [...rule.effects].map(([target, effect]): Part => {
        const lamp = lamps.get(target) ?? { target, lit: null };
        lamps.set(target, lamp);
        return { lamp, effect, minutes: 0 };
      }),
    ]),
  );
  const goesOut = (lamp: Lamp, at: number) => {
    if (lamp.lit) lamp.lit.by.minutes += at - lamp.lit.since;
    lamp.lit = null;
  };
  for (const { rule, at } of firings)
    for (const part of parts.get(rule) ?? []) {
      const { lamp, effect } = part;
      if (effect === 'off' || (effect === 'toggle' && lamp.lit)) goesOut(lamp, at);
      else lamp.lit ??= { by: part, since: at };
    }
  for (const lamp of lamps.values()) goesOut(lamp, end);
  return parts;
}

function wattsOf({ known }: ScheduleGround, at: Parameters<typeof loadsOfChannel>[1]): number {
  const selection = known.selections.get(placeKey(at.box.id, at.position.index));
  // Smart bulbs draw by themselves whatever the switch is.
  if (selection?.strategy === 'bulb-controller') return 0;
  return loadsOfChannel(known, at).reduce((sum, { count, wattsEach }) => sum + count * wattsEach, 0);
}
