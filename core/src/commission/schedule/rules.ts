import type { JobLookup } from '../../job/lookup.js';
import type { Automation } from '../../job/schema/commissioning.js';
import { type ChosenChannel, targetsIn } from '../../job/targets.js';
import { minuteOfDay } from './calendar.js';
import type { Effect, Rule } from './vocabulary.js';

/** The enabled rules of a job with what each comes to, by their ids. */
export function enabledRules(known: JobLookup, channels: readonly ChosenChannel[]): Rule[] {
  return known.job.automations
    .filter(({ enabled }) => enabled !== false)
    .map((automation) => ruleOf(automation, known, channels))
    .sort((one, other) => (one.id < other.id ? -1 : 1));
}

function ruleOf(automation: Automation, known: JobLookup, channels: readonly ChosenChannel[]): Rule {
  const things = known.job.things ?? [];
  const effects = new Map<string, Effect>();
  for (const action of automation.then ?? [])
    for (const target of targetsIn(action.target, channels, things)) effects.set(target, effectOf(action));
  const { of } = automation.when;
  const { from, to } = automation.if ?? {};
  return {
    automation,
    id: automation.id,
    effects,
    counted: automation.when.countdown !== undefined && of ? targetsIn(of, channels, things) : [],
    hours: from === undefined || to === undefined ? null : { from: minuteOfDay(from), to: minuteOfDay(to) },
  };
}

/** A level or speed above 0 is on, of 0 off. */
function effectOf(action: NonNullable<Automation['then']>[number]): Effect {
  if (action.do === 'level' || action.do === 'speed') return (action.value ?? 0) > 0 ? 'on' : 'off';
  return action.do;
}

/** Whether a rule needs to know where on earth the house stands. */
export const needsSun = ({ when, if: condition }: Automation) =>
  when.sun !== undefined || condition?.dark === true;
