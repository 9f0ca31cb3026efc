import { deviceName } from '../../catalogue/device-name.js';
import type { JobLookup } from '../../job/lookup.js';
import { looseEnds } from '../../job/loose-ends.js';
import type { Terminal } from '../../job/schema/catalogue.js';
import { profileOf } from '../../practice/profiles.js';
import { conductorWords } from '../../survey/conductor-names.js';
import { capital } from '../../units/capital.js';
import { plural } from '../../units/plural.js';
import { lengthText, type UnitSystem } from '../../units/present.js';
import { wireSizeText } from '../../units/wire-size.js';
import { jointNumber } from '../../wire/joint-number.js';
import { faceShares } from '../../wire/modules.js';
import type { NetKey } from '../../wire/once-wired.js';
import { releasedFrom, type WireStep, type WireStepKind } from '../../wire/steps.js';
import { connectorWords } from './connectors.js';
import { endWords, feedsOnWords, netWords, terminalWords, type WiringInWords } from './wiring.js';

/** A step as it is read aloud: what to do, on what, and what to mind. */
export interface WireStepWords {
  title: string;
  lines: string[];
}

interface Voice {
  wiring: WiringInWords;
  step: WireStep;
  known: JobLookup;
  mm: (value: number) => string;
  end: (name: string) => string;
  net: (net: NetKey | null) => string;
}

const list = (names: readonly string[]) =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** How a wire comes off, by what holds it. */
const RELEASE: Record<Terminal['form'] | 'unknown', string> = {
  lead: 'Undo its connector; do not cut the lead.',
  screw: 'Loosen the screw and draw the wire off.',
  clamp: 'Loosen the clamp and draw the wire straight out.',
  'push-in': 'Press a narrow blade into the slot beside it and draw the wire straight out.',
  unknown: 'Loosen the screw; where it is pushed in, press a narrow blade into the slot beside it.',
};

/** How a wire goes on, by what holds it. */
const LAND: Record<Terminal['form'], string> = {
  lead: 'In the connector.',
  screw: 'Hook it clockwise round the screw, no insulation under it, and tighten.',
  clamp: 'Straight in to the stop, no bare metal outside, and tighten.',
  'push-in': 'Straight in until it holds.',
};

const SOFT_WITH_SOLID: Record<string, string> = {
  'twist-on':
    'Lay the stranded lead 3 mm ahead of the solid ones and wrap it round them before the connector goes on.',
  lever: 'Each in a port of its own; twist the strands first so that none stays outside.',
  'terminal-block': 'Twist the strands, or set a ferrule, before they go under the screw.',
  crimp: 'The barrel must be made for strands and solid together.',
};

const STEPS: Record<WireStepKind, (voice: Voice) => WireStepWords> = {
  prove: () => ({
    title: 'Prove it dead',
    lines: ['With the device out: a known source, every conductor, the known source again.'],
  }),
  photograph: () => ({
    title: 'Photograph it as found',
    lines: ['Every joint and terminal in sight, before a wire is moved.'],
  }),
  flags: ({ step, wiring, known }) => ({
    title: `Flags on ${plural(step.ends.length, 'conductor')}`,
    lines: ['They stay on for the next person.', ...fanWires(wiring, known)],
  }),
  're-mark': ({ step, wiring, end, net }) => ({
    title: 'Re-mark what carries something else now',
    lines: [
      ...step.ends.map((id) => `${capital(end(id))}: ${net(wiring.plan.wired.conductors.get(id) ?? null)}.`),
      'At both ends, in the colour or the mark the local code asks for.',
    ],
  }),
  release: (voice) => released(voice),
  'take-back': ({ step, wiring, known }) => ({
    title: `Take the new device out at position ${step.position}`,
    lines: [`Undo ${list(step.ends.map((name) => terminalWords(wiring, name, known)))}; do not cut a lead.`],
  }),
  'open-joint': (voice) => opened(voice),
  'take-out': ({ step, end }) => ({
    title: 'Take out the old pigtails',
    lines: [`${capital(list(step.ends.map(end)))}.`],
  }),
  'cut-pieces': ({ wiring, mm }) => ({
    title: `Cut ${plural(wiring.plan.made.length, 'piece')}`,
    lines: wiring.plan.made.map(
      ({ id, kind, size, length, net }) =>
        `${id}: ${kind}, ${wireSizeText(size)}, ${mm(length)}, ${pieceColour(net)}.`,
    ),
  }),
  strip: ({ step, mm, end }) => ({
    title: 'Straighten and strip',
    lines: [
      `${mm(step.strip ?? 0)} bare, all of one length, by the gauge on the device. Cut back what is nicked.`,
      `${capital(list(step.ends.map(end)))}.`,
    ],
  }),
  joint: (voice) => joined(voice),
  land: ({ step, wiring, known, mm, end }) => {
    const [terminal = '', ...ids] = step.ends;
    const found = wiring.places
      .find(({ position }) => `${position.index}` === terminal.split('.')[0])
      ?.device?.terminals.find(({ id }) => id === terminal.split('.')[1]);
    return {
      title: `${capital(list(ids.map(end)))} on ${terminalWords(wiring, terminal, known)}`,
      lines: [
        `${mm(step.strip ?? 0)} bare. ${LAND[found?.form ?? 'screw']}`,
        ...feedsOnWords(wiring, ids, known),
      ],
    };
  },
  cap: ({ step, end }) => ({
    title: `Cap ${plural(step.ends.length, 'end')}`,
    lines: [
      `${capital(list(step.ends.map(end)))}. A cap of its own on each, never cut short, never left bare.`,
    ],
  }),
  fitting: ({ wiring, known }) => ({
    title: 'At the fitting',
    lines: [
      ...wiring.plan.wired.atFitting.map(
        ({ loadId, partId }) =>
          `${known.job.catalogue.parts.find(({ id }) => id === partId)?.name ?? partId} across ${known.loads.get(loadId)?.name ?? loadId}, by its leaflet.`,
      ),
      'The fitting is on the same breaker: off, and proved dead there too.',
    ],
  }),
  tug: () => ({
    title: 'Tug every wire',
    lines: ['Each one alone, and its neighbours after it. One that moves is made again.'],
  }),
  'cut-out': ({ step, wiring }) => ({
    title: `Cut-out closed${atPosition(wiring, step)}`,
    lines: [`${deviceAt(wiring, step)?.cutOut ?? ''}.`],
  }),
  test: ({ known, wiring }) => ({
    title: 'Try it before folding',
    lines: [
      'Guard the box, stand clear of it, and have the breaker switched on.',
      wiring.box.circuitIds.length > 0
        ? `Look: the light of each device, its load from its own control, and what else hangs on breaker ${list(wiring.box.circuitIds.map((id) => known.circuits.get(id)?.breaker ?? id))}.`
        : 'Look: the light of each device, and its load from its own control.',
    ],
  }),
  'prove-again': () => ({
    title: 'Off, and proved dead again',
    lines: ['The breaker off and locked, then the same proof as before.'],
  }),
  fold: ({ known }) => ({
    title: 'Fold it in',
    lines: [
      `Neutrals and ${profileOf(known.job).words.ground}s at the back, then line, then load. Nothing behind the body of a device.`,
    ],
  }),
  up: () => ({ title: '“Up” at the top', lines: ['The mark on the device says which end is up.'] }),
  mount: ({ wiring, known }) => ({
    title: 'Mount it',
    lines: [
      ...faceWords(wiring, known),
      'Turn the screws in turns, snug and no tighter: a housing cracks, a box pulls out of the wall.',
    ],
  }),
  level: () => ({ title: 'Level', lines: ['Straight, and its face even with its neighbours.'] }),
  film: () => ({ title: 'Film off', lines: ['From the face of each device.'] }),
  settings: ({ step, wiring }) => ({
    title: `Set what lies behind the plate${atPosition(wiring, step)}`,
    lines: (deviceAt(wiring, step)?.behindPlate ?? []).map((text) => `${text}.`),
  }),
  breaker: ({ wiring, known }) => ({
    title: 'Breaker on the back of the plate',
    lines: wiring.box.circuitIds.map((id) => {
      const circuit = known.circuits.get(id);
      return circuit ? `${circuit.panel}, ${circuit.breaker}: ${circuit.label}.` : `${id}.`;
    }),
  }),
  plate: () => ({ title: 'Plate on', lines: ['Snug, not tight: a plate warps. The box is closed then.'] }),
};

const FANS: ReadonlySet<string> = new Set(['fan-ac', 'fan-dc', 'fan-remote', 'exhaust-fan']);

/** The wire of a fan is marked as the fan's: on a light's module it would ruin one of them. */
function fanWires({ box }: WiringInWords, known: JobLookup): string[] {
  return box.labels.flatMap(({ conductorId, role, loadIds = [] }) => {
    const fan = loadIds.map((id) => known.loads.get(id)).find((load) => load && FANS.has(load.kind));
    return role === 'load' && fan
      ? [`${capital(conductorWords(box, conductorId, known.job))} goes to ${fan.name}: marked as the fan’s.`]
      : [];
  });
}

/** What goes where on the face, from the left, where there is more than one. */
function faceWords({ box, places }: WiringInWords, known: JobLookup): string[] {
  if (box.positions.length < 2) return [];
  const { shares, blank } = faceShares(box, places);
  const { existing } = profileOf(known.job).words;
  const said = shares.map(({ position, from, to, isNew }) => {
    const device = places.find((place) => place.position.index === position)?.device;
    const found = box.positions.find(({ index }) => index === position);
    const what = device?.mount === 'box' ? deviceName(device) : existing[found?.existing ?? 'none'];
    return `${from === to ? from : `${from} to ${to}`} ${what}${isNew ? ' (placed anew)' : ''}`;
  });
  return [`From the left: ${[...said, ...(blank > 0 ? [`${blank} blank`] : [])].join('; ')}.`];
}

/** What a step says. @param units lengths in inches, or in mm */
export function wireStepWords(
  wiring: WiringInWords,
  step: WireStep,
  known: JobLookup,
  units: UnitSystem,
): WireStepWords {
  return STEPS[step.kind]({
    wiring,
    step,
    known,
    mm: (value) => lengthText(value, units),
    end: (name) => endWords(wiring, name, known),
    net: (net) => (net === null ? '' : netWords(net, known)),
  });
}

function released({ step, wiring, known, end }: Voice): WireStepWords {
  const { box } = wiring;
  const position = box.positions.find(({ index }) => index === step.position);
  const what = position ? profileOf(known.job).words.existing[position.existing] : 'device';
  const forms = new Map<string, string[]>();
  for (const { conductor, at } of looseEnds(box)) {
    if (at.position !== step.position) continue;
    const how = RELEASE[releasedFrom(box, at, known.devices)];
    forms.set(how, [...(forms.get(how) ?? []), `${end(conductor.id)} (${at.terminal})`]);
  }
  const leads = step.ends.filter((name) => name.includes('.'));
  return {
    title: `Release the ${what}${box.positions.length > 1 ? ` at position ${step.position}` : ''}`,
    lines: [
      ...[...forms].map(([how, names]) => `${capital(list(names))}. ${how}`),
      ...(leads.length > 0 ? [RELEASE.lead] : []),
    ],
  };
}

function opened({ step, wiring, net, end }: Voice): WireStepWords {
  return {
    title: `Open joint ${numberOf(step, wiring)}${step.net === null ? '' : `, ${net(step.net)}`}`,
    lines: [
      `In it: ${list(step.ends.map(end))}.`,
      step.gate === 'neutral'
        ? 'It holds a neutral: every circuit of the box is off, or the main. Once open, prove every end again.'
        : 'Keep hold of what leaves it, and count the ends.',
    ],
  };
}

const numberOf = ({ jointId }: WireStep, wiring: WiringInWords) =>
  jointId === null ? '' : jointNumber(wiring, jointId);

function joined({ step, wiring, known, mm, end, net }: Voice): WireStepWords {
  const joint = wiring.plan.joints.find(({ id }) => id === step.jointId);
  const connector = joint?.connector;
  const soft = step.stranded.length > 0 ? SOFT_WITH_SOLID[connector?.kind ?? ''] : undefined;
  return {
    title: `Joint ${numberOf(step, wiring)}: ${net(step.net)}`,
    lines: [
      `${capital(list(step.ends.map(end)))}: ${plural(step.ends.length, 'end')}.`,
      `${mm(step.strip ?? 0)} bare. ${capital(connectorWords(connector ?? null, known))}.`,
      ...feedsOnWords(wiring, step.ends, known),
      ...(soft ? [soft] : []),
    ],
  };
}

/** ` at position 2`, where the box has several. */
const atPosition = ({ box }: WiringInWords, { position }: WireStep) =>
  box.positions.length > 1 ? ` at position ${position}` : '';

const deviceAt = ({ places }: WiringInWords, { position }: WireStep) =>
  places.find((place) => place.position.index === position)?.device;

/** The device of a step, by its name; null where the step is not of one. */
export function stepDevice(wiring: WiringInWords, step: WireStep): string | null {
  const device = deviceAt(wiring, step);
  return device ? deviceName(device) : null;
}

/** A piece is of the colour that its net has in the trade. */
function pieceColour(net: NetKey): string {
  const [kind] = net.split(':');
  if (kind?.startsWith('ground')) return 'bare or green';
  return kind === 'neutral' ? 'in the neutral’s colour' : 'in a line’s colour';
}
