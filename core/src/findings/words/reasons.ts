import type { LoadKind, PracticeId, Radio, Strategy } from '../../job/schema/primitives.js';
import type { FactValue, Reason } from '../../match/reason.js';
import type { StopCode } from '../../power/vocabulary.js';
import { profileOf } from '../../practice/profiles.js';
import { LOAD_WORDS, RADIO_WORDS, STRATEGY_WORDS, type Words } from '../../practice/words.js';
import { plural as counted } from '../../units/plural.js';
import { lengthText, type UnitSystem, volumeText } from '../../units/present.js';
import { STOP_WORDS } from './stops.js';

interface Voice {
  words: Words;
  mm(value: FactValue | undefined): string;
  ml(value: FactValue | undefined): string;
}

type Facts = Reason['facts'];
type Sentence = (facts: Facts, voice: Voice) => string;

const list = (value: FactValue | undefined) =>
  Array.isArray(value) ? value.join(', ') || 'none' : String(value ?? '');
const plural = (count: FactValue | undefined, one: string) => counted(String(count), one);
const load = (kind: FactValue | undefined) => LOAD_WORDS[kind as LoadKind] ?? String(kind);
const strategy = (name: FactValue | undefined) => STRATEGY_WORDS[name as Strategy] ?? String(name);
const lost = (sides: FactValue | undefined) =>
  sides ? ` with ${plural(sides, 'side')} removed for its neighbour` : '';

const radio = (kind: FactValue | undefined) => RADIO_WORDS[kind as Radio] ?? String(kind);
const radios = (kinds: FactValue | undefined) =>
  Array.isArray(kinds) ? kinds.map(radio).join(', ') : radio(kinds);
const metalLoss = (facts: Facts) => (facts.lost ? `, ${facts.lost} dB of it lost to metal` : '');
const LEVELS: Record<string, string> = { last: 'its last level', full: 'full', preset: 'a preset level' };
const level = (value: FactValue | undefined) => LEVELS[String(value)] ?? String(value);

/** A label that is no finding, with what speaks against it. */
const doubt = (facts: Facts, role: string) => {
  const several = Array.isArray(facts.conductors) && facts.conductors.length > 1;
  const what = `${list(facts.conductors)} ${several ? 'are' : 'is'} labelled ${role}`;
  return facts.against === 'reading'
    ? `${what}, and a reading contradicts it: ${list(facts.said)}.`
    : `${what}, and is joined with what is labelled as another net.`;
};

/** Every sentence an engine can say, once, by the code of the finding. */
const SENTENCES: Record<string, Sentence> = {
  'hazard.aluminium': () =>
    'There is aluminium in this box, and no connector of the job takes it: an electrician has to see it.',
  'hazard.stop': (facts) =>
    `Work stops at this box: ${STOP_WORDS[facts.hazard as StopCode].name.toLowerCase()}.`,
  'practice.other': (_, { words }) => `It is not made for ${words.practice}.`,
  'voltage.outside': (facts) =>
    `Breaker ${facts.breaker} gives ${facts.volts} V; it takes ${facts.from} to ${facts.to} V.`,
  'voltage.no-circuit': (facts) =>
    `It takes ${facts.from} to ${facts.to} V; no circuit is named for this box yet.`,
  'neutral.absent': () => 'It needs a neutral, and every conductor in this box is told: none is one.',
  'neutral.other-circuit': (facts) =>
    `It needs a neutral of breaker ${facts.breaker ?? '?'}; the neutral here belongs to another circuit and must not be borrowed.`,
  'neutral.circuit-untold': (facts) =>
    `It needs a neutral of breaker ${facts.breaker ?? '?'}; whose neutral this is has not been told in a box with two circuits.`,
  'neutral.by-traveler': (_, { words }) =>
    `Only an old ${words.roles.traveler} could bring a neutral here: label that core neutral at both ends, if the local code allows it.`,
  'neutral.doubtful': (facts, { words }) => doubt(facts, words.roles.neutral),
  'neutral.unknown': () => 'It needs a neutral; none is identified yet.',
  'ground.absent': (_, { words }) => `Its maker requires a ${words.ground}; there is none in this box.`,
  'ground.local-code': (_, { words }) =>
    `A ${words.ground} is recommended and there is none: ask what the local code says.`,
  'ground.unknown': (facts, { words }) => `A ${words.ground} is ${facts.need}; none is identified yet.`,
  'ground.doubtful': (facts, { words }) => doubt(facts, words.ground),
  'ground.by-colour': (_, { words }) =>
    `Its maker requires a ${words.ground}; only colour speaks for one so far.`,
  'line-load.line-doubtful': (facts, { words }) => doubt(facts, words.roles.line),
  'line-load.load-doubtful': (facts, { words }) => doubt(facts, words.roles.load),
  'line-load.no-line': (_, { words }) => `Every conductor here is told and none is the ${words.roles.line}.`,
  'line-load.line-unknown': (_, { words }) =>
    `Which conductor is the ${words.roles.line} at this position is not identified yet.`,
  'line-load.no-load': (_, { words }) =>
    `Every conductor here is told and none is the ${words.roles.load} of this position.`,
  'line-load.load-unknown': (_, { words }) =>
    `Which conductor is the ${words.roles.load} of this position is not identified yet.`,
  'load-kind.unknown': () => 'What this position controls has not been recorded.',
  'load-kind.unrated': (facts) =>
    `${facts.load} (${load(facts.kind)}): its ${facts.channel} channel is not rated for that.`,
  'load-kind.never': (facts) =>
    `${facts.load} (${load(facts.kind)}): a ${facts.channel} channel never feeds that, whatever its record says.`,
  'load-kind.uneasy': (facts) =>
    `${facts.load} (${load(facts.kind)}): a relay cuts the supply of its own electronics.`,
  'load-kind.two-wire': (facts) =>
    `${facts.load} (${load(facts.kind)}): a device fed through its load takes lamps only.`,
  'rating.over': (facts) =>
    facts.mixed
      ? `The loads together take ${facts.percent} % of its rating${lost(facts.removedSides)}; ${facts.limitPercent} % is the limit.`
      : `${facts.quantity} ${facts.unit} on a rating of ${facts.limit} ${facts.unit}${lost(facts.removedSides)}: ${facts.percent} %, the limit is ${facts.limitPercent} %.`,
  'rating.margin': (facts) =>
    `${facts.percent} % of its rating${lost(facts.removedSides)}: within it, but over the design margin of ${facts.marginPercent} %.`,
  'minimum-load.under': (facts) =>
    `${facts.watts} W is less than the ${facts.minimum} W it needs to stay steady.`,
  'minimum-load.bypass': (facts) =>
    `${facts.watts} W is less than the ${facts.minimum} W it needs: with ${facts.part}.`,
  'dimmable.not': (facts) => `${facts.load} cannot be dimmed.`,
  'dimmable.unknown': (facts) => `Whether ${facts.load} can be dimmed is not recorded.`,
  'channels.none': (facts) =>
    `It switches nothing by itself; ${list(facts.loads)} would stay without a switch.`,
  'channels.too-few': (facts) =>
    `${plural(facts.loads, 'load')} on ${plural(facts.channels, 'channel')}: nothing is left for ${list(facts.left)}.`,
  'channels.one-wire': (facts) => `${list(facts.loads)} share one wire and cannot be controlled apart.`,
  'multi-location.not-offered': (facts) => `It does not offer this: ${strategy(facts.strategy)}.`,
  'multi-location.wrong-end': (facts, { words }) =>
    `With ${strategy(facts.strategy)} it belongs where the ${facts.mainAt === 'line' ? words.roles.line : words.roles.load} is; that is at another place.`,
  'multi-location.travelers': (facts, { words }) =>
    `${strategy(facts.strategy)} wants ${plural(facts.wanted, words.roles.traveler)} here; ${facts.found} found.`,
  'multi-location.far-travelers': (facts, { words }) =>
    `${strategy(facts.strategy)} wants ${plural(facts.wanted, words.roles.traveler)} at ${facts.box}; ${facts.found} found.`,
  'multi-location.no-mechanical': (facts) =>
    `At ${facts.box}, position ${facts.position}, there is no three-way or four-way switch that could stay.`,
  'multi-location.no-main': () =>
    'The load is at this place, so the device that feeds it has to be here, and this one does not.',
  'multi-location.partner': (facts) =>
    `No partner suits at ${facts.box}, position ${facts.position} (${facts.because}).`,
  'multi-location.partner-unproved': (facts) =>
    `Its partner at ${facts.box}, position ${facts.position} is not proved (${facts.because}).`,
  'multi-location.line-by-traveler': (facts, { words }) =>
    `A freed ${words.roles.traveler} brings the ${words.roles.line} from ${facts.from}; re-mark it at both ends.`,
  'multi-location.load-by-traveler': (facts, { words }) =>
    `A freed ${words.roles.traveler} carries the ${words.roles.load} to ${facts.to}; re-mark it at both ends.`,
  'control-point.no-device': () => 'The device of this control is not in the catalogue.',
  'control-point.wants-wires': () => 'It has terminals to be wired, and this control has no box.',
  'control-point.no-target': () => 'What it is to control has not been said.',
  'control-point.nothing-chosen': (facts) =>
    `Nothing is chosen yet for ${facts.box}, position ${facts.position}.`,
  'control-point.cannot-reach': (facts) =>
    `It does not reach the ${facts.device} at ${facts.box}, position ${facts.position}: another hub, and neither is a partner of the other.`,
  'control-point.left-on': () =>
    'The switch under it has to be left on, and a note of that goes to the owner.',
  'control-point.wider-plate': () => 'The plate beside it has to be one gang wider.',
  'control-point.battery': (facts) =>
    facts.years ? `A battery lasts about ${plural(facts.years, 'year')}.` : 'It runs on a battery.',
  'gangs.too-wide': (facts, { words }) =>
    `It takes ${plural(facts.gangs, words.gang)}; ${facts.free} free here.`,
  'body.too-large': (facts, { mm }) =>
    `Its body is ${mm(facts.width)} x ${mm(facts.height)}; the box leaves ${mm(facts.freeWidth)} x ${mm(facts.freeHeight)}.`,
  'body.not-a-module': () => 'It goes in the box, not at the fitting.',
  'body.at-the-fitting': () => 'It goes at the fitting, not in the box.',
  'body.surface': () => 'It sticks on the wall and does not go in the box.',
  'depth.too-deep': (facts, { mm }) =>
    `Body ${mm(facts.body)} and ${mm(facts.clearance)} for conductors need ${mm(facts.needed)}; the box has ${mm(facts.available)}.`,
  'depth.not-read': (facts, { mm }) =>
    `It needs ${mm(facts.needed)}; the depth of the box has not been measured.`,
  'fill.over': (facts, { ml }) =>
    `With it the box holds ${ml(facts.used)} in ${ml(facts.capacity)}: ${ml(facts.over)} over.`,
  'fill.not-read': (facts, { ml }) =>
    `With it the box holds ${ml(facts.used)}; the volume of the box has not been read.`,
  'fill.no-standing': (facts, { ml }) =>
    `With it the box holds ${ml(facts.used)}; a measured or unmarked box has no standing in the count.`,
  'packing.will-not-close': (facts) =>
    `With it bodies, connectors and folded conductors take ${facts.percent} % of the box by the estimate: it will not close.`,
  'packing.not-read': () => 'Whether the box closes cannot be estimated: its volume has not been read.',
  'plate.own': (facts) =>
    `It brings a plate of its own, and ${plural(facts.others, 'other position')} of this box would have none that goes with it.`,
  'plate.opening': (facts) =>
    `Its plate opening is ${facts.opening}; position ${facts.position} has ${facts.other}: no one plate serves both.`,
  'shade.other': (facts) =>
    `Its shade is ${facts.shade}, that of position ${facts.position} is ${facts.other}: side by side it will show.`,
  'flush.proud': (facts, { mm }) =>
    `Its face stands ${mm(facts.proud)} proud, that at position ${facts.position} ${mm(facts.other)}: more than ${mm(1)} apart.`,
  'radio.none': () => 'It has no radio, and this place is to be connected.',
  'radio.not-wanted': (facts) => `It speaks ${radio(facts.radio)}; the client takes ${radios(facts.wanted)}.`,
  'radio.no-band': () => 'It joins on 2.4 GHz only, and the router does not offer that band.',
  'signal.not-read': () => 'It needs Wi-Fi, and the signal at this box has not been read.',
  'signal.none': (facts) => `No bar of Wi-Fi at this box (${facts.rssi} dBm${metalLoss(facts)}).`,
  'signal.weak': (facts) =>
    `${plural(facts.bars, 'bar')} of Wi-Fi at this box (${facts.rssi} dBm${metalLoss(facts)}); two are the least to go ahead with. An extender or repeater near it may settle it.`,
  'signal.mesh-far': (facts) =>
    `The nearest hub or repeater in reach is ${facts.metres} m and ${plural(facts.floors, 'floor')} away: plan a mains repeater between.`,
  'hub.full': (facts) => `${facts.hub} takes ${facts.limit} devices; this would make ${facts.devices}.`,
  'hub.to-buy': (facts) => `It works through ${facts.hub}, which is still to be bought.`,
  'router.full': (facts) =>
    `The router takes ${facts.limit} clients; ${facts.now} now and ${facts.planned} planned are more.`,
  'router.near-limit': (facts) =>
    `${facts.now} clients now and ${facts.planned} planned come near the ${facts.limit} the router takes: near its limit it starts to drop devices.`,
  'feel.actuator': (facts) => `It has a ${facts.actuator}; the client likes ${list(facts.wanted)}.`,
  'feel.audible': () => 'It clicks when it switches; the client wants it silent.',
  'feel.up-is-on': () => 'Up is not always on with it, as the client wants.',
  'feel.indicator': (facts) =>
    facts.wanted === 'none'
      ? 'It has a light in its face; the client wants none.'
      : `Its light is ${facts.indicator === 'none' ? 'missing' : 'always on'}; the client wants one that can be dimmed.`,
  'feel.on-level': (facts) =>
    `It comes on at ${level(facts.onLevel)}; the client wants ${level(facts.wanted)}.`,
  'feel.microphone': () => 'It has a microphone; the client wants none in the wall.',
  'colour.other': (facts) => `The client wants ${facts.colour}; it is made in ${list(facts.made)}.`,
  'need.scenes': () => 'Scenes are asked for here, and it has none.',
  'need.dim': () => 'Dimming is asked for here, and it does not dim.',
  'need.dim-nice': () => 'Dimming would be liked here, and it does not dim.',
  'need.fan-speed': () => 'Fan speeds are asked for here, and it has none.',
  'need.constant-power': () => 'The bulbs here want constant power, and it would switch it off.',
  'sensor.missing': (facts) =>
    `A sense for ${list(facts.missing)} is asked for here; it has ${list(facts.senses)}.`,
  'speeds.fewer': (facts) => `${facts.load} has ${facts.speeds} speeds; it offers ${facts.offers}.`,
  'socket-rating.under': (facts) =>
    `A socket may draw ${facts.full} A; its channel is rated for ${facts.rated} A.`,
  'battery-only.local-code': () =>
    'It is the only wall control here and has no wires: ask whether the local code wants a wired one.',
  'platform.must': (facts) => `The client must have ${facts.platform}; it works with ${list(facts.offers)}.`,
  'platform.nice': (facts) => `The client would like ${facts.platform}; it works with ${list(facts.offers)}.`,
  'bulb-family.plain-lamps': (facts) => `${facts.load} has plain lamps, and it steers smart bulbs only.`,
  'bulb-family.unknown': (facts) =>
    `Of which family the bulbs of ${facts.load} are has not been recorded; it steers ${list(facts.families)}.`,
  'bulb-family.other': (facts) =>
    `The bulbs of ${facts.load} are ${facts.family}; it steers ${list(facts.families)}.`,
  'bulb-family.not-a-controller': () => 'It is not made to keep bulbs on constant power.',
};

/** Codes that have a sentence; a test holds the engines to it. */
export const SENTENCE_CODES: readonly string[] = Object.keys(SENTENCES);

/**
 * A finding in words. Units follow the practice unless others are asked for.
 * @throws when a code has no sentence: add it to SENTENCES
 */
export function sentence(
  reason: Pick<Reason, 'code' | 'facts'>,
  practice: PracticeId,
  units: UnitSystem = profileOf({ practice }).units,
): string {
  const make = SENTENCES[reason.code];
  if (!make)
    throw new Error(
      `No sentence for the finding "${reason.code}": every code needs one in findings/sentences.ts`,
    );
  return make(reason.facts, {
    words: profileOf({ practice }).words,
    mm: (value) => (typeof value === 'number' ? lengthText(value, units) : 'an unknown length'),
    ml: (value) => (typeof value === 'number' ? volumeText(value, units) : 'an unknown volume'),
  });
}
