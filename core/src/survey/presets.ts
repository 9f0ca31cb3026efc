import type { PracticeId, WireSize } from '../job/schema/primitives.js';
import type { Box } from '../job/schema/survey.js';
import type { WiringHabit } from '../practice/profile.js';
import { profileOf } from '../practice/profiles.js';
import { type Drawing, PRESETS, type Preset, type PresetId } from './preset-list.js';
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
  /** The first position it is for, 1 unless said; a preset of two gangs takes the next one too. */
  index?: number;
  /** Colours of today, or those a house of its age has. */
  scheme?: 'today' | 'old';
}

/**
 * The contents of a usual box, without labels: what is seen, not what it is.
 * @param newId makes a fresh id for each cable, conductor and joint
 */
export function presetContents(use: PresetUse, newId: () => string): PresetContents {
  const { size, loadIds = [], index = 1, scheme = 'today' } = use;
  const preset = PRESETS.find((entry) => entry.id === use.preset) as Preset & { draw: Drawing };
  const profile = profileOf(use);
  const colours = (scheme === 'old' && profile.colours.old) || profile.colours.today;
  const sketch = new Sketch(size, colours.ground, profile.connectors.usual, newId, index);
  preset.draw(sketch, colours);
  const positions = Array.from({ length: preset.gangs }, (_, at) => ({
    index: index + at,
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
