import { type Box, identifyBox, lookup } from '@inventario/core';
import { everyTest } from '../../core/src/identify/asking/next-tests.js';
import { problemOf } from '../../core/src/identify/problem/problem.js';
import { type HiddenBox, hiddenBox } from '../../core/src/test-support/hidden-box.js';
import { Random } from '../../core/src/test-support/random.js';

/**
 * Boxes of one device with hidden wiring, answered truly: tests until nothing more can be told, by proposal
 * and by the textbook's order.
 */
export function testsUsed(boxes: number): string {
  const used = { proposed: 0, textbook: 0 };
  let [confirmed, needed, wrong] = [0, 0, 0];
  for (let seed = 0; seed < boxes; seed++) {
    const random = new Random(9000 + seed);
    const hidden = hiddenBox(
      random,
      random.pick(['us', 'us', 'gb', 'modular'] as const),
      1,
      random.chance(0.7),
    );
    const look = (box: Box) =>
      identifyBox(box, lookup({ ...hidden.job, boxes: [box, ...hidden.job.boxes.slice(1)] }));
    let { box } = hidden;
    let result = look(box);
    for (let step = 0; step < 60 && result.next[0]; step++) {
      box = { ...box, readings: [...box.readings, hidden.answer(result.next[0], `m${step}`)] };
      result = look(box);
    }
    used.proposed += box.readings.length;
    const goal = new Set(
      result.conductors
        .filter((conductor) => conductor.grade === 'confirmed')
        .map((conductor) => conductor.id),
    );
    for (const [id, role] of hidden.truth) {
      const said = result.conductors.find((conductor) => conductor.id === id);
      if (role === 'line' || role === 'load' || role === 'neutral') needed += 1;
      if (said?.grade !== 'confirmed') continue;
      confirmed += 1;
      if (said.role !== role) wrong += 1;
    }
    used.textbook += textbook(hidden, look, goal);
  }
  return (
    `${boxes} boxes of one device with hidden wiring: ${(used.proposed / boxes).toFixed(1)} tests a box ` +
    `as proposed, ${(used.textbook / boxes).toFixed(1)} by the textbook's order to the same; ${confirmed} ` +
    `roles confirmed (${needed} lines, loads and neutrals), ${wrong} wrong`
  );
}

/** Lamps first, then every conductor in turn: volts on, volts off, ohms; until as much is confirmed. */
function textbook(
  hidden: HiddenBox,
  look: (box: Box) => ReturnType<typeof identifyBox>,
  goal: ReadonlySet<string>,
): number {
  const order = { lamp: 0, indicator: 1, 'volts-low-z': 2, volts: 2, ohms: 3, breaker: 4 };
  const all = everyTest(problemOf(hidden.box, lookup(hidden.job)).problem).sort(
    (a, b) => order[a.tool] - order[b.tool],
  );
  const readings = all.map((test, at) => hidden.answer(test, `t${at}`));
  const enough = (count: number): boolean => {
    const { conductors } = look({ ...hidden.box, readings: readings.slice(0, count) });
    return (
      conductors.filter((conductor) => conductor.grade === 'confirmed' && goal.has(conductor.id)).length >=
      goal.size
    );
  };
  // Doubling, then halving: more readings of a true box hardly ever confirm less.
  let high = Math.min(8, readings.length);
  while (high < readings.length && !enough(high)) high = Math.min(2 * high, readings.length);
  let low = high <= 8 ? 0 : high / 2;
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (enough(middle)) high = middle;
    else low = middle;
  }
  return high;
}
