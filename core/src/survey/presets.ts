import type { Colour, PracticeId, Role, WireSize } from '../job/schema/primitives.js';
import type { At, Box, Conductor, ExistingDevice, Label } from '../job/schema/survey.js';

/**
 * Usual boxes, drawn and numbered. Cables enter at the top; `==` is a joint, `[ ]` the switch.
 *
 * 1 power at the switch        feed: line -> [a], neutral ==; lamp: load -> [b], neutral ==; grounds ==
 * 2 switch loop                one cable: line -> [a], load -> [b] (the re-used white); ground
 * 3 feed-through               1, and a third cable carries line and neutral on; line by a pigtail
 * 4 three-way, line side       feed: line -> [common], neutral ==; to the far switch: travelers -> [t1 t2], neutral ==
 * 5 three-way, load side       from the far switch: travelers -> [t1 t2], neutral ==; lamp: load -> [common], neutral ==
 */
export type PresetId = 'power-at-switch' | 'switch-loop' | 'feed-through' | 'three-way-line' | 'three-way-load';

export interface Preset {
  id: PresetId;
  name: string;
  /** What the installer sees that tells this box from the others. */
  sign: string;
  existing: ExistingDevice;
}

export const PRESETS: readonly Preset[] = [
  { id: 'power-at-switch', name: 'Power at the switch', sign: 'Two cables, whites joined behind the switch', existing: 'single-pole' },
  { id: 'switch-loop', name: 'Switch loop', sign: 'One cable, both conductors on the switch', existing: 'single-pole' },
  { id: 'feed-through', name: 'Feed-through', sign: 'Three cables, a tail from the black joint to the switch', existing: 'single-pole' },
  {
    id: 'three-way-line',
    name: 'Three-way, line side',
    sign: 'Feed on the odd screw, three conductors to the far switch',
    existing: 'three-way',
  },
  {
    id: 'three-way-load',
    name: 'Three-way, load side',
    sign: 'Lamp on the odd screw, three conductors from the far switch',
    existing: 'three-way',
  },
];

/** What a preset puts into a box; the installer corrects it. Labels are proposals of the preset and not part of it. */
export type PresetContents = Pick<Box, 'cables' | 'conductors' | 'joints' | 'positions' | 'labels'>;

interface Colours {
  line: Colour;
  neutral: Colour;
  ground: Colour;
  load: Colour;
  travelers: [Colour, Colour];
}

const COLOURS: Record<PracticeId, Colours> = {
  us: { line: 'black', neutral: 'white', ground: 'bare', load: 'black', travelers: ['black', 'red'] },
  ca: { line: 'black', neutral: 'white', ground: 'bare', load: 'black', travelers: ['black', 'red'] },
  gb: { line: 'brown', neutral: 'blue', ground: 'green-yellow', load: 'brown', travelers: ['black', 'grey'] },
  modular: { line: 'red', neutral: 'black', ground: 'green', load: 'red', travelers: ['yellow', 'blue'] },
};

/** The size such cables usually have: by the breaker in North America, 1.5 mm2 elsewhere. */
export function usualSize(practice: PracticeId, amps: number | undefined): WireSize {
  if (practice === 'gb' || practice === 'modular') return '1.5mm2';
  return amps !== undefined && amps > 15 ? '12AWG' : '14AWG';
}

/**
 * The contents of a usual box, without labels: what is seen, not what it is.
 * @param newId makes a fresh id for each cable, conductor and joint
 * @param index the position it is for; a box of several gangs takes one preset a gang
 */
export function presetContents(
  preset: PresetId,
  practice: PracticeId,
  size: WireSize,
  loadIds: string[],
  newId: () => string,
  index = 1,
): PresetContents {
  const colours = COLOURS[practice];
  const contents: PresetContents = { cables: [], conductors: [], joints: [], positions: [], labels: [] };
  const cable = (label: string) => {
    const id = newId();
    contents.cables.push({ id, label, entry: 'top' });
    return id;
  };
  const joint = () => {
    const id = newId();
    contents.joints.push({ id, connector: practice === 'us' || practice === 'ca' ? 'twist-on' : 'lever' });
    return { joint: id };
  };
  const wire = (cableId: string, colour: Colour, at: At, more: Partial<Conductor> = {}) =>
    contents.conductors.push({ id: newId(), cableId, size, colour, at, ...more });
  const on = (terminal: string): At => ({ position: index, terminal });
  const tail = (colour: Colour, from: At, terminal: string) =>
    contents.conductors.push({ id: newId(), size, colour, ends: [from, on(terminal)] });

  switch (preset) {
    case 'power-at-switch': {
      const [feed, lamp] = [cable('feed'), cable('lamp')];
      const [neutrals, grounds] = [joint(), joint()];
      wire(feed, colours.line, on('a'));
      wire(feed, colours.neutral, neutrals);
      wire(feed, colours.ground, grounds);
      wire(lamp, colours.load, on('b'));
      wire(lamp, colours.neutral, neutrals);
      wire(lamp, colours.ground, grounds);
      break;
    }
    case 'switch-loop': {
      const drop = cable('drop');
      wire(drop, colours.line, on('a'));
      wire(drop, colours.neutral, on('b'));
      wire(drop, colours.ground, { boxScrew: true });
      break;
    }
    case 'feed-through': {
      const [feed, onward, lamp] = [cable('feed'), cable('onward'), cable('lamp')];
      const [lines, neutrals, grounds] = [joint(), joint(), joint()];
      for (const through of [feed, onward]) {
        wire(through, colours.line, lines);
        wire(through, colours.neutral, neutrals);
        wire(through, colours.ground, grounds);
      }
      wire(lamp, colours.load, on('b'));
      wire(lamp, colours.neutral, neutrals);
      wire(lamp, colours.ground, grounds);
      tail(colours.line, lines, 'a');
      break;
    }
    case 'three-way-line':
    case 'three-way-load': {
      const [far, own] = [cable('far switch'), cable(preset === 'three-way-line' ? 'feed' : 'lamp')];
      const [neutrals, grounds] = [joint(), joint()];
      wire(far, colours.travelers[0], on('t1'));
      wire(far, colours.travelers[1], on('t2'));
      wire(far, colours.neutral, neutrals);
      wire(far, colours.ground, grounds);
      wire(own, colours.line, on('common'));
      wire(own, colours.neutral, neutrals);
      wire(own, colours.ground, grounds);
      break;
    }
  }
  const { existing } = PRESETS.find((entry) => entry.id === preset) as Preset;
  contents.positions.push({ index, existing, loadIds, need: { smart: true } });
  return contents;
}

/** A label as the installer sets it by hand, with what the role asks for beside it. */
export function labelFor(
  conductorId: string,
  role: Role,
  context: { loadIds: string[]; circuitIds: string[]; groupId?: string; traveler?: number },
): Label {
  const circuit = context.circuitIds.length === 1 ? context.circuitIds[0] : undefined;
  switch (role) {
    case 'load':
      return { conductorId, role, ...(context.loadIds.length > 0 ? { loadIds: context.loadIds } : {}) };
    case 'line':
    case 'line-on':
    case 'neutral':
      return { conductorId, role, ...(circuit ? { circuitId: circuit } : {}) };
    case 'traveler':
      return {
        conductorId,
        role,
        ...(context.groupId ? { groupId: context.groupId } : {}),
        ...(context.traveler ? { traveler: context.traveler } : {}),
      };
    default:
      return { conductorId, role };
  }
}
