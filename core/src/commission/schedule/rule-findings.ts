import { placeKey } from '../../job/lookup.js';
import { loadsOfChannel } from '../channel-loads.js';
import { isDayOf } from './calendar.js';
import type { SunDay } from './sun.js';
import type { Rule, ScheduleFinding, ScheduleGround } from './vocabulary.js';

/** Days on which a rule waits for a sun that does not rise or set; one a rule, at its first such date. */
export function sunlessRules(days: readonly SunDay[], ground: ScheduleGround): ScheduleFinding[] {
  return ground.rules.flatMap((rule): ScheduleFinding[] => {
    const { when, days: own } = rule.automation;
    if (when.sun === undefined) return [];
    const without = days.find(
      (day) => isDayOf(day.day, own) && (when.sun === 'sunrise' ? day.sunrise : day.sunset) === null,
    );
    if (!without) return [];
    return [finding('no-sun', [rule.id], null, ground.clock.startOf(without.day))];
  });
}

/** What is to be said of the rules whatever sets them off. */
export function ruleFindings(ground: ScheduleGround): ScheduleFinding[] {
  return [
    ...neverOff(ground),
    ...ground.rules.flatMap((rule) => [...cutSupply(rule, ground), ...notThere(rule, ground)]),
  ];
}

/** Targets that rules switch on and none switches off, toggles or counts down. */
function neverOff({ rules }: ScheduleGround): ScheduleFinding[] {
  const on = new Map<string, string[]>();
  const ended = new Set<string>();
  for (const { id, effects, counted } of rules) {
    for (const [target, effect] of effects)
      if (effect === 'on') on.set(target, [...(on.get(target) ?? []), id]);
      else ended.add(target);
    for (const target of counted) ended.add(target);
  }
  return [...on].flatMap(([target, ids]) => (ended.has(target) ? [] : [finding('never-off', ids, target)]));
}

/** A switch that takes the supply from smart bulbs; a bulb controller does not. */
function cutSupply({ id, effects }: Rule, { known, channels }: ScheduleGround): ScheduleFinding[] {
  return [...effects].flatMap(([target, effect]) => {
    const at = channels.get(target);
    if (effect !== 'off' || !at) return [];
    const strategy = known.selections.get(placeKey(at.box.id, at.position.index))?.strategy;
    const bulbs = loadsOfChannel(known, at).some(({ kind }) => kind === 'smart-bulb');
    return bulbs && strategy !== 'bulb-controller' ? [finding('cut-supply', [id], target)] : [];
  });
}

/** A platform that runs a rule on something it does not have. */
function notThere({ id, automation, effects, counted }: Rule, ground: ScheduleGround): ScheduleFinding[] {
  const { job } = ground.known;
  if (!job.catalogue.platforms.some(({ name }) => name === automation.lives)) return [];
  return [...new Set([...effects.keys(), ...counted])].flatMap((target) => {
    const listed =
      ground.channels.get(target)?.device.platforms ??
      job.things?.find((thing) => thing.id === target)?.platforms;
    return listed && !listed.includes(automation.lives) ? [finding('not-there', [id], target)] : [];
  });
}

function finding(
  code: ScheduleFinding['code'],
  automationIds: string[],
  target: string | null,
  at: number | null = null,
): ScheduleFinding {
  return { code, automationIds, target, at, until: null };
}
