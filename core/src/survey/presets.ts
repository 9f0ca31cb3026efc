import type { Job } from '../job/schema/job.js';
import type { PracticeId, WireSize } from '../job/schema/primitives.js';
import type { Box } from '../job/schema/survey.js';
import type { WiringHabit } from '../practice/profile.js';
import { profileOf } from '../practice/profiles.js';
import type { BoxChange } from './corrections.js';
import type { Drawing } from './preset-drawings.js';
import { PRESETS, type Preset, type PresetId } from './preset-list.js';
import { Sketch } from './preset-sketch.js';

export function presetsFor(job: { practice: PracticeId }): (typeof PRESETS)[number][] {
  const { wiring } = profileOf(job);
  return PRESETS.filter((preset) => (preset.wiring as readonly WiringHabit[]).includes(wiring));
}

/**
 * What a preset puts into a box; the installer corrects it. Labels are proposals of the preset and not part
 * of it.
 */
export type PresetContents = Pick<Box, 'cables' | 'conductors' | 'joints' | 'positions' | 'labels'>;

/** Which usual box, of which cable, and for which position. */
interface PresetUse {
  preset: PresetId;
  practice: PracticeId;
  size: WireSize;
  loadIds?: string[];
  /** The first position it is for, 1 unless said; a preset of several takes the next ones too. */
  index?: number;
  /** The gang that a plate of several controls stands in, 1 unless said. */
  gang?: number;
  /** Colours of today, or those a house of its age has. */
  scheme?: 'today' | 'old';
}

/**
 * The contents of a usual box, without labels: what is seen, not what it is.
 * @param newId makes a fresh id for each cable, conductor and joint
 */
export function presetContents(use: PresetUse, newId: () => string): PresetContents {
  const { size, loadIds = [], index = 1, gang = 1, scheme = 'today' } = use;
  const preset = PRESETS.find((entry) => entry.id === use.preset) as Preset & { draw: Drawing };
  const profile = profileOf(use);
  const colours = (scheme === 'old' && profile.colours.old) || profile.colours.today;
  const sketch = new Sketch(size, colours.ground, profile.connectors.usual, newId, index);
  preset.draw(sketch, colours);
  const positions = Array.from({ length: preset.gangs }, (_, at) => ({
    index: index + at,
    ...(preset.onePlate ? { gang, yoke: index } : {}),
    existing: preset.existing,
    loadIds: at === 0 ? loadIds : [],
    need: { smart: true },
    ...(sketch.breakOff ? { breakOff: sketch.breakOff } : {}),
  }));
  return {
    cables: sketch.cables,
    conductors: sketch.conductors,
    joints: sketch.joints,
    positions,
    labels: [],
  };
}

/**
 * A box with a usual one put into it: what it holds already stays, its positions take what the preset says,
 * and positions it does not have yet are added, on a plate or in a gang of their own.
 */
export function withPreset(box: Box, made: PresetContents): BoxChange {
  const filled = new Map(made.positions.map((entry) => [entry.index, entry]));
  const before = new Set(box.positions.map(({ index }) => index));
  const added = made.positions.filter(({ index }) => !before.has(index));
  const gangs = Math.max(
    box.enclosure.gangs,
    ...added.map(({ gang, index, width }) => (gang ?? index) + (width ?? 1) - 1),
  );
  return {
    ...(gangs > box.enclosure.gangs ? { enclosure: { ...box.enclosure, gangs } } : {}),
    cables: [...box.cables, ...made.cables],
    conductors: [...box.conductors, ...made.conductors],
    joints: [...box.joints, ...made.joints],
    positions: [
      ...box.positions.map((entry) => {
        const own = filled.get(entry.index);
        if (!own) return entry;
        const { existing, breakOff, gang, yoke } = own;
        const shared = made.positions.length > 1 && yoke !== undefined ? { gang, yoke } : {};
        return { ...entry, existing, ...(breakOff ? { breakOff } : {}), ...shared };
      }),
      ...added,
    ],
  };
}

/**
 * The usual boxes of a practice, those first that boxes of the same room and of the house already are: by how
 * many of their cables, cores and terminals are alike.
 */
export function presetsInOrder(box: Box, job: Job): ReturnType<typeof presetsFor> {
  const seen = new Map<string, number>();
  for (const other of job.boxes) {
    if (other.id === box.id || other.conductors.length === 0) continue;
    const looks = looksOf(other);
    seen.set(looks, (seen.get(looks) ?? 0) + (other.roomId === box.roomId ? 3 : 1));
  }
  const weigh = (preset: PresetId) => {
    let serial = 0;
    const made = presetContents({ preset, practice: job.practice, size: '14AWG' }, () => {
      serial += 1;
      return String(serial);
    });
    return seen.get(looksOf(made)) ?? 0;
  };
  const offered = presetsFor(job);
  const weights = new Map(offered.map(({ id }) => [id, weigh(id)]));
  return [...offered].sort((a, b) => (weights.get(b.id) ?? 0) - (weights.get(a.id) ?? 0));
}

/** Equal for boxes with the same number of cables, cores on terminals, pigtails and joints. */
function looksOf({ cables, conductors, joints, positions }: PresetContents | Box): string {
  const cores = cables.map(({ id }) => conductors.filter(({ cableId }) => cableId === id).length).sort();
  const onTerminals = conductors
    .flatMap(({ at }) => (at?.terminal === undefined ? [] : [at.terminal]))
    .sort();
  return JSON.stringify([cores, onTerminals, joints.length, positions.map(({ existing }) => existing)]);
}
