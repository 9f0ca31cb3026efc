import { type Automation, type JobLookup, targetId } from '@inventario/core';
import { targetOf } from './target-options.js';

export type StarterKind =
  | 'at'
  | 'sunrise'
  | 'sunset'
  | 'motion'
  | 'humidity'
  | 'tap'
  | 'presence'
  | 'countdown';

/** A rule as it is typed: one field for everything it can have. */
export interface RuleForm {
  name: string;
  lives: string;
  starter: StarterKind;
  time: string;
  offset: number;
  heard: string;
  above: number;
  taps: number;
  presence: 'arrive' | 'leave';
  minutes: number;
  days: Weekday[];
  from: string;
  to: string;
  dark: boolean;
  actions: { target: string; do: 'on' | 'off' | 'toggle' | 'level'; value: number }[];
}

export type Weekday = NonNullable<Automation['days']>[number];
export const WEEKDAYS: Weekday[] = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];

export function formOf(rule: Automation | null, lives: string, firstTarget: string): RuleForm {
  const when = rule?.when;
  const heard = when?.motion ?? when?.humidity ?? when?.tap ?? when?.of;
  return {
    name: rule?.name ?? '',
    lives: rule?.lives ?? lives,
    starter: when ? starterOf(when) : 'at',
    time: when?.at ?? '22:00',
    offset: when?.offset ?? 0,
    heard: heard ? targetId(heard) : firstTarget,
    above: when?.above ?? 65,
    taps: when?.times ?? 2,
    presence: when?.presence ?? 'leave',
    minutes: when?.countdown ?? 10,
    days: rule?.days ?? WEEKDAYS,
    from: rule?.if?.from ?? '',
    to: rule?.if?.to ?? '',
    dark: rule?.if?.dark === true,
    actions: rule?.then?.map((action) => ({
      target: targetId(action.target),
      do: action.do === 'speed' ? 'level' : action.do,
      value: action.value ?? 100,
    })) ?? [{ target: firstTarget, do: 'on', value: 100 }],
  };
}

function starterOf(when: Automation['when']): StarterKind {
  if (when.sun) return when.sun;
  return (['at', 'motion', 'humidity', 'tap', 'presence', 'countdown'] as const).find(
    (kind) => when[kind] !== undefined,
  ) as StarterKind;
}

/** The rule that was typed; what else a known rule holds stays in it. */
export function ruleOf(form: RuleForm, known: JobLookup, before: Automation | { id: string }): Automation {
  const { days, if: _if, then: _then, when: _when, ...rest } = before as Automation;
  return {
    ...rest,
    name: form.name.trim(),
    lives: form.lives,
    when: whenOf(form, known),
    ...(form.days.length === WEEKDAYS.length
      ? {}
      : { days: WEEKDAYS.filter((day) => form.days.includes(day)) }),
    ...(form.from || form.to || form.dark
      ? {
          if: {
            ...(form.from ? { from: form.from } : {}),
            ...(form.to ? { to: form.to } : {}),
            ...(form.dark ? { dark: true as const } : {}),
          },
        }
      : {}),
    ...(form.starter === 'countdown'
      ? {}
      : {
          then: form.actions.map(({ target, do: what, value }) => ({
            target: targetOf(target, known),
            do: what,
            ...(what === 'level' ? { value } : {}),
          })),
        }),
  };
}

function whenOf(form: RuleForm, known: JobLookup): Automation['when'] {
  const heard = targetOf(form.heard, known);
  switch (form.starter) {
    case 'at':
      return { at: form.time };
    case 'sunrise':
    case 'sunset':
      return { sun: form.starter, ...(form.offset === 0 ? {} : { offset: form.offset }) };
    case 'motion':
      return { motion: heard };
    case 'humidity':
      return { humidity: heard, above: form.above };
    case 'tap':
      return { tap: heard, times: form.taps };
    case 'presence':
      return { presence: form.presence };
    case 'countdown':
      return { countdown: form.minutes, of: heard };
  }
}
