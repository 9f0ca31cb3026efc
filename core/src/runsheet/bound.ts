import { type Costs, tripsAtPanel } from './cost.js';

/**
 * A number of trips that no plan stays under. Panel by panel: so many batches that their boxes fit, one more
 * for each that is fed by another, all but one of them joined to the one before; and the check's pair for as
 * many as the boxes that need one fill.
 *
 *     batches x (off ... on) + batches with a check x 2 - (batches - 1)
 */
export function tripsAtLeast(costs: Costs): number {
  const { units, testBeforeFold } = costs.day;
  const panels = new Set(units.flatMap((unit) => unit.panels));
  const plain = tripsAtPanel(false, testBeforeFold);
  let sum = 0;
  for (const panel of panels) {
    const here = units.flatMap((unit, number) => (unit.panels.includes(panel) ? [number] : []));
    const checked = here.filter((number) => units[number]?.needsCheck);
    const [batches, checks] = [batchesAtLeast(here, costs), batchesAtLeast(checked, costs)];
    sum += Math.max(batches, checks) * (plain - 1) + 1 + 2 * checks;
  }
  return sum;
}

/** Batches that some units fill at least: by their boxes, and by those of which no two go together. */
function batchesAtLeast(units: readonly number[], costs: Costs): number {
  return Math.max(byFilling(units, costs), oneByOne(units, costs));
}

/**
 * Units of more than half of what may be open go one a batch; the others fill what these leave, for each
 * size that counts as small (Martello and Toth's bound of bin packing).
 */
function byFilling(units: readonly number[], costs: Costs): number {
  const most = costs.day.openAtOnce;
  const alone = units.filter((unit) => costs.sizeOf(unit) >= most).length;
  const sizes = units.map((unit) => costs.sizeOf(unit)).filter((size) => size < most);
  let best = 0;
  for (let small = 1; small <= most / 2; small++) {
    const large = sizes.filter((size) => size > most - small);
    const middle = sizes.filter((size) => size <= most - small && size > most / 2);
    const rest = sizes.filter((size) => size <= most / 2 && size >= small);
    const sum = (list: readonly number[]) => list.reduce((all, size) => all + size, 0);
    const over = sum(rest) - (middle.length * most - sum(middle));
    best = Math.max(best, large.length + middle.length + Math.max(0, Math.ceil(over / most)));
  }
  return alone + best;
}

/** Units of which no two may be open together, gathered from each in turn. */
function oneByOne(units: readonly number[], costs: Costs): number {
  const apart = (a: number, b: number) => !costs.isAllowed([a, b]);
  let best = 0;
  for (const first of units) {
    const chosen = [first];
    for (const unit of units)
      if (unit !== first && chosen.every((other) => apart(unit, other))) chosen.push(unit);
    best = Math.max(best, chosen.length);
  }
  return best;
}
