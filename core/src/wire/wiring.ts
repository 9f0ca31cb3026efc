import { foundNets } from '../electrics/found-nets.js';
import { type Settled, settledBox } from '../identify/settled.js';
import { untoldCores } from '../job/conductors.js';
import { type JobLookup, placeKey } from '../job/lookup.js';
import { looseEnds } from '../job/loose-ends.js';
import type { Device, Terminal } from '../job/schema/catalogue.js';
import type { Box } from '../job/schema/survey.js';
import { stopCodes } from '../power/box-stops.js';
import { boundTogether } from './bound-together.js';
import { chosenPlaces, type PlannedPlace } from './comes-out.js';
import { type GroupUse, groupUse } from './group-use.js';
import type { JointPlan } from './joint-plan.js';
import { planJoints } from './plan.js';
import { prove } from './proof/prove.js';
import type { BoxToProve, Breach } from './proof/vocabulary.js';

/**
 * What is to be said of the wiring of a box. The sentence stands in `findings/words/wiring.ts`.
 * `unidentified`: needed, and nobody knows which conductor it is. `contradicted`: a reading confirms that the
 * label is wrong. `borrowed-neutral`: no neutral of its own circuit. `missing`: needed, and all that is here
 * is something else. `against`: a rule of the match speaks against the choice, which is planned all the same.
 */
export interface WiringFinding {
  code:
    | 'unidentified'
    | 'contradicted'
    | 'labels-clash'
    | 'borrowed-neutral'
    | 'missing'
    | 'no-ground'
    | 'against'
    | 'stop'
    | 'made-neutral'
    | GroupUse['gaps'][number]['code']
    | Breach['code'];
  severity: 'error' | 'warning';
  /** Conductors, terminals, loads, joints, rules or stops it is about. */
  about: readonly string[];
  position: number | null;
  role: Terminal['role'] | null;
}

/** How a box is put together with what is chosen for it, and whether that is proved. */
export interface BoxWiring {
  boxId: string;
  /** With its findings as labels. */
  box: Box;
  places: readonly PlannedPlace[];
  plan: JointPlan;
  findings: readonly WiringFinding[];
  /** No error: the plan does what it promises, in this box and in every box of its groups. */
  ok: boolean;
  /** Proved, and nothing speaks against touching the box with it. */
  ready: boolean;
}

/** Rules of the match that block a choice, the wiring's own left aside; the match is asked from above. */
export type AgainstChoice = (boxId: string, position: number) => readonly string[];

/**
 * What keeps a proved plan from being ready: a stop, a choice against the rules, and a neutral over a
 * traveler until the installer has labelled that core a neutral at both ends.
 */
const HINDERS: ReadonlySet<WiringFinding['code']> = new Set(['stop', 'against', 'made-neutral']);

/** A box with what it would be taken from. */
interface Planned {
  surveyed: Box;
  settled: Settled;
  places: PlannedPlace[];
  plan: JointPlan;
}

/** The wiring of every box with a selection, in the file's order. */
export function wiringOfHouse(known: JobLookup, against: AgainstChoice): BoxWiring[] {
  const chosen = new Set(known.job.selections.map(({ boxId }) => boxId));
  const seen = new Map<string, BoxWiring>();
  for (const box of known.job.boxes)
    if (chosen.has(box.id) && !seen.has(box.id))
      for (const wiring of wiringOfUnit(box, known, against)) seen.set(wiring.boxId, wiring);
  return known.job.boxes.flatMap(({ id }) => (chosen.has(id) ? (seen.get(id) ?? []) : []));
}

/** The wiring of a box, proved together with every box that its groups bind it to. */
export function wiringOfBox(box: Box, known: JobLookup, against: AgainstChoice): BoxWiring | undefined {
  return wiringOfUnit(box, known, against).find(({ boxId }) => boxId === box.id);
}

/** The wirings of a box and of every box that its groups bind it to. */
export function wiringOfUnit(box: Box, known: JobLookup, against: AgainstChoice): BoxWiring[] {
  const boxes = boundTogether(box, known).map((entry): Planned => {
    const settled = settledBox(entry, known);
    const places = chosenPlaces(settled.box, known);
    return { surveyed: entry, settled, places, plan: planJoints(settled.box, places, known) };
  });
  const breaches = prove(boxes.map(toProve), known);
  const found = boxes.map((planned) => ({
    planned,
    findings: [
      ...findingsOfPlan(planned, known, against),
      ...breaches.filter(({ boxId }) => boxId === planned.surveyed.id).map(ofBreach),
    ],
  }));
  const ok = found.every(({ findings }) => findings.every(({ severity }) => severity !== 'error'));
  return found.map(({ planned, findings }) => {
    const { surveyed, settled, places, plan } = planned;
    const hindered = findings.some(({ code }) => HINDERS.has(code));
    return {
      boxId: surveyed.id,
      box: settled.box,
      places,
      plan,
      findings: withoutEchoes(findings),
      ok,
      ready: ok && !hindered,
    };
  });
}

const toProve = ({ settled, places, plan }: Planned): BoxToProve => ({
  box: settled.box,
  places,
  plan,
  out: plan.wired.out,
});

function findingsOfPlan(planned: Planned, known: JobLookup, against: AgainstChoice): WiringFinding[] {
  const { surveyed, settled, places } = planned;
  const findings: WiringFinding[] = [];
  const say = (finding: Partial<WiringFinding> & Pick<WiringFinding, 'code' | 'severity'>) =>
    findings.push({ about: [], position: null, role: null, ...finding });
  if (places.length === 0) return findings;
  for (const { conductorId, against: by, readingIds } of settled.doubts)
    if (by === 'reading')
      say({ code: 'contradicted', severity: 'error', about: [conductorId, ...readingIds] });
  const clashing = settled.doubts.filter((doubt) => doubt.against === 'label');
  if (clashing.length > 0)
    say({ code: 'labels-clash', severity: 'error', about: clashing.map(({ conductorId }) => conductorId) });
  for (const code of stopCodes(surveyed, known)) say({ code: 'stop', severity: 'warning', about: [code] });
  for (const place of places) {
    const { position, device } = place;
    for (const gap of device?.mount === 'box' ? gapsOf(planned, place, device, known) : [])
      findings.push(gap);
    const rules = device ? against(surveyed.id, position.index) : [];
    if (rules.length > 0)
      say({ code: 'against', severity: 'warning', about: rules, position: position.index });
    findings.push(...ofGroup(surveyed.id, position.index, known));
  }
  // What a terminal asks for already is not asked for again.
  const asked = new Set(findings.flatMap(({ code, about }) => (code === 'unidentified' ? about : [])));
  const parted = partedUnknown(planned).filter((id) => !asked.has(id));
  if (parted.length > 0) say({ code: 'unidentified', severity: 'error', about: parted });
  return findings;
}

/**
 * Conductors nobody identified that the plan takes from what they were on: what they feed, or are fed by,
 * would be lost.
 */
function partedUnknown({ settled: { box }, plan }: Planned): string[] {
  const capped = new Set(plan.capped);
  return untoldCores(box).flatMap(({ id, at, unbroken }) => {
    if (unbroken || !at || at.capped || !capped.has(id)) return [];
    const joined =
      at.joint === undefined || looseEnds(box).filter((end) => end.at.joint === at.joint).length > 1;
    return joined ? [id] : [];
  });
}

/** Terminals that are to have something and get nothing, and why. */
function gapsOf(
  { settled: { box }, plan }: Planned,
  { position, selection }: PlannedPlace,
  device: Device,
  known: JobLookup,
): WiringFinding[] {
  const group = known.groups.get(placeKey(box.id, position.index));
  const use = group && groupUse(group, known).places.find((place) => isAt(place, box.id, position.index));
  const partner = use?.role === 'partner' && selection.strategy !== 'single';
  const listed = device.multiLocation?.find(({ strategy }) => strategy === selection.strategy)?.partner;
  const untold = untoldCores(box).map(({ id }) => id);
  const otherNeutral = [...foundNets(box, known).names].some((net) => net.startsWith('neutral:'));
  return device.terminals.flatMap((terminal): WiringFinding[] => {
    const { role, optional } = terminal;
    const name = `${position.index}.${terminal.id}`;
    if (plan.terminals.get(name) !== undefined || role === 'sense' || role === 'traveler') return [];
    const gap = (
      code: WiringFinding['code'],
      severity: WiringFinding['severity'],
      about: readonly string[] = [],
    ) => [{ code, severity, about: [name, ...about], position: position.index, role }];
    if (role === 'ground') {
      if (device.needs.ground === 'none') return [];
      return gap('no-ground', device.needs.ground === 'required' ? 'error' : 'warning');
    }
    if (optional && !(role === 'neutral' && device.needs.neutral)) return [];
    if (partner && (role === 'load' || listed?.[role] === false)) return [];
    if (role === 'load' && !worksALoad(terminal, device, position.loadIds.length)) return [];
    if (role === 'neutral' && otherNeutral) return gap('borrowed-neutral', 'error');
    if (untold.length > 0) return gap('unidentified', 'error', untold);
    return gap(role === 'neutral' ? 'borrowed-neutral' : 'missing', 'error');
  });
}

/** A channel more than there are loads has nothing to work. */
function worksALoad({ channel, role }: Terminal, device: Device, loads: number): boolean {
  if (role !== 'load') return true;
  const at = device.channels.findIndex(({ id }) => id === (channel ?? device.channels[0]?.id));
  return at < Math.max(1, loads);
}

const isAt = (place: { boxId: string; position: number }, boxId: string, position: number) =>
  place.boxId === boxId && place.position === position;

function ofGroup(boxId: string, position: number, known: JobLookup): WiringFinding[] {
  const group = known.groups.get(placeKey(boxId, position));
  const selection = known.selections.get(placeKey(boxId, position));
  if (!group || !selection || selection.strategy === 'single') return [];
  const { gaps, madeNeutral, places } = groupUse(group, known);
  const isMain = places.find((place) => isAt(place, boxId, position))?.role === 'main';
  const first = isMain || !places.some(({ role }) => role === 'main');
  return [
    ...gaps
      .filter((gap) => (gap.boxId === null ? first : gap.boxId === boxId || first))
      .map(({ code, boxId: about }) => ({
        code,
        severity: code === 'far-switch-idle' ? ('warning' as const) : ('error' as const),
        about: about === null ? [] : [about],
        position,
        role: null,
      })),
    ...madeNeutral
      .filter((entry) => entry.boxId === boxId)
      .map(({ conductorId }) => ({
        code: 'made-neutral' as const,
        severity: 'warning' as const,
        about: [conductorId],
        position,
        role: null,
      })),
  ];
}

const ofBreach = ({ code, about }: Breach): WiringFinding => ({
  code,
  severity: 'error',
  about,
  position: null,
  role: null,
});

/** Where it is known why something is missing, that it has no supply is no second finding. */
function withoutEchoes(findings: readonly WiringFinding[]): WiringFinding[] {
  const why = new Set(
    findings.flatMap(({ code, about }) =>
      ['unidentified', 'missing', 'borrowed-neutral', 'no-ground'].includes(code) ? about.slice(0, 1) : [],
    ),
  );
  return findings.filter(
    ({ code, about }) =>
      !(['no-supply', 'not-grounded', 'terminal-astray'].includes(code) && why.has(about[0] ?? '')),
  );
}
