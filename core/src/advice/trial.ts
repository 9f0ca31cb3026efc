import { contentsAsPlanned } from '../enclosure/as-planned.js';
import { fill } from '../enclosure/fill.js';
import { depth, packing } from '../enclosure/space.js';
import type { PlanChoice } from '../homeplan/vocabulary.js';
import { type JobLookup, labelsOf } from '../job/lookup.js';
import { signalAt } from '../radio/signal.js';

/** The one unit to buy and try before the rest, and the box where it teaches most. */
export interface Trial {
  deviceId: string;
  boxId: string;
  position: number;
  /** Places of the plan that get the same device. */
  places: number;
  /** What is closest to its limit there; shares of the limit, 1 is at it. */
  tests: { what: 'depth' | 'fill' | 'packing' | 'signal'; share: number }[];
  /** Every conductor there is labelled: what goes wrong is the device's doing. */
  told: boolean;
}

/**
 * The device the plan uses most, at the place where it comes closest to a limit: what goes in and joins
 * there, goes in and joins everywhere. A place with every conductor labelled is taken before one that still
 * has open questions; a place alone before a group.
 */
export function trialOf(choices: readonly PlanChoice[], known: JobLookup): Trial | null {
  const uses = new Map<string, PlanChoice[]>();
  for (const choice of choices) {
    const device = known.devices.get(choice.deviceId ?? '');
    if (device && device.radio !== 'none' && device.mount !== 'surface')
      uses.set(device.id, [...(uses.get(device.id) ?? []), choice]);
  }
  const most = [...uses.values()].reduce<PlanChoice[] | undefined>(
    (best, own) => (!best || own.length > best.length ? own : best),
    undefined,
  );
  if (!most) return null;
  const ranked = most
    .flatMap((choice) => trialAt(choice, most.length, known) ?? [])
    .sort((a, b) => Number(b.told) - Number(a.told) || hardest(b) - hardest(a));
  return ranked[0] ?? null;
}

const hardest = (trial: Trial) => trial.tests[0]?.share ?? 0;

function trialAt(choice: PlanChoice, places: number, known: JobLookup): Trial | null {
  const box = known.boxes.get(choice.boxId);
  const position = box?.positions.find((entry) => entry.index === choice.position);
  const device = known.devices.get(choice.deviceId ?? '');
  if (!box || !position || !device) return null;
  const contents = contentsAsPlanned(
    box,
    [{ position, device, selection: { strategy: choice.strategy } }],
    known,
  );
  const tests: Trial['tests'] = [];
  const room = depth(contents);
  if (room.availableMm) tests.push({ what: 'depth', share: room.neededMm / room.availableMm });
  const count = fill(contents);
  if (count.capacityMl && count.usedMl !== null && count.verdict !== 'no-rule')
    tests.push({ what: 'fill', share: count.usedMl / count.capacityMl });
  const { occupancy } = packing(contents);
  if (occupancy !== null) tests.push({ what: 'packing', share: occupancy });
  const signal = signalAt(box);
  if (signal && device.radio === 'wifi')
    tests.push({ what: 'signal', share: Math.min(1, Math.max(0, (signal.rssi + 30) / -42)) });
  // Where it does not go in at all there is nothing to try.
  if (tests.some(({ what, share }) => what !== 'signal' && share > 1 + 1e-9)) return null;
  const labels = labelsOf(box);
  const told = box.conductors.every((conductor) => !conductor.cableId || labels.has(conductor.id));
  return {
    deviceId: device.id,
    boxId: box.id,
    position: position.index,
    places,
    tests: tests.sort((a, b) => b.share - a.share),
    told,
  };
}
