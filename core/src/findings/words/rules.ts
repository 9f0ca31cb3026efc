import type { JobLookup } from '../../job/lookup.js';
import type { Automation } from '../../job/schema/commissioning.js';
import { listed } from './stops.js';
import { targetWords } from './targets.js';

const DAY_WORDS = {
  mon: 'Monday',
  tue: 'Tuesday',
  wed: 'Wednesday',
  thu: 'Thursday',
  fri: 'Friday',
  sat: 'Saturday',
  sun: 'Sunday',
} as const;

/** A rule in words: what sets it off, on which days and under what condition, and what it then does. */
export function ruleWords(rule: Automation, known: JobLookup): { when: string; does: string } {
  const days = rule.days ? `, ${listed(rule.days.map((day) => DAY_WORDS[day]))}` : '';
  return {
    when: `${starterWords(rule, known)}${days}${conditionWords(rule.if)}`,
    does: (rule.then ?? []).map((action) => actionWords(action, known)).join('; ') || 'turns it over',
  };
}

function starterWords({ when }: Automation, known: JobLookup): string {
  if (when.at !== undefined) return `at ${when.at}`;
  if (when.sun !== undefined) {
    const offset = when.offset ?? 0;
    if (offset === 0) return `at ${when.sun}`;
    return `${Math.abs(offset)} minutes ${offset > 0 ? 'after' : 'before'} ${when.sun}`;
  }
  if (when.motion) return `on motion at ${targetWords(when.motion, known)}`;
  if (when.humidity)
    return `when it is damp at ${targetWords(when.humidity, known)}, over ${when.above ?? 60} %`;
  if (when.tap)
    return `on ${when.times === 2 ? 'a double tap' : `${when.times ?? 1} taps`} at ${targetWords(when.tap, known)}`;
  if (when.presence)
    return when.presence === 'leave' ? 'when the last one leaves' : 'when the first one comes';
  return `${when.countdown} minutes later, at ${when.of ? targetWords(when.of, known) : 'its target'}`;
}

function conditionWords(condition: Automation['if']): string {
  return [
    ...(condition?.from !== undefined ? [`, between ${condition.from} and ${condition.to}`] : []),
    ...(condition?.dark ? [', while it is dark'] : []),
  ].join('');
}

function actionWords(
  { target, do: what, value }: NonNullable<Automation['then']>[number],
  known: JobLookup,
): string {
  const whom = targetWords(target, known);
  if (what === 'level') return `${whom} to ${value} %`;
  if (what === 'speed') return `${whom} to speed ${value}`;
  return what === 'toggle' ? `${whom} turned over` : `${whom} ${what}`;
}
