import { deviceName } from '../../catalogue/device-name.js';
import type { JobLookup } from '../../job/lookup.js';
import type { Role } from '../../job/schema/primitives.js';
import type { StopCode } from '../../power/vocabulary.js';
import { profileOf } from '../../practice/profiles.js';
import { conductorWords } from '../../survey/conductor-names.js';
import { capital } from '../../units/capital.js';
import { plural } from '../../units/plural.js';
import { wireSizeText } from '../../units/wire-size.js';
import { jointNumber } from '../../wire/joint-number.js';
import type { NetKey } from '../../wire/once-wired.js';
import { netName } from '../../wire/once-wired.js';
import type { BoxWiring, WiringFinding } from '../../wire/wiring.js';
import { connectorWords } from './connectors.js';
import { STOP_WORDS } from './stops.js';

/** What a wiring is spoken of with: its box and what is planned there. */
export type WiringInWords = Pick<BoxWiring, 'box' | 'places' | 'plan'>;

/** `LINE`, as it is printed on the device; with the device where the box gets several. */
export function terminalWords({ places, box }: WiringInWords, name: string, known: JobLookup): string {
  if (name === 'box') return 'the box’s screw';
  const [position = '', terminalId = '', end] = name.split('.');
  const place = places.find((entry) => entry.position.index === Number(position));
  const terminal = place?.device?.terminals.find(({ id }) => id === terminalId);
  const several = box.positions.length > 1;
  if (terminal) {
    const mark = terminal.mark ?? terminal.id;
    return several ? `${mark} at position ${position}` : mark;
  }
  const part = known.job.catalogue.parts.find(({ id }) => id === terminalId);
  if (part && end) return `lead ${end} of ${part.name}`;
  const old = box.positions.find(({ index }) => index === Number(position));
  const what = old ? profileOf(known.job).words.existing[old.existing] : 'device';
  return `terminal ${terminalId} of the ${what}${several ? ` at position ${position}` : ''}`;
}

/** A conductor, a made piece, a terminal or a lead, as one sees it. */
export function endWords(wiring: WiringInWords, name: string, known: JobLookup): string {
  const piece = wiring.plan.made.find(({ id }) => id === name);
  if (piece) return `the new ${piece.kind} ${piece.id}`;
  if (wiring.box.conductors.some(({ id }) => id === name)) return conductorWords(wiring.box, name, known.job);
  return terminalWords(wiring, name, known);
}

/** `line, breaker 7`, `neutral`, `pantry lamps`: what a net carries, in the words of the practice. */
export function netWords(net: NetKey, known: JobLookup): string {
  const [kind = '', rest = ''] = split(netName(net));
  const { roles } = profileOf(known.job).words;
  const circuit = known.circuits.get(rest);
  const several = known.job.circuits.length > 1;
  switch (kind) {
    case 'line':
    case 'neutral':
      return `${roles[kind]}${several && circuit ? `, breaker ${circuit.breaker}` : ''}`;
    case 'load': {
      const loads = rest.split('+').flatMap((id) => known.loads.get(id)?.name ?? []);
      return loads.length > 0 ? `${roles.load}, ${loads.join(' and ')}` : roles.load;
    }
    case 'traveler':
      return `signal over a ${roles.traveler}`;
    case 'ground':
      return roles.ground;
    default:
      return 'not identified';
  }
}

function split(net: string): [string, string] {
  const at = net.indexOf(':');
  return at < 0 ? [net, ''] : [net.slice(0, at), net.slice(at + 1)];
}

const listed = (names: readonly string[]) =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** What a sentence is made of: what it is about, and how that is called here. */
interface Voice {
  about: readonly string[];
  first: string;
  joint: number;
  /** The terminal it is about first. */
  terminal: string;
  /** Ends and terminals, listed. */
  ends: (names: readonly string[]) => string;
  Ends: (names: readonly string[]) => string;
  role: string | null;
  device: string;
  box: (id: string) => string;
  load: string;
  fedOn: string;
  poles: string;
  traveler: string;
  ground: string;
}

/** What a rule of the match is called where its name is no word of the trade. */
const RULE_WORDS: Readonly<Record<string, string>> = {
  fill: 'box fill',
  'load-kind': 'the kind of load',
  body: 'the size of its body',
  'socket-rating': 'the rating for a socket',
  'bulb-family': 'the family of its bulbs',
  'battery-only': 'a control without wires',
};

const SENTENCES: Record<WiringFinding['code'], (voice: Voice) => string> = {
  unidentified: ({ about, role, terminal, ends, Ends }) =>
    role === null
      ? `${Ends(about)}, joined with others now, would be taken from them without being identified: test first what it is.`
      : `${terminal} wants the ${role}, and it is not identified: test ${ends(about.slice(1))}.`,
  contradicted: ({ first, Ends }) =>
    `${Ends([first])} is labelled as what a reading contradicts. Make that test again, or change the label.`,
  'labels-clash': ({ about, Ends }) =>
    `${Ends(about)} are joined and labelled as different nets. Test them, and put the labels right.`,
  'borrowed-neutral': ({ terminal }) =>
    `${terminal} wants a neutral of its own circuit, and none is in this box. It is capped; no other circuit’s is borrowed. A device without a neutral, or a new cable, changes this.`,
  missing: ({ terminal, role }) =>
    `${terminal} wants the ${role}, and every conductor here is something else. Choose another device or strategy.`,
  'no-ground': ({ terminal, ground }) =>
    `No ${ground} is in this box for ${terminal}. Whether that may be is for the local code.`,
  against: ({ device, about }) =>
    `${device} is chosen against the rules: ${listed(about.map((rule) => RULE_WORDS[rule] ?? rule))}.`,
  stop: ({ first }) =>
    `Work stops at this box: ${STOP_WORDS[first as StopCode]?.name.toLowerCase() ?? first}. It is cleared first.`,
  'made-neutral': ({ first, Ends }) =>
    `${Ends([first])} would become a neutral again: label it neutral at both ends, if the local code allows it.`,
  'no-main': () =>
    'None of the chosen devices can work the load. Choose one with a load terminal where the load is.',
  'strategies-differ': () =>
    'The places of this light are chosen with different strategies. Choose one for all of them.',
  'partner-not-chosen': ({ first, box }) =>
    `Nothing is chosen yet for ${box(first)}, which this strategy needs. Choose its device.`,
  'too-few-travelers': ({ traveler }) =>
    `The strategy runs over more ${traveler}s than are identified between the boxes. Identify and number them, or choose another strategy.`,
  'far-switch-idle': () =>
    'The far switch stays, and no longer switches anything: either way round it passes the current on.',
  'end-not-placed': ({ first, Ends }) => `${Ends([first])} is nowhere in the plan.`,
  'end-placed-twice': ({ first, Ends }) => `${Ends([first])} stands in the plan more often than it can.`,
  'joint-of-one': ({ joint }) => `Joint ${joint} would hold one conductor alone.`,
  'no-connector': ({ joint }) =>
    `No connector of the job takes joint ${joint}. Allow another kind in the brief, or add one to the catalogue.`,
  'terminal-overfull': ({ terminal }) => `${terminal} would hold more than it takes.`,
  'piece-adrift': ({ first, Ends }) => `${Ends([first])} would not end where it should.`,
  short: ({ poles }) => `Closed, this would be a short: ${poles}.`,
  'cross-fed': ({ poles }) => `Two breakers would feed each other: ${poles}.`,
  'borrowed-return': ({ poles }) => `Neutrals of circuits that share none would be joined: ${poles}.`,
  'neutral-ground-joined': ({ ground }) => `Neutral and ${ground} would be joined in the box.`,
  'no-supply': ({ terminal }) => `${terminal} would not be supplied as it has to be.`,
  'load-not-worked': ({ load }) => `${capital(load)} would not come on with its device.`,
  'load-not-off': ({ load }) => `${capital(load)} would not go off with its device.`,
  'fed-on-lost': ({ fedOn }) => `${capital(fedOn)} would no longer be fed as it is now.`,
  'not-grounded': ({ first, ground, Ends }) => `${Ends([first])} would be without ${ground}.`,
  'box-not-bonded': () => 'The metal box would not be bonded.',
  'unknown-joined': ({ first, Ends }) =>
    `${Ends([first])} is not identified, and would not be left as it was.`,
  'half-joined': ({ first, Ends }) => `${Ends([first])} would be joined at one end and capped at the other.`,
  'signal-lost': ({ terminal }) => `${terminal} would not reach its partner.`,
  'terminal-astray': ({ terminal }) => `${terminal} would be on something it has no part in.`,
  'runs-on-through-device': ({ terminal }) =>
    `What passes on would run through ${terminal}, and break when the device comes out.`,
  'below-minimum': ({ device }) =>
    `${device} is fed through its lamps, and they draw less than it needs. A bypass part, or more load, changes this.`,
};

/** What is found of a wiring, in one sentence or two: what it is, and what changes it. */
export function wiringFindingWords(
  wiring: WiringInWords,
  { code, about, role, position }: WiringFinding,
  known: JobLookup,
): string {
  const { words } = profileOf(known.job);
  const ends = (names: readonly string[]) => listed(names.map((name) => endWords(wiring, name, known)));
  const [first = ''] = about;
  const device = wiring.places.find((place) => place.position.index === position)?.device;
  return SENTENCES[code]({
    about,
    first,
    joint: jointNumber(wiring, first),
    terminal: terminalWords(wiring, first, known),
    ends,
    Ends: (names) => capital(ends(names)),
    role: role === null ? null : role === 'sense' ? 'sensing wire' : words.roles[role as Role],
    device: deviceName(device ?? undefined, 'the device'),
    box: (id) => known.boxes.get(id)?.name ?? id,
    load: known.loads.get(first)?.name ?? ends([first]),
    fedOn: fedOn(wiring, first, known),
    poles: listed(about.map(poleWords(known))),
    traveler: words.roles.traveler,
    ground: words.ground,
  });
}

/** What hangs on a conductor that feeds on: the switch or box it goes to, by name, where a run tells it. */
function fedOn(wiring: WiringInWords, name: string, known: JobLookup): string {
  const load = known.loads.get(name);
  if (load) return load.name;
  const onward = fedByConductor(wiring, name, known);
  return onward ? `${onward} (${endWords(wiring, name, known)})` : endWords(wiring, name, known);
}

/** The box, or load, that a conductor of this box runs on to; null where no run tells it. */
function fedByConductor({ box }: WiringInWords, id: string, known: JobLookup): string | null {
  const cableId = box.conductors.find((conductor) => conductor.id === id)?.cableId;
  for (const { ends } of known.job.runs ?? []) {
    if (!ends.some((end) => end.boxId === box.id && end.cableId === cableId)) continue;
    for (const end of ends) {
      if (end.boxId !== undefined && end.boxId !== box.id)
        return known.boxes.get(end.boxId)?.name ?? end.boxId;
      if (end.loadId !== undefined) return known.loads.get(end.loadId)?.name ?? end.loadId;
    }
  }
  return null;
}

/** `Porch hangs on the black of porch feed B`: what of these ends feeds on, as far as runs tell. */
export function feedsOnWords(wiring: WiringInWords, ends: readonly string[], known: JobLookup): string[] {
  const labels = new Map(wiring.box.labels.map((label) => [label.conductorId, label.role]));
  return ends.flatMap((id) => {
    const fed = labels.get(id) === 'line-on' ? fedByConductor(wiring, id, known) : null;
    return fed === null ? [] : [`${fed} hangs on ${endWords(wiring, id, known)}: it stays fed.`];
  });
}

const poleWords =
  (known: JobLookup) =>
  (pole: string): string => {
    const [kind, id = ''] = [pole[0], pole.slice(2).split('#')[0]];
    const breaker = known.circuits.get(id || pole)?.breaker;
    if (kind === 'E' && id === '') return 'the ground';
    if (kind === 'N') return `the neutral of breaker ${breaker ?? id}`;
    return `the line of breaker ${breaker ?? (id || pole)}`;
  };

/** A wiring as it is read aloud, joint by joint: the same as its drawing. */
export function wiringSentences(wiring: WiringInWords, known: JobLookup): string[] {
  const { plan } = wiring;
  const ends = (names: readonly string[]) => listed(names.map((name) => endWords(wiring, name, known)));
  const byTerminal = new Map<string, string[]>();
  for (const { terminal, conductorId } of plan.landed)
    byTerminal.set(terminal, [...(byTerminal.get(terminal) ?? []), conductorId]);
  const stays = plan.kept.map(
    ({ conductorId, at }) =>
      `${capital(endWords(wiring, conductorId, known))} stays on ${terminalWords(wiring, at, known)}.`,
  );
  return [
    ...plan.joints.map(
      ({ id, net, members, connector, kept }) =>
        `Joint ${jointNumber(wiring, id)}, ${netWords(net, known)}: ${ends(members)}. ` +
        `${plural(members.length, 'end')}, ${connectorWords(connector, known)}${kept ? '; it stays as it is' : ''}.`,
    ),
    ...[...byTerminal].map(
      ([terminal, ids]) => `On ${terminalWords(wiring, terminal, known)}: ${ends(ids)}.`,
    ),
    ...plan.made.map(
      ({ id, kind, size, from, to }) =>
        `${id} is a new ${kind}, ${wireSizeText(size)}, from ${placeWords(wiring, from, known)} to ${placeWords(wiring, to, known)}.`,
    ),
    ...stays,
    ...feedsOnWords(
      wiring,
      wiring.box.conductors.map(({ id }) => id),
      known,
    ),
    ...(plan.capped.length > 0 ? [`Capped: ${ends(plan.capped)}.`] : []),
    ...(plan.removed.length > 0 ? [`Taken out: ${ends(plan.removed)}.`] : []),
    ...plan.wired.atFitting.map(
      ({ loadId, partId }) =>
        `${known.job.catalogue.parts.find(({ id }) => id === partId)?.name ?? partId} goes to the fitting of ${known.loads.get(loadId)?.name ?? loadId}.`,
    ),
  ];
}

function placeWords(wiring: WiringInWords, place: string, known: JobLookup): string {
  return wiring.plan.joints.some(({ id }) => id === place)
    ? `joint ${jointNumber(wiring, place)}`
    : terminalWords(wiring, place, known);
}
