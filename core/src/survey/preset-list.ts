import type { ExistingDevice } from '../job/schema/survey.js';
import type { CableColours, WiringHabit } from '../practice/profile.js';
import type { Sketch } from './preset-sketch.js';

/** Draws a usual box in the colours its cables have. */
export type Drawing = (sketch: Sketch, colours: CableColours) => void;

/** The two cables of a switch in the middle, and the pair of terminals each is on. */
const MIDDLE = [
  ['from one switch', 't1', 't2'],
  ['to the other', 't3', 't4'],
] as const;

const lineCarriedOn: Drawing = (sketch, { line, neutral, load }) => {
  const [feed, onward, lamp] = [sketch.cable('feed'), sketch.cable('onward'), sketch.cable('lamp')];
  const [lines, neutrals, grounds] = [sketch.joint(), sketch.joint(), sketch.joint()];
  for (const through of [feed, onward]) through.wire(line, lines).wire(neutral, neutrals).ground(grounds);
  lamp.wire(load, sketch.on('b')).wire(neutral, neutrals).ground(grounds);
  sketch.tail(line, lines, sketch.on('a'));
};

function threeWayEnd(sketch: Sketch, { line, neutral, travelers }: CableColours, own: string): void {
  const [far, near] = [sketch.cable('far switch'), sketch.cable(own)];
  const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
  far
    .wire(travelers[0], sketch.on('t1'))
    .wire(travelers[1], sketch.on('t2'))
    .wire(neutral, neutrals)
    .ground(grounds);
  near.wire(line, sketch.on('common')).wire(neutral, neutrals).ground(grounds);
}

const twoFromOneFeed: Drawing = (sketch, { line, neutral, load, travelers }) => {
  const [lines, neutrals, grounds] = [sketch.joint(), sketch.joint(), sketch.joint()];
  sketch.cable('feed').wire(line, lines).wire(neutral, neutrals).ground(grounds);
  for (const [gang, colour] of [load, travelers[0]].entries()) {
    const lamp = sketch.cable(gang === 0 ? 'lamp' : 'second load');
    lamp.wire(colour, sketch.on('b', gang)).wire(neutral, neutrals).ground(grounds);
    sketch.tail(line, lines, sketch.on('a', gang));
  }
};

/**
 * Usual boxes. Cables enter at the top; `==` is a joint, `[ ]` the switch.
 *
 *  power at the switch        feed: line -> [a], neutral ==; lamp: load -> [b], neutral ==; grounds ==
 *  switch loop                one cable: line -> [a], load -> [b] (the re-used white); ground
 *  loop with neutral          one cable: line -> [a], load -> [b], neutral capped
 *  feed-through               power at the switch, and a third cable carries line and neutral on;
 *                             line by a tail
 *  three-way, line side       feed: line -> [common], neutral ==;
 *                             to the far switch: travelers -> [t1 t2], neutral ==
 *  three-way, load side       from the far switch: travelers -> [t1 t2], neutral ==;
 *                             lamp: load -> [common], neutral ==
 *  four-way, intermediate     travelers in -> [t1 t2], travelers on -> [t3 t4]; neutrals or commons ==
 *  fan and light              feed: line -> [line], neutral ==;
 *                             one cable: fan -> [fan], light -> [light], neutral ==
 *  fan and light on one wire  power at the switch, with two loads on the one conductor
 *  half-switched receptacle   line -> [hot], switched -> [hot2], neutral -> [neutral]
 *  240 V pair                 two lines -> [a1 a2], two loads -> [b1 b2], no neutral
 *  two circuits               power at the switch twice, the neutrals kept apart
 *  two circuits, one neutral  one feed of three: line -> [a], the other line -> [a] next door, N ==
 *  jumper to the next gang    feed: line == with two tails -> [a] [a]; two lamps; neutrals ==
 *  ceiling-fed drop           one cable: permanent live -> [a], switched live -> [b]; earth on the box
 *  live looped at the switch  in and out: lives == by a tail to [a], neutrals ==; lamp: -> [b]
 *  two-way, three-core        one cable of three: common -> [common], strappers -> [t1 t2]
 *  conversion, first switch   drop: live and switched live -> [t1 t2];
 *                             three-core: link -> [common], strappers -> [t1 t2] with them
 *  one live, one wire a load  modular: mains: live -> [a], neutral ==; lamp: wire -> [b], neutral ==
 *  two modules, one live      modular: mains: live == with two tails;
 *                             a wire to each load, the fan's with its own colour
 */
export const PRESETS = [
  {
    id: 'power-at-switch',
    name: 'Power at the switch',
    sign: 'Two cables, neutrals joined behind the switch',
    existing: 'single-pole',
    wiring: ['north-american', 'british', 'modular'],
    gangs: 1,
    draw: (sketch, { line, neutral, load }) => {
      const [feed, lamp] = [sketch.cable('feed'), sketch.cable('lamp')];
      const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
      feed.wire(line, sketch.on('a')).wire(neutral, neutrals).ground(grounds);
      lamp.wire(load, sketch.on('b')).wire(neutral, neutrals).ground(grounds);
    },
  },
  {
    id: 'switch-loop',
    name: 'Switch loop',
    sign: 'One cable, both conductors on the switch',
    existing: 'single-pole',
    wiring: ['north-american'],
    gangs: 1,
    draw: (sketch, { line, neutral }) => {
      sketch.cable('drop').wire(line, sketch.on('a')).wire(neutral, sketch.on('b')).ground();
    },
  },
  {
    id: 'loop-with-neutral',
    name: 'Loop with neutral',
    sign: 'One cable of three, the white capped',
    existing: 'single-pole',
    wiring: ['north-american'],
    gangs: 1,
    draw: (sketch, { line, neutral, travelers }) => {
      sketch
        .cable('drop')
        .wire(line, sketch.on('a'))
        .wire(travelers[1], sketch.on('b'))
        .wire(neutral, { capped: true })
        .ground();
    },
  },
  {
    id: 'feed-through',
    name: 'Feed-through',
    sign: 'Three cables, a tail from the black joint to the switch',
    existing: 'single-pole',
    wiring: ['north-american'],
    gangs: 1,
    draw: lineCarriedOn,
  },
  {
    id: 'three-way-line',
    name: 'Three-way, line side',
    sign: 'Feed on the odd screw, three conductors to the far switch',
    existing: 'three-way',
    wiring: ['north-american'],
    gangs: 1,
    draw: (sketch, colours) => threeWayEnd(sketch, colours, 'feed'),
  },
  {
    id: 'three-way-load',
    name: 'Three-way, load side',
    sign: 'Lamp on the odd screw, three conductors from the far switch',
    existing: 'three-way',
    wiring: ['north-american'],
    gangs: 1,
    draw: (sketch, colours) => threeWayEnd(sketch, colours, 'lamp'),
  },
  {
    id: 'four-way',
    name: 'Four-way, in the middle',
    sign: 'Two cables of three, four screws in pairs',
    existing: 'four-way',
    wiring: ['north-american'],
    gangs: 1,
    draw: (sketch, { neutral, travelers }) => {
      const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
      for (const [name, one, two] of MIDDLE)
        sketch
          .cable(name)
          .wire(travelers[0], sketch.on(one))
          .wire(travelers[1], sketch.on(two))
          .wire(neutral, neutrals)
          .ground(grounds);
    },
  },
  {
    id: 'fan-light',
    name: 'Fan and light, two wires',
    sign: 'A cable of three to the fan, black and red on the control',
    existing: 'fan-light',
    wiring: ['north-american'],
    gangs: 1,
    draw: (sketch, { line, neutral, load, travelers }) => {
      const [feed, fan] = [sketch.cable('feed'), sketch.cable('fan')];
      const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
      feed.wire(line, sketch.on('line')).wire(neutral, neutrals).ground(grounds);
      fan
        .wire(load, sketch.on('fan'))
        .wire(travelers[1], sketch.on('light'))
        .wire(neutral, neutrals)
        .ground(grounds);
    },
  },
  {
    id: 'fan-light-one-wire',
    name: 'Fan and light, one wire',
    sign: 'A cable of two to the fan: its light cannot be switched apart',
    existing: 'single-pole',
    wiring: ['north-american'],
    gangs: 1,
    draw: (sketch, { line, neutral, load }) => {
      const [feed, fan] = [sketch.cable('feed'), sketch.cable('fan with light')];
      const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
      feed.wire(line, sketch.on('a')).wire(neutral, neutrals).ground(grounds);
      fan.wire(load, sketch.on('b')).wire(neutral, neutrals).ground(grounds);
    },
  },
  {
    id: 'half-receptacle',
    name: 'Half-switched receptacle',
    sign: 'The tab broken off on the hot side',
    existing: 'receptacle',
    wiring: ['north-american'],
    gangs: 1,
    draw: (sketch, { line, neutral, travelers }) => {
      const supply = sketch.cable('from the switch');
      supply
        .wire(line, sketch.on('hot'))
        .wire(travelers[1], sketch.on('hot2'))
        .wire(neutral, sketch.on('neutral'));
      supply.ground(sketch.on('ground'));
      sketch.breakOff = 'hot';
    },
  },
  {
    id: 'pair-240',
    name: '240 V pair',
    sign: 'Four conductors on a double-pole switch, no neutral',
    existing: 'double-pole',
    wiring: ['north-american'],
    gangs: 1,
    draw: (sketch, { line, load, travelers }) => {
      const [feed, heater] = [sketch.cable('feed'), sketch.cable('heater')];
      const grounds = sketch.joint();
      feed.wire(line, sketch.on('a1')).wire(travelers[1], sketch.on('a2')).ground(grounds);
      heater.wire(load, sketch.on('b1')).wire(travelers[1], sketch.on('b2')).ground(grounds);
    },
  },
  {
    id: 'two-circuits',
    name: 'Two circuits, two neutrals',
    sign: 'Two feeds, their neutrals in two joints that are kept apart',
    existing: 'single-pole',
    wiring: ['north-american', 'british'],
    gangs: 2,
    draw: (sketch, { line, neutral, load }) => {
      const grounds = sketch.joint();
      for (const [gang, name] of ['', ', second'].entries()) {
        const neutrals = sketch.joint();
        sketch.cable(`feed${name}`).wire(line, sketch.on('a', gang)).wire(neutral, neutrals).ground(grounds);
        sketch.cable(`lamp${name}`).wire(load, sketch.on('b', gang)).wire(neutral, neutrals).ground(grounds);
      }
    },
  },
  {
    id: 'shared-neutral',
    name: 'Two circuits, one neutral',
    sign: 'One feed of three, black and red on two switches, the neutrals in one joint',
    existing: 'single-pole',
    wiring: ['north-american'],
    gangs: 2,
    draw: (sketch, { line, neutral, load, travelers }) => {
      const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
      sketch
        .cable('feed')
        .wire(line, sketch.on('a'))
        .wire(travelers[1], sketch.on('a', 1))
        .wire(neutral, neutrals)
        .ground(grounds);
      for (const [gang, name] of ['lamp', 'lamp, second'].entries())
        sketch.cable(name).wire(load, sketch.on('b', gang)).wire(neutral, neutrals).ground(grounds);
    },
  },
  {
    id: 'jumper',
    name: 'Jumper to the next gang',
    sign: 'One feed; a tail from its line to each of two switches',
    existing: 'single-pole',
    wiring: ['north-american', 'british'],
    gangs: 2,
    draw: twoFromOneFeed,
  },
  {
    id: 'ceiling-drop',
    name: 'Ceiling-fed drop',
    sign: 'One cable from the rose, no neutral',
    existing: 'single-pole',
    wiring: ['british'],
    gangs: 1,
    draw: (sketch, { line, neutral }) => {
      sketch.cable('drop').wire(line, sketch.on('a')).wire(neutral, sketch.on('b')).ground();
    },
  },
  {
    id: 'live-looped',
    name: 'Live looped at the switch',
    sign: 'Lives joined in and out, neutrals joined through',
    existing: 'single-pole',
    wiring: ['british'],
    gangs: 1,
    draw: lineCarriedOn,
  },
  {
    id: 'two-way-three-core',
    name: 'Two-way, three-core',
    sign: 'One cable of three to the far switch, all on the switch',
    existing: 'three-way',
    wiring: ['british'],
    gangs: 1,
    draw: (sketch, { strappers: [link, one, two] }) => {
      sketch
        .cable('far switch')
        .wire(link, sketch.on('common'))
        .wire(one, sketch.on('t1'))
        .wire(two, sketch.on('t2'))
        .ground();
    },
  },
  {
    id: 'conversion-first',
    name: 'Two-way by conversion, first switch',
    sign: 'The old drop on the outer terminals with two of the three-core, the third alone on the common',
    existing: 'three-way',
    wiring: ['british'],
    gangs: 1,
    draw: (sketch, { line, neutral, strappers: [link, one, two] }) => {
      const earths = sketch.joint();
      sketch.cable('drop').wire(line, sketch.on('t1')).wire(neutral, sketch.on('t2')).ground(earths);
      sketch
        .cable('far switch')
        .wire(link, sketch.on('common'))
        .wire(one, sketch.on('t1'))
        .wire(two, sketch.on('t2'))
        .ground(earths);
    },
  },
  {
    id: 'intermediate',
    name: 'Intermediate, in the middle',
    sign: 'Two cables of three, four terminals in pairs, the third cores joined through',
    existing: 'four-way',
    wiring: ['british'],
    gangs: 1,
    draw: (sketch, { strappers: [link, ...pair] }) => {
      const [commons, earths] = [sketch.joint(), sketch.joint()];
      for (const [name, one, two] of MIDDLE)
        sketch
          .cable(name)
          .wire(link, commons)
          .wire(pair[0], sketch.on(one))
          .wire(pair[1], sketch.on(two))
          .ground(earths);
    },
  },
  {
    id: 'module-wire',
    name: 'One live in, one wire a load',
    sign: 'Live and neutral in, a wire to each load',
    existing: 'single-pole',
    wiring: ['modular'],
    gangs: 1,
    draw: (sketch, { line, neutral, load }) => {
      const [mains, lamp] = [sketch.cable('mains'), sketch.cable('lamp')];
      const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
      mains.wire(line, sketch.on('a')).wire(neutral, neutrals).ground(grounds);
      lamp.wire(load, sketch.on('b')).wire(neutral, neutrals).ground(grounds);
    },
  },
  {
    id: 'module-wires',
    name: 'Two modules on one live',
    sign: 'The live with a tail to each module; the fan on a wire of its own colour',
    existing: 'single-pole',
    wiring: ['modular'],
    gangs: 2,
    draw: twoFromOneFeed,
  },
] as const satisfies readonly (Preset & { draw: Drawing })[];

export type PresetId = (typeof PRESETS)[number]['id'];

export interface Preset {
  id: string;
  name: string;
  /** What the installer sees that tells this box from the others. */
  sign: string;
  existing: ExistingDevice;
  wiring: readonly WiringHabit[];
  /** Positions side by side that it fills. */
  gangs: 1 | 2;
}
