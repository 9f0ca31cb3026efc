import { foundNets, type NetName, nodeOf } from '../electrics/found-nets.js';
import { isFromOutside } from '../job/conductors.js';
import { type JobLookup, labelsOf, placeKey } from '../job/lookup.js';
import { looseEnds } from '../job/loose-ends.js';
import type { Part, Terminal } from '../job/schema/catalogue.js';
import type { WireSize } from '../job/schema/primitives.js';
import type { Box, Conductor } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import { KeptWhile, perObject, sameEntries } from '../units/kept.js';
import { joinsLineToLoad, oldDeviceGoes, type PlannedDevice, type PlannedPlace } from './comes-out.js';
import { type GroupUse, groupUse } from './group-use.js';
import { terminalNets } from './terminal-nets.js';

/**
 * A net once wired. What stands behind `#` keeps apart what has one name: the two legs of a 240 V pair, an
 * isolated ground beside the ordinary one.
 */
export type NetKey = NetName;

/** The name by which others know the net. */
export const netName = (key: NetKey): NetName => key.split('#')[0] as NetName;

/** A terminal of what is planned, or a lead of a part that goes into the box, by its name: `1.L`. */
export interface WiredTerminal {
  name: string;
  net: NetKey | undefined;
  form: Terminal['form'];
  size: WireSize;
  holds: number;
}

/** What a box is to become: which net each conductor from outside and each planned terminal is to be on. */
export interface OnceWired {
  conductors: ReadonlyMap<string, NetKey>;
  terminals: readonly WiredTerminal[];
  /** Positions whose old device comes out. */
  out: ReadonlySet<number>;
  /** Parts that go to the fitting of a load. */
  atFitting: readonly { loadId: string; partId: string }[];
}

/**
 * Works out what a box is to become, from its findings and what is planned for it. Where a place belongs to a
 * group, what its travelers carry then is told by the whole group.
 *
 * @param box with its findings as labels
 */
export function onceWired(box: Box, planned: readonly PlannedPlace[], known: JobLookup): OnceWired {
  const uses = usesOfGroups(box, planned, known);
  const devices = planned.flatMap((place) => (place.device ? [place as PlannedDevice] : []));
  const { conductors, named } = netsOfConductors(box, devices, known, uses);
  const terminals: WiredTerminal[] = [];
  const atFitting: OnceWired['atFitting'][number][] = [];
  for (const plan of devices) {
    const use = uses.get(plan.position.index);
    if (plan.device.mount === 'box') {
      const nets = use?.terminals ?? terminalNets(box, plan, known);
      const either = use ? null : eitherSide(box, plan, conductors, nets);
      for (const terminal of plan.device.terminals)
        terminals.push(
          wiredTerminal(plan, terminal, named(either?.get(terminal) ?? nets.get(terminal)), known),
        );
    }
    for (const part of partsOf(plan, known)) {
      const [loadId] = plan.position.loadIds;
      if (part.where === 'box') terminals.push(...leadsOfPart(box, plan, part, known));
      else if (part.where === 'fitting' && loadId !== undefined) atFitting.push({ loadId, partId: part.id });
    }
  }
  const out = new Set<number>();
  for (const { position, device, ...plan } of planned) {
    const goes = device ? oldDeviceGoes({ position, device, ...plan }) : uses.get(position.index)?.out;
    if (goes) out.add(position.index);
  }
  return { conductors, terminals, out, atFitting };
}

/** What the groups of a box make of its places, by position; a place outside a group has no entry. */
function usesOfGroups(box: Box, planned: readonly PlannedPlace[], known: JobLookup) {
  const uses = new Map<number, GroupUse['places'][number]>();
  for (const { position, selection } of planned) {
    const group = known.groups.get(placeKey(box.id, position.index));
    if (!group || selection.strategy === 'single') continue;
    const place = groupUse(group, known).places.find(
      (entry) => entry.boxId === box.id && entry.position === position.index,
    );
    if (place) uses.set(position.index, place);
  }
  return uses;
}

function netsOfConductors(
  box: Box,
  planned: readonly PlannedDevice[],
  known: JobLookup,
  uses: ReturnType<typeof usesOfGroups>,
): { conductors: Map<string, NetKey>; named: (net: NetKey | undefined) => NetKey | undefined } {
  const { nets: asFound, shared } = namesAsFound(box, known);
  const nets = new Map(asFound);
  for (const use of uses.values()) {
    for (const [id, net] of use.travelers) nets.set(id, net);
    if (use.joins) rename(nets, use.joins.from, use.joins.to);
  }
  for (const plan of planned) {
    if (uses.has(plan.position.index)) continue;
    if (joinsLineToLoad(plan)) lineToLoad(box, plan, known, nets);
    if (plan.device.interchangeableLineLoad) eitherWay(box, plan, known, nets);
  }
  return { conductors: nets, named: (net) => (net === undefined ? net : (shared.get(net) ?? net)) };
}

/** What does not rest on what is planned: the same for every device that is tried in the box. */
interface NamesAsFound {
  nets: ReadonlyMap<string, NetKey>;
  /** The name of a neutral that circuits share, by its other names. */
  shared: ReadonlyMap<NetKey, NetKey>;
}

const named = new KeptWhile<Box, NamesAsFound>(sameEntries);

function namesAsFound(box: Box, known: JobLookup): NamesAsFound {
  return named.of(box, [known.job.circuits, known.groups], () => {
    const nets = new Map<string, NetKey>(foundNets(box, known).netByConductor);
    keepApart(box, known, nets);
    withSwitchedLines(box, known, nets);
    return { shared: oneNameForShared(box, known, nets), nets };
  });
}

function rename(nets: Map<string, NetKey>, from: readonly NetKey[], to: NetKey): void {
  for (const [id, net] of nets) if (from.includes(net)) nets.set(id, to);
}

/** Bulbs that are to have power always: what feeds them joins the line. */
function lineToLoad(
  box: Box,
  { position }: PlannedDevice,
  known: JobLookup,
  nets: Map<string, NetKey>,
): void {
  const found = foundNets(box, known);
  const circuit = found.supplyOf(position.index);
  const loads = loadNetsAt(box, position.index, position.loadIds, known);
  if (circuit !== undefined) rename(nets, loads, `line:${circuit}`);
}

/** The nets that feed what a position works. */
function loadNetsAt(box: Box, index: number, loadIds: readonly string[], known: JobLookup): NetName[] {
  const found = foundNets(box, known);
  const each = loadIds.length === 0 ? [[]] : loadIds.map((id) => [id]);
  return [...new Set(each.flatMap((ids) => found.loadNet(index, ids) ?? []))];
}

/**
 * Leads that may go either way: what was on the one side of the old switch stays together, and so does what
 * was on the other, whatever they are.
 */
function eitherWay(box: Box, plan: PlannedDevice, known: JobLookup, nets: Map<string, NetKey>): void {
  const sides = sidesOfSwitch(box, plan.position.index);
  if (sides.length !== 2) return;
  const named = (side: readonly Conductor[]) => side.filter(({ id }) => !isUntold(nets.get(id)));
  // Where both sides are told, the findings say where each goes.
  if (sides.every((side) => named(side).length > 0)) return;
  const found = foundNets(box, known);
  for (const side of sides) {
    const [first] = side;
    const net = named(side).map(({ id }) => nets.get(id))[0] ?? (first && found.netByConductor.get(first.id));
    if (net !== undefined) for (const { id } of side) nets.set(id, net);
  }
}

const isUntold = (net: NetKey | undefined) => net === undefined || net.startsWith('isolated:');

/** What hangs on either side of a plain switch, tails followed; empty for a device of other terminals. */
export function sidesOfSwitch(box: Box, index: number): readonly Conductor[][] {
  const sides = sidesOf(box);
  let own = sides.get(index);
  if (!own) {
    own = findSides(box, index);
    sides.set(index, own);
  }
  return own;
}

const sidesOf = perObject((_box: Box) => new Map<number, Conductor[][]>());

function findSides(box: Box, index: number): Conductor[][] {
  const found = joinedPlaces(box);
  const terminals = [
    ...new Set(
      looseEnds(box).flatMap(({ at }) =>
        at.position === index && at.terminal !== 'ground' ? [at.terminal as string] : [],
      ),
    ),
  ].sort();
  const leads = box.positions.find((position) => position.index === index)?.leads ?? [];
  for (const { terminal } of leads)
    if (terminal !== 'ground' && !terminals.includes(terminal)) terminals.push(terminal);
  return terminals
    .map((terminal) => found(`terminal:${index}.${terminal}`))
    .filter((side) => side.length > 0);
}

/** Conductors from outside at a place of the box as found, and at all that tails join it with. */
function joinedPlaces(box: Box): (node: string) => Conductor[] {
  const beside = new Map<string, string[]>();
  const link = (a: string, b: string) => {
    beside.set(a, [...(beside.get(a) ?? []), b]);
    beside.set(b, [...(beside.get(b) ?? []), a]);
  };
  for (const { ends } of box.conductors) if (ends?.[0] && ends[1]) link(nodeOf(ends[0]), nodeOf(ends[1]));
  for (const position of box.positions)
    for (const lead of position.leads ?? [])
      link(nodeOf(lead.at), `terminal:${position.index}.${lead.terminal}`);
  return (node) => {
    const seen = new Set([node]);
    for (const at of seen) for (const next of beside.get(at) ?? []) if (next !== 'capped') seen.add(next);
    return looseEnds(box).flatMap(({ conductor, at }) =>
      isFromOutside(conductor) && seen.has(nodeOf(at)) ? [conductor] : [],
    );
  };
}

/** The two legs of one breaker, and an isolated ground, keep nets of their own. */
function keepApart(box: Box, known: JobLookup, nets: Map<string, NetKey>): void {
  const labels = labelsOf(box);
  for (const { conductor, at } of looseEnds(box)) {
    if (!isFromOutside(conductor)) continue;
    if (conductor.isolatedGround && nets.get(conductor.id) === 'ground')
      nets.set(conductor.id, 'ground#isolated');
    const circuitId = labels.get(conductor.id)?.circuitId ?? box.circuitIds[0];
    const role = labels.get(conductor.id)?.role;
    if ((known.circuits.get(circuitId ?? '')?.poles ?? 1) < 2) continue;
    const pole = /^[a-z]+(\d)$/.exec(at.terminal ?? '')?.[1];
    if (pole === '2' && (role === 'line' || role === 'line-on' || role === 'load'))
      nets.set(conductor.id, `${nets.get(conductor.id)}#2`);
  }
}

/** A switched line that stands with a load feeds it; one that stands alone is left as it was found. */
function withSwitchedLines(box: Box, known: JobLookup, nets: Map<string, NetKey>): void {
  const labels = labelsOf(box);
  const found = foundNets(box, known);
  for (const { conductor, at } of looseEnds(box)) {
    if (labels.get(conductor.id)?.role !== 'switched-line') continue;
    const ids = labels.get(conductor.id)?.loadIds;
    const beside = [...found.at(nodeOf(at))].filter((net) => net.startsWith('load:'));
    if (ids?.length) nets.set(conductor.id, `load:${[...ids].sort().join('+')}`);
    else nets.set(conductor.id, beside[0] ?? `isolated:${conductor.id}`);
  }
}

/** A neutral that circuits share has one name, whichever of them its labels name. */
function oneNameForShared(box: Box, known: JobLookup, nets: Map<string, NetKey>): Map<NetKey, NetKey> {
  const found = foundNets(box, known);
  const names = new Map<NetKey, NetKey>();
  for (const { at } of looseEnds(box)) {
    if (at.capped) continue;
    const neutrals = [...found.at(nodeOf(at))].filter((net) => net.startsWith('neutral:')).sort();
    const [first] = neutrals;
    if (first === undefined || neutrals.length < 2) continue;
    rename(nets, neutrals.slice(1), first);
    for (const other of neutrals.slice(1)) names.set(other, first);
  }
  return names;
}

/**
 * Where each lead of a device goes that may be turned round, when the findings alone do not say: one side of
 * the old switch to one lead, the other to the other; what is told first.
 */
function eitherSide(
  box: Box,
  { position, device }: PlannedDevice,
  conductors: ReadonlyMap<string, NetKey>,
  nets: ReadonlyMap<Terminal, NetKey | undefined>,
): Map<Terminal, NetKey> | null {
  const line = device.terminals.find(({ role }) => role === 'line');
  const load = device.terminals.find(({ role }) => role === 'load');
  if (!device.interchangeableLineLoad || !line || !load) return null;
  if (nets.get(line) !== undefined && nets.get(load) !== undefined) return null;
  const sides = sidesOfSwitch(box, position.index).flatMap(([first]) =>
    first ? [conductors.get(first.id) as NetKey] : [],
  );
  const [one, other] = sides;
  if (one === undefined || other === undefined || sides.length !== 2 || one === other) return null;
  const turned = other.startsWith('line:') || one.startsWith('load:');
  return new Map([
    [line, turned ? other : one],
    [load, turned ? one : other],
  ]);
}

function wiredTerminal(
  { position }: PlannedDevice,
  terminal: Terminal,
  net: NetKey | undefined,
  known: JobLookup,
): WiredTerminal {
  return {
    name: `${position.index}.${terminal.id}`,
    net,
    form: terminal.form,
    size: terminal.size ?? profileOf(known.job).sizes.lead,
    holds: terminal.holds ?? 1,
  };
}

const partsOf = ({ selection }: PlannedDevice, known: JobLookup): Part[] =>
  (selection.with ?? []).flatMap((id) => known.job.catalogue.parts.find((part) => part.id === id) ?? []);

/** A capacitor in the box lies across its load. */
function leadsOfPart(box: Box, plan: PlannedDevice, part: Part, known: JobLookup): WiredTerminal[] {
  const found = foundNets(box, known);
  const { index, loadIds } = plan.position;
  const circuit = found.supplyOf(index);
  const nets = [
    loadNetsAt(box, index, loadIds.slice(0, 1), known)[0],
    circuit === undefined ? undefined : found.neutralOf(circuit, known.job),
  ];
  return nets.map((net, at) => ({
    name: `${index}.${part.id}.${at + 1}`,
    net,
    form: 'lead',
    size: profileOf(known.job).sizes.lead,
    holds: 1,
  }));
}
