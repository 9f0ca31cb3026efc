import { MINUTES } from '../identify/asking/candidates.js';
import { labelsOf } from '../job/lookup.js';
import type { Reading } from '../job/schema/survey.js';
import { isGround } from '../practice/wire.js';
import { endsOf } from './edits.js';
import type { Scene, WiredBox } from './scene.js';

/** How the box stands for a reading: energised with the device told to be off or on, with it out, dead. */
export type Stage = 'off' | 'on' | 'device-out' | 'dead';

/** A reading that can be asked for, and what it takes. */
export interface Asked
  extends Pick<Reading, 'tool' | 'arrangement' | 'points'>,
    Partial<Pick<Reading, 'position' | 'method' | 'breakers' | 'switches'>> {
  minutes: number;
  stage: Stage;
}

/**
 * Readings that a wired box can be asked for: hands off with leads fitted while dead, with the device out and
 * its conductors capped while dead, or dead. A device that carries a shared neutral stays where it is.
 */
export function candidates(scene: Scene): Asked[] {
  const { box, plan } = entryOf(scene);
  const labels = labelsOf(box);
  const placed = new Set(endsOf(plan).map(({ name }) => name));
  const cores = box.conductors
    .filter((core) => placed.has(core.id) && !isGround(core, labels.get(core.id)))
    .map(({ id }) => id);
  return [...inPlace(scene, cores), ...deviceOut(scene, cores), ...dead(scene, cores)];
}

const breakers = (scene: Scene, state: 'on' | 'off') =>
  Object.fromEntries(entryOf(scene).box.circuitIds.map((id) => [id, state]));

const switches = ({ own }: Scene, state: 'on' | 'off') => ({ [String(own.position)]: state });

/** Energised, the device told to be off and on. */
function inPlace(scene: Scene, cores: readonly string[]): Asked[] {
  const { circuits } = scene.known;
  // A low-impedance meter to earth trips what watches for leakage.
  const watched = entryOf(scene).box.circuitIds.some(
    (id) => (circuits.get(id)?.protection ?? 'none') !== 'none',
  );
  const volts = watched ? ('volts' as const) : ('volts-low-z' as const);
  return (['off', 'on'] as const).flatMap((stage) => {
    const live = {
      arrangement: 'in-place' as const,
      breakers: breakers(scene, 'on'),
      switches: switches(scene, stage),
      stage,
    };
    return cores.flatMap((id): Asked[] => [
      { ...live, tool: 'indicator', method: 'non-contact', points: [id], minutes: MINUTES.inPlace },
      { ...live, tool: volts, method: 'clipped', points: [id, 'reference'], minutes: MINUTES.clippedOut },
    ]);
  });
}

/** Energised with the device out, unless a neutral runs on through it. */
function deviceOut(scene: Scene, cores: readonly string[]): Asked[] {
  const { own } = scene;
  const onNeutral = entryOf(scene).plan.landed.filter(({ terminal }) =>
    own.neutrals.some(({ node }) => node.endsWith(`|t:${terminal}`)),
  );
  if (onNeutral.length > 1) return [];
  const out = {
    arrangement: 'device-out' as const,
    position: own.position,
    breakers: breakers(scene, 'on'),
    minutes: MINUTES.indicatorOut,
    stage: 'device-out' as const,
  };
  const loads = [...new Set(own.channels.flatMap(({ loadIds }) => loadIds))];
  return [
    ...cores.map((id): Asked => ({ ...out, tool: 'indicator', method: 'non-contact', points: [id] })),
    ...loads.map((id): Asked => ({ ...out, tool: 'lamp', method: 'observed', points: [id] })),
  ];
}

function dead(scene: Scene, cores: readonly string[]): Asked[] {
  return cores.flatMap((one, at) =>
    cores.slice(at + 1).map(
      (other): Asked => ({
        tool: 'ohms',
        method: 'clipped',
        arrangement: 'in-place',
        breakers: breakers(scene, 'off'),
        switches: switches(scene, 'off'),
        points: [one, other],
        minutes: MINUTES.ohmsDead,
        stage: 'dead',
      }),
    ),
  );
}

/** The box of the place that is looked at. */
export function entryOf({ boxes, own }: Scene): WiredBox {
  return boxes.find(({ box }) => box.id === own.boxId) as WiredBox;
}

/** How the box stood for a recorded reading; null: in no way these speak of. */
export function stageOf(
  reading: Pick<Reading, 'arrangement' | 'position' | 'breakers' | 'switches'>,
  { own, boxes }: Scene,
): Stage | null {
  const { box } = entryOf({ own, boxes } as Scene);
  const states = box.circuitIds.map((id) => reading.breakers?.[id]);
  if (states.length > 0 && states.every((state) => state === 'off'))
    return reading.arrangement === 'in-place' ? 'dead' : null;
  if (!states.every((state) => state === 'on')) return null;
  if (reading.arrangement === 'device-out') return reading.position === own.position ? 'device-out' : null;
  if (reading.arrangement !== 'in-place') return null;
  const told = reading.switches?.[String(own.position)];
  return told === 'on' || told === 'off' ? told : null;
}

/** The same reading, whenever it is made. */
export const askedKey = ({ tool, points, stage }: Pick<Asked, 'tool' | 'points'> & { stage: Stage | null }) =>
  `${tool}|${stage}|${[...points].sort().join()}`;
