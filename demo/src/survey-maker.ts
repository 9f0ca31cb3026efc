import {
  type Box,
  labelFor,
  type PracticeId,
  type PresetContents,
  type PresetId,
  presetContents,
  type Reading,
  type Role,
  usualSize,
} from '@inventario/core';

/** Roles in the order the preset lists its conductors; undefined leaves one untold. */
export type Told = readonly (Role | undefined)[];
export const POWER_AT_SWITCH: Told = ['line', 'neutral', 'ground', 'load', 'neutral', 'ground'];
export const SWITCH_LOOP: Told = ['line', 'load', 'ground'];
export const FEED_THROUGH: Told = [
  'line',
  'neutral',
  'ground',
  'line-on',
  'neutral',
  'ground',
  'load',
  'neutral',
  'ground',
];
export const THREE_WAY_LINE: Told = [
  'traveler',
  'traveler',
  'neutral',
  'ground',
  'line',
  'neutral',
  'ground',
];
export const THREE_WAY_LOAD: Told = [
  'traveler',
  'traveler',
  'neutral',
  'ground',
  'load',
  'neutral',
  'ground',
];

export interface BoxPlan {
  id: string;
  roomId: string;
  name: string;
  circuitId: string;
  enclosure: Partial<Box['enclosure']>;
  preset?: PresetId;
  size?: '12AWG' | '14AWG';
  loadId?: string;
  told?: Told;
  need?: Box['positions'][number]['need'];
  groupId?: string;
  signal?: number;
  notes?: string;
  hazards?: Box['hazards'];
  /** A second gang, of the same circuit or another. */
  second?: { preset: PresetId; loadId: string; circuitId: string };
  /** What was read, given the ids of the conductors in the preset's order. */
  readings?: (ids: string[], plan: BoxPlan) => Reading[];
}

/** A box as a plan says it was surveyed: a usual box, its labels and its readings. */
export function surveyed(plan: BoxPlan, order: number, practice: PracticeId = 'us'): Box {
  let serial = 0;
  const newId = () => {
    serial += 1;
    return `${plan.id}-${serial}`;
  };
  const contents = found(plan, practice, newId);
  const more = plan.second
    ? presetContents(
        {
          preset: plan.second.preset,
          practice,
          size: plan.size ?? usualSize({ practice }, 15),
          loadIds: [plan.second.loadId],
          index: 2,
        },
        newId,
      )
    : undefined;
  const ids = contents.conductors.map((conductor) => conductor.id);
  return {
    id: plan.id,
    roomId: plan.roomId,
    name: plan.name,
    order,
    circuitIds: [...new Set([plan.circuitId, ...(plan.second ? [plan.second.circuitId] : [])])],
    enclosure: {
      gangs: plan.second ? 2 : 1,
      material: 'plastic',
      grounded: false,
      capacity: { from: 'marked', in3: 20 },
      depth: 80,
      internalClamps: false,
      supportFittings: 0,
      ...plan.enclosure,
    },
    ...(plan.signal === undefined ? {} : { signal: { rssi: plan.signal } }),
    ...(plan.notes ? { notes: plan.notes } : {}),
    ...(plan.hazards ? { hazards: plan.hazards } : {}),
    cables: [...contents.cables, ...(more?.cables ?? [])],
    conductors: [...contents.conductors, ...(more?.conductors ?? [])],
    joints: [...contents.joints, ...(more?.joints ?? [])],
    positions: [...contents.positions, ...(more?.positions ?? [])].map((position) => ({
      ...position,
      need: { smart: true, ...plan.need },
    })),
    readings: plan.readings?.(ids, plan) ?? [],
    labels: toldLabels(plan, ids),
  };
}

/** What the box holds before its second gang: a usual box, or an empty position. */
function found(plan: BoxPlan, practice: PracticeId, newId: () => string): PresetContents {
  if (plan.preset)
    return presetContents(
      {
        preset: plan.preset,
        practice,
        size: plan.size ?? usualSize({ practice }, 15),
        loadIds: plan.loadId ? [plan.loadId] : [],
      },
      newId,
    );
  return {
    cables: [],
    conductors: [],
    joints: [],
    positions: [{ index: 1, existing: 'single-pole', loadIds: [], need: { smart: true } }],
    labels: [],
  };
}

function toldLabels(plan: BoxPlan, ids: readonly string[]): Box['labels'] {
  let traveler = 0;
  return ids.flatMap((id, index) => {
    const role = plan.told?.[index];
    if (!role) return [];
    if (role === 'traveler') traveler += 1;
    return [
      labelFor(id, role, {
        loadIds: plan.loadId ? [plan.loadId] : [],
        circuitIds: [plan.circuitId],
        ...(plan.groupId ? { groupId: plan.groupId } : {}),
        traveler,
      }),
    ];
  });
}

export const steelBox = (enclosureId: string, depth: number): Partial<Box['enclosure']> => ({
  material: 'metal',
  grounded: true,
  capacity: { from: 'standard', enclosureId },
  depth,
  internalClamps: true,
});
