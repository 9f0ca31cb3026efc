import type { Reading } from '@inventario/core';
import type { BoxPlan } from './survey-maker.js';

let minute = 0;
const at = () => {
  minute += 2;
  return new Date(Date.UTC(2026, 4, 4, 6, minute)).toISOString().replace('.000Z', 'Z');
};

type Told = Pick<Reading, 'tool' | 'points' | 'value'> & Partial<Reading>;

function numbered(plan: BoxPlan, told: readonly Told[]): Reading[] {
  minute = 0;
  return told.map((reading, index) => ({
    id: `${plan.id}-m${index + 1}`,
    at: at(),
    arrangement: 'device-out',
    position: 1,
    method: 'clipped',
    breakers: { [plan.circuitId]: 'on' },
    ...reading,
  }));
}

const inPlace = (plan: BoxPlan, state: 'on' | 'off', value: 'lit' | 'dark'): Told => ({
  tool: 'lamp',
  points: [plan.loadId as string],
  value,
  arrangement: 'in-place',
  position: undefined,
  method: 'observed',
  switches: { '1': state },
});

/** A visitor's look before anything was opened: the lamp follows its switch. */
export function seenFromOutside(_: readonly string[], plan: BoxPlan): Reading[] {
  return numbered(plan, [inPlace(plan, 'on', 'lit'), inPlace(plan, 'off', 'dark')]);
}

/** Power at the switch read through: everything it takes to confirm line, load, neutral and ground. */
export function readThrough(ids: readonly string[], plan: BoxPlan): Reading[] {
  const [feed, white, ground, lamp] = ids as [string, string, string, string];
  const off = { breakers: { [plan.circuitId]: 'off' as const } };
  return numbered(plan, [
    inPlace(plan, 'on', 'lit'),
    inPlace(plan, 'off', 'dark'),
    { tool: 'indicator', points: [feed], value: 'alert', method: 'non-contact' },
    { tool: 'volts-low-z', points: [feed, 'reference'], value: 119.1 },
    { tool: 'volts-low-z', points: [lamp, 'reference'], value: 0.2 },
    { tool: 'volts-low-z', points: [feed, 'reference'], value: 0.1, ...off },
    { tool: 'ohms', points: [white, 'reference'], value: 0.3, ...off },
    { tool: 'ohms', points: [ground, 'reference'], value: 0.2, ...off },
  ]);
}

/** One more reading that cannot be, to be found. A lamp's is taken with the switch off. */
export function contradiction(_: readonly string[], plan: BoxPlan, told: Told): Reading {
  const lamp =
    told.tool === 'lamp'
      ? {
          arrangement: 'in-place' as const,
          position: undefined,
          method: 'observed' as const,
          switches: { '1': 'off' as const },
        }
      : {};
  const [made] = numbered(plan, [{ ...told, ...lamp }]) as [Reading];
  return { ...made, id: `${plan.id}-m99`, at: '2026-05-04T07:30:00Z' };
}
