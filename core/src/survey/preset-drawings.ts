import type { At } from '../job/schema/survey.js';
import type { CableColours } from '../practice/profile.js';
import type { Sketch } from './preset-sketch.js';

/*
 * The usual boxes as they are drawn. Cables enter at the top; `==` is a joint, `[ ]` the switch.
 *
 *  power at the switch        feed: line -> [a], neutral ==; lamp: load -> [b], neutral ==; grounds ==
 *  switch loop                one cable: line -> [a], load -> [b] (the re-used white); ground
 *  loop with neutral          one cable: line -> [a], load -> [b], neutral capped
 *  feed-through               power at the switch, and a third cable carries line and neutral on;
 *                             line by a pigtail
 *  two under one screw        line in and line on -> [a]; the load -> [b]; neutrals ==
 *  all grounds                power at the switch, with pigtails from the grounds to box and switch
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
 *  jumper to the next gang    feed: line == with two pigtails -> [a] [a]; two lamps; neutrals ==
 *  ceiling-fed drop           one cable: permanent live -> [a], switched live -> [b]; earth on the box
 *  live looped at the switch  in and out: lives == by a pigtail to [a], neutrals ==; lamp: -> [b]
 *  two-way, three-core        one cable of three: common -> [common], strappers -> [t1 t2]
 *  conversion, first switch   drop: live and switched live -> [t1 t2];
 *                             three-core: link -> [common], strappers -> [t1 t2] with them
 *  one live, one wire a load  modular: mains: live -> [a], neutral ==; lamp: wire -> [b], neutral ==
 *  two modules, one live      modular: mains: live == with two pigtails;
 *                             a wire to each load, the fan's with its own colour
 */

/** Draws a usual box in the colours its cables have. */
export type Drawing = (sketch: Sketch, colours: CableColours) => void;

/** Draws a feed to the switch and a lamp from it. @returns the joint of the grounds */
function switched(sketch: Sketch, { line, neutral, load }: CableColours): At {
  const [feed, lamp] = [sketch.cable(), sketch.cable()];
  const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
  feed.wire(line, sketch.on('a')).wire(neutral, neutrals).ground(grounds);
  lamp.wire(load, sketch.on('b')).wire(neutral, neutrals).ground(grounds);
  return grounds;
}

export const powerAtSwitch: Drawing = (sketch, colours) => {
  switched(sketch, colours);
};

export const allGrounds: Drawing = (sketch, colours) => {
  const grounds = switched(sketch, colours);
  sketch.pigtail(colours.ground, grounds, { boxScrew: true });
  sketch.pigtail(colours.ground, grounds, sketch.on('ground'));
};

export const oneCable: Drawing = (sketch, { line, neutral }) => {
  sketch.cable().wire(line, sketch.on('a')).wire(neutral, sketch.on('b')).ground();
};

export const loopWithNeutral: Drawing = (sketch, { line, neutral, travelers }) => {
  sketch
    .cable()
    .wire(line, sketch.on('a'))
    .wire(travelers[1], sketch.on('b'))
    .wire(neutral, { capped: true })
    .ground();
};

export const twoUnderScrew: Drawing = (sketch, { line, neutral, load }) => {
  const [feed, onward, lamp] = [sketch.cable(), sketch.cable(), sketch.cable()];
  const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
  for (const through of [feed, onward])
    through.wire(line, sketch.on('a')).wire(neutral, neutrals).ground(grounds);
  lamp.wire(load, sketch.on('b')).wire(neutral, neutrals).ground(grounds);
};

export const lineCarriedOn: Drawing = (sketch, { line, neutral, load }) => {
  const [feed, onward, lamp] = [sketch.cable(), sketch.cable(), sketch.cable()];
  const [lines, neutrals, grounds] = [sketch.joint(), sketch.joint(), sketch.joint()];
  for (const through of [feed, onward]) through.wire(line, lines).wire(neutral, neutrals).ground(grounds);
  lamp.wire(load, sketch.on('b')).wire(neutral, neutrals).ground(grounds);
  sketch.pigtail(line, lines, sketch.on('a'));
};

export const threeWayEnd: Drawing = (sketch, { line, neutral, travelers }) => {
  const [far, near] = [sketch.cable(), sketch.cable()];
  const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
  far
    .wire(travelers[0], sketch.on('t1'))
    .wire(travelers[1], sketch.on('t2'))
    .wire(neutral, neutrals)
    .ground(grounds);
  near.wire(line, sketch.on('common')).wire(neutral, neutrals).ground(grounds);
};

/** A pigtail from the one line to each of so many controls, and a cable to each load. */
export const fromOneFeed =
  (controls: 2 | 3): Drawing =>
  (sketch, { line, neutral, load, travelers }) => {
    const [lines, neutrals, grounds] = [sketch.joint(), sketch.joint(), sketch.joint()];
    sketch.cable().wire(line, lines).wire(neutral, neutrals).ground(grounds);
    for (const [gang, colour] of [load, ...travelers].slice(0, controls).entries()) {
      const lamp = sketch.cable();
      lamp.wire(colour, sketch.on('b', gang)).wire(neutral, neutrals).ground(grounds);
      sketch.pigtail(line, lines, sketch.on('a', gang));
    }
  };

/** The pairs of terminals that the two cables of a switch in the middle are on. */
const MIDDLE = [
  ['t1', 't2'],
  ['t3', 't4'],
] as const;

export const inTheMiddle: Drawing = (sketch, { neutral, travelers }) => {
  const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
  for (const [one, two] of MIDDLE)
    sketch
      .cable()
      .wire(travelers[0], sketch.on(one))
      .wire(travelers[1], sketch.on(two))
      .wire(neutral, neutrals)
      .ground(grounds);
};

export const twoLoadsOneCable: Drawing = (sketch, { line, neutral, load, travelers }) => {
  const [feed, fan] = [sketch.cable(), sketch.cable()];
  const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
  feed.wire(line, sketch.on('line')).wire(neutral, neutrals).ground(grounds);
  fan
    .wire(load, sketch.on('fan'))
    .wire(travelers[1], sketch.on('light'))
    .wire(neutral, neutrals)
    .ground(grounds);
};

export const halfReceptacle: Drawing = (sketch, { line, neutral, travelers }) => {
  const supply = sketch.cable();
  supply
    .wire(line, sketch.on('hot'))
    .wire(travelers[1], sketch.on('hot2'))
    .wire(neutral, sketch.on('neutral'));
  supply.ground(sketch.on('ground'));
  sketch.breakOff = 'hot';
};

export const pairOfLines: Drawing = (sketch, { line, load, travelers }) => {
  const [feed, heater] = [sketch.cable(), sketch.cable()];
  const grounds = sketch.joint();
  feed.wire(line, sketch.on('a1')).wire(travelers[1], sketch.on('a2')).ground(grounds);
  heater.wire(load, sketch.on('b1')).wire(travelers[1], sketch.on('b2')).ground(grounds);
};

export const twoFeeds: Drawing = (sketch, { line, neutral, load }) => {
  const grounds = sketch.joint();
  for (const gang of [0, 1]) {
    const neutrals = sketch.joint();
    sketch.cable().wire(line, sketch.on('a', gang)).wire(neutral, neutrals).ground(grounds);
    sketch.cable().wire(load, sketch.on('b', gang)).wire(neutral, neutrals).ground(grounds);
  }
};

export const sharedNeutral: Drawing = (sketch, { line, neutral, load, travelers }) => {
  const [neutrals, grounds] = [sketch.joint(), sketch.joint()];
  sketch
    .cable()
    .wire(line, sketch.on('a'))
    .wire(travelers[1], sketch.on('a', 1))
    .wire(neutral, neutrals)
    .ground(grounds);
  for (const gang of [0, 1])
    sketch.cable().wire(load, sketch.on('b', gang)).wire(neutral, neutrals).ground(grounds);
};

/** A three-core cable to the far switch, all on this one. */
function toFarSwitch(sketch: Sketch, { strappers: [link, one, two] }: CableColours) {
  return sketch.cable().wire(link, sketch.on('common')).wire(one, sketch.on('t1')).wire(two, sketch.on('t2'));
}

export const threeCore: Drawing = (sketch, colours) => {
  toFarSwitch(sketch, colours).ground();
};

export const firstOfConversion: Drawing = (sketch, colours) => {
  const earths = sketch.joint();
  sketch.cable().wire(colours.line, sketch.on('t1')).wire(colours.neutral, sketch.on('t2')).ground(earths);
  toFarSwitch(sketch, colours).ground(earths);
};

export const intermediate: Drawing = (sketch, { strappers: [link, ...pair] }) => {
  const [commons, earths] = [sketch.joint(), sketch.joint()];
  for (const [one, two] of MIDDLE)
    sketch
      .cable()
      .wire(link, commons)
      .wire(pair[0], sketch.on(one))
      .wire(pair[1], sketch.on(two))
      .ground(earths);
};

export const socket: Drawing = (sketch, { line, neutral }) => {
  sketch.cable().wire(line, sketch.on('hot')).wire(neutral, sketch.on('neutral')).ground(sketch.on('ground'));
};
