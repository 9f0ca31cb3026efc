import type { Colour, PracticeId, Role, WireSize } from '../job/schema/primitives.js';
import type { At, Box, Conductor, ExistingDevice, Label } from '../job/schema/survey.js';

/**
 * Usual boxes, drawn and numbered. Cables enter at the top; `==` is a joint, `[ ]` the switch.
 *
 *  1 power at the switch        feed: line -> [a], neutral ==; lamp: load -> [b], neutral ==; grounds ==
 *  2 switch loop                one cable: line -> [a], load -> [b] (the re-used white); ground
 *  3 loop with neutral          one cable: line -> [a], load -> [b], neutral capped
 *  4 feed-through               1, and a third cable carries line and neutral on; line by a pigtail
 *  5 three-way, line side       feed: line -> [common], neutral ==; to the far switch: travelers -> [t1 t2], neutral ==
 *  6 three-way, load side       from the far switch: travelers -> [t1 t2], neutral ==; lamp: load -> [common], neutral ==
 *  7 four-way                   travelers in -> [t1 t2], travelers on -> [t3 t4], neutrals ==
 *  8 fan and light              feed: line -> [line], neutral ==; one cable: fan -> [fan], light -> [light], neutral ==
 *  9 half-switched receptacle   line -> [hot], switched -> [hot2], neutral -> [neutral]
 * 10 240 V pair                 two lines -> [a1 a2], two loads -> [b1 b2], no neutral
 * 11 ceiling-fed drop           one cable: permanent live -> [a], switched live -> [b]; earth on the box
 * 12 live looped at the switch  in and out: lives == by a tail to [a], neutrals ==; lamp: -> [b]
 * 13 two-way, three-core        one cable of three: commons linked -> [common], strappers -> [t1 t2]
 * 14 one live, one wire a load  modular: mains: live -> [a], neutral ==; lamp: wire -> [b], neutral ==
 */
export type PresetId =
  | 'power-at-switch'
  | 'switch-loop'
  | 'loop-with-neutral'
  | 'feed-through'
  | 'three-way-line'
  | 'three-way-load'
  | 'four-way'
  | 'fan-light'
  | 'half-receptacle'
  | 'pair-240'
  | 'ceiling-drop'
  | 'live-looped'
  | 'two-way-three-core'
  | 'module-wire';

export interface Preset {
  id: PresetId;
  name: string;
  /** What the installer sees that tells this box from the others. */
  sign: string;
  existing: ExistingDevice;
  practices: readonly PracticeId[];
}

const AMERICA: readonly PracticeId[] = ['us', 'ca'];

export const PRESETS: readonly Preset[] = [
  {
    id: 'power-at-switch',
    name: 'Power at the switch',
    sign: 'Two cables, neutrals joined behind the switch',
    existing: 'single-pole',
    practices: ['us', 'ca', 'gb', 'modular'],
  },
  { id: 'switch-loop', name: 'Switch loop', sign: 'One cable, both conductors on the switch', existing: 'single-pole', practices: AMERICA },
  {
    id: 'loop-with-neutral',
    name: 'Loop with neutral',
    sign: 'One cable of three, the white capped',
    existing: 'single-pole',
    practices: AMERICA,
  },
  {
    id: 'feed-through',
    name: 'Feed-through',
    sign: 'Three cables, a tail from the black joint to the switch',
    existing: 'single-pole',
    practices: AMERICA,
  },
  {
    id: 'three-way-line',
    name: 'Three-way, line side',
    sign: 'Feed on the odd screw, three conductors to the far switch',
    existing: 'three-way',
    practices: AMERICA,
  },
  {
    id: 'three-way-load',
    name: 'Three-way, load side',
    sign: 'Lamp on the odd screw, three conductors from the far switch',
    existing: 'three-way',
    practices: AMERICA,
  },
  {
    id: 'four-way',
    name: 'Four-way, in the middle',
    sign: 'Two cables of three, four screws in pairs',
    existing: 'four-way',
    practices: AMERICA,
  },
  {
    id: 'fan-light',
    name: 'Fan and light, two wires',
    sign: 'A cable of three to the fan, black and red on the control',
    existing: 'fan-light',
    practices: AMERICA,
  },
  {
    id: 'half-receptacle',
    name: 'Half-switched receptacle',
    sign: 'The tab broken off on the hot side',
    existing: 'receptacle',
    practices: AMERICA,
  },
  {
    id: 'pair-240',
    name: '240 V pair',
    sign: 'Four conductors on a double-pole switch, no neutral',
    existing: 'double-pole',
    practices: AMERICA,
  },
  { id: 'ceiling-drop', name: 'Ceiling-fed drop', sign: 'One cable from the rose, no neutral', existing: 'single-pole', practices: ['gb'] },
  {
    id: 'live-looped',
    name: 'Live looped at the switch',
    sign: 'Lives joined in and out, neutrals joined through',
    existing: 'single-pole',
    practices: ['gb'],
  },
  {
    id: 'two-way-three-core',
    name: 'Two-way, three-core',
    sign: 'One cable of three to the far switch, all on the switch',
    existing: 'three-way',
    practices: ['gb'],
  },
  {
    id: 'module-wire',
    name: 'One live in, one wire a load',
    sign: 'Live and neutral in, a wire to each load',
    existing: 'single-pole',
    practices: ['modular'],
  },
];

export function presetsFor(practice: PracticeId): Preset[] {
  return PRESETS.filter((preset) => preset.practices.includes(practice));
}

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
    case 'loop-with-neutral': {
      const drop = cable('drop');
      wire(drop, colours.line, on('a'));
      wire(drop, colours.travelers[1], on('b'));
      wire(drop, colours.neutral, { capped: true });
      wire(drop, colours.ground, { boxScrew: true });
      break;
    }
    case 'four-way': {
      const [one, two] = [cable('from one switch'), cable('to the other')];
      const [neutrals, grounds] = [joint(), joint()];
      for (const [pair, terminals] of [
        [one, ['t1', 't2']],
        [two, ['t3', 't4']],
      ] as const) {
        wire(pair, colours.travelers[0], on(terminals[0]));
        wire(pair, colours.travelers[1], on(terminals[1]));
        wire(pair, colours.neutral, neutrals);
        wire(pair, colours.ground, grounds);
      }
      break;
    }
    case 'fan-light': {
      const [feed, fan] = [cable('feed'), cable('fan')];
      const [neutrals, grounds] = [joint(), joint()];
      wire(feed, colours.line, on('line'));
      wire(feed, colours.neutral, neutrals);
      wire(feed, colours.ground, grounds);
      wire(fan, colours.load, on('fan'));
      wire(fan, colours.travelers[1], on('light'));
      wire(fan, colours.neutral, neutrals);
      wire(fan, colours.ground, grounds);
      break;
    }
    case 'half-receptacle': {
      const supply = cable('from the switch');
      wire(supply, colours.line, on('hot'));
      wire(supply, colours.travelers[1], on('hot2'));
      wire(supply, colours.neutral, on('neutral'));
      wire(supply, colours.ground, on('ground'));
      break;
    }
    case 'pair-240': {
      const [feed, heater] = [cable('feed'), cable('heater')];
      const grounds = joint();
      wire(feed, colours.line, on('a1'));
      wire(feed, colours.travelers[1], on('a2'));
      wire(feed, colours.ground, grounds);
      wire(heater, colours.load, on('b1'));
      wire(heater, colours.travelers[1], on('b2'));
      wire(heater, colours.ground, grounds);
      break;
    }
    case 'ceiling-drop': {
      const drop = cable('drop');
      wire(drop, colours.line, on('a'));
      wire(drop, colours.neutral, on('b'));
      wire(drop, colours.ground, { boxScrew: true });
      break;
    }
    case 'two-way-three-core': {
      const link = cable('far switch');
      wire(link, 'brown', on('common'));
      wire(link, 'black', on('t1'));
      wire(link, 'grey', on('t2'));
      wire(link, colours.ground, { boxScrew: true });
      break;
    }
    case 'module-wire': {
      const [mains, lamp] = [cable('mains'), cable('lamp')];
      const [neutrals, grounds] = [joint(), joint()];
      wire(mains, colours.line, on('a'));
      wire(mains, colours.neutral, neutrals);
      wire(mains, colours.ground, grounds);
      wire(lamp, colours.load, on('b'));
      wire(lamp, colours.neutral, neutrals);
      wire(lamp, colours.ground, grounds);
      break;
    }
    case 'live-looped':
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
  contents.positions.push({
    index,
    existing,
    loadIds,
    need: { smart: true },
    ...(preset === 'half-receptacle' ? { breakOff: 'hot' as const } : {}),
  });
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
