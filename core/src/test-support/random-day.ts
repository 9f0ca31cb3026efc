import type { DayToPlan } from '../runsheet/vocabulary.js';
import type { Random } from './random.js';

/** A made-up day: units of one to three boxes on circuits of some panels, over rooms of two floors. */
export function randomDay(
  random: Random,
  made: { units: number; panels: number; openAtOnce: number },
): DayToPlan {
  const circuits = Array.from({ length: Math.max(3, Math.floor(made.units / 2)) }, (_, at) => ({
    id: `c${at}`,
    panel: `P${random.int(0, made.panels - 1)}`,
  }));
  const room = new Map<string, { roomId: string; floor: number }>();
  const units = Array.from({ length: made.units }, (_, unit) => {
    const boxIds = Array.from(
      { length: random.chance(0.15) ? random.int(2, 3) : 1 },
      (_, at) => `b${unit}-${at}`,
    );
    for (const id of boxIds) {
      const number = random.int(0, 5);
      room.set(id, { roomId: `r${number}`, floor: number % 2 });
    }
    const on = Array.from({ length: random.chance(0.2) ? 2 : 1 }, () => random.pick(circuits));
    return {
      boxIds,
      circuitIds: [...new Set(on.map(({ id }) => id))],
      panels: [...new Set(on.map(({ panel }) => panel))],
      needsCheck: random.chance(0.3),
    };
  });
  const apart: [number, number][] = [];
  for (let one = 0; one < made.units; one++)
    for (let other = one + 1; other < made.units; other++) if (random.chance(0.06)) apart.push([one, other]);
  return { units, openAtOnce: made.openAtOnce, testBeforeFold: random.chance(0.7), apart, room };
}
