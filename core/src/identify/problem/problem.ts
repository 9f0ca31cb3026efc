import type { Wiring } from '../../electrics/arranged.js';
import { nodeOf } from '../../electrics/found-nets.js';
import { Joined } from '../../electrics/joined.js';
import { eventRecord } from '../../job/events.js';
import { type JobLookup, placeKey } from '../../job/lookup.js';
import type { Circuit } from '../../job/schema/job.js';
import type { At, Box, Conductor, Position, Reading } from '../../job/schema/survey.js';
import { stopsFromReadings } from '../../power/box-stops.js';
import { circleOf } from '../../power/circle.js';
import { provedVolts } from '../../power/instant.js';
import { boxReadings } from '../../power/live-readings.js';
import { neutralCarriers } from '../../power/neutral-carriers.js';
import { profileOf } from '../../practice/profiles.js';
import { looksLikeGround } from '../../practice/wire.js';
import { entryAt } from '../../units/entry-at.js';
import { ODDS } from './priors.js';
import { type Named, testOf } from './readings-as-tests.js';
import type { CableCores, Core, Net, Problem, SwitchPosition } from './vocabulary.js';

/**
 * Gathers from the job what identification of one box, or of a piece of it, rests on. Labels are not among
 * it, but for what may be touched.
 * @param whole the box that it is a piece of
 */
export function problemOf(
  box: Box,
  known: JobLookup,
  whole: Box = box,
): { problem: Problem; wiring: Wiring } {
  const { job } = known;
  const inside = box.conductors.filter(
    (conductor) =>
      conductor.cableId !== undefined && conductor.unbroken !== true && !looksLikeGround(conductor),
  );
  const wiring = wiringOf(box, inside);
  const netted = netsOf(box, known, inside, wiring);
  const grounds = box.conductors.flatMap(({ id, colour, cableId }) =>
    cableId !== undefined && looksLikeGround({ colour }) ? [{ id, colour, cable: cableId }] : [],
  );
  const { circuits, feeding } = circuitsOf(box, known, whole);
  const number = new Map(inside.map((conductor, index) => [conductor.id, index]));
  const multiLocation = isMultiLocation(box, known);
  const named: Named = {
    number,
    grounds: new Set(grounds.map(({ id }) => id)),
    cores: netted.cores,
    breakers: new Set(feeding.map(({ id }) => id)),
    multiLocation,
  };
  return {
    wiring,
    problem: {
      ...netted,
      practice: profileOf(job),
      boxId: box.id,
      grounds,
      cables: box.cables.map((cable, index) => ({
        id: cable.id,
        cores: netted.cores.flatMap((core, at) => (core.cable === index ? [at] : [])),
        end: cableEnd(box, cable.id, known, circuits),
      })),
      circuits,
      loads: known.loads,
      tests: box.readings.map((reading) => testOf(reading, box, named, known)),
      ...groundBundles(box),
      ...protections(feeding),
      boxIsReference: box.enclosure.material === 'metal' && box.enclosure.grounded,
      provedVolts: provedVolts(eventRecord(job), box.id),
      multiLocation,
      coreTerminals: coreTerminals(box, number),
      carries: new Set(neutralCarriers(box, job)),
      alsoOff: otherCircle(whole, known, feeding),
      standsNow: standsNow(whole),
      anyPosition: whole.positions[0]?.index ?? null,
      alive: stopsFromReadings(whole, job).some(({ code }) => code === 'live-while-off'),
    },
  };
}

/** Cores by the nets they are in as found, and the devices with what is at their terminals. */
function netsOf(
  box: Box,
  known: JobLookup,
  inside: readonly Conductor[],
  wiring: Wiring,
): Pick<Problem, 'cores' | 'nets' | 'positions'> {
  const find = components(wiring);
  const nets: Net[] = [];
  const netOfRoot = new Map<string, number>();
  const netAt = (node: string) => {
    const root = find(node);
    let net = netOfRoot.get(root);
    if (net === undefined) {
      net = nets.length;
      nets.push({ cores: [], terminals: [], joints: [], underOneScrew: false, tailToSwitch: false });
      netOfRoot.set(root, net);
    }
    return net;
  };
  const cores: Core[] = inside.map((conductor, index) => {
    const net = netAt(wiring.coreNode[index] ?? `alone:${conductor.id}`);
    entryAt(nets, net).cores.push(index);
    return {
      id: conductor.id,
      cable: box.cables.findIndex(({ id }) => id === conductor.cableId),
      colour: conductor.colour,
      capped: conductor.at?.capped === true,
      net,
    };
  });
  for (const joint of box.joints) {
    const net = netOfRoot.get(find(`joint:${joint.id}`));
    if (net !== undefined) entryAt(nets, net).joints.push(joint.id);
  }
  const netNumber = (node: string) => netOfRoot.get(find(node));
  const positions = box.positions.map((position) => {
    const at = netsAtTerminals(position, wiring, netNumber);
    for (const [terminal, net] of at)
      entryAt(nets, net).terminals.push({ position: position.index, terminal });
    return switchPosition(box, position, known, at);
  });
  markNets(box, nets, cores, netAt);
  return { cores, nets, positions };
}

/** Circuits that may feed the box: its own, those shown in it, and one nobody named. */
function circuitsOf(
  box: Box,
  known: JobLookup,
  whole: Box,
): { circuits: Problem['circuits']; feeding: Circuit[] } {
  const inBox = box.circuitIds.length > 0 ? box.circuitIds : known.job.circuits.map((circuit) => circuit.id);
  const own = inBox.flatMap((id) => known.circuits.get(id) ?? []);
  const more = [...shownCircuits(whole, known)]
    .filter((id) => !inBox.includes(id))
    .flatMap((id) => known.circuits.get(id) ?? []);
  const entry = ({ id, leg, volts }: Circuit, prior: number) => ({ id, leg: leg ?? null, volts, prior });
  return {
    feeding: [...own, ...more],
    circuits: [
      ...own.map((circuit) => ({ ...entry(circuit, (1 - ODDS.outsideCircuit) / own.length), own: true })),
      ...more.map((circuit) => ({ ...entry(circuit, ODDS.shownCircuit), own: false })),
      {
        id: null,
        leg: null,
        volts: own[0]?.volts ?? profileOf(known.job).supply.nominal,
        prior: own.length > 0 ? ODDS.outsideCircuit : 1,
        own: false,
      },
    ],
  };
}

/** Circuits whose protection trips on a meter's current, and those whose breaker opens the neutral too. */
function protections(feeding: readonly Circuit[]): Pick<Problem, 'trips' | 'isolating'> {
  const where = (is: (circuit: Circuit) => boolean) =>
    new Set(feeding.flatMap((circuit, at) => (is(circuit) ? [at] : [])));
  return {
    trips: where(({ protection = 'none' }) => protection !== 'none' && protection !== 'afci'),
    isolating: where(({ isolatesNeutral }) => isolatesNeutral === true),
  };
}

/** Ground conductors that hang together: in one joint, by a bonding jumper, or on the box's screw. */
function groundBundles(box: Box): Pick<Problem, 'groundBundle' | 'screwBundle'> {
  const joined = new Joined();
  for (const conductor of box.conductors) {
    const [from, to] = conductor.ends ?? [];
    if (from && to && !from.capped && !to.capped) joined.merge(nodeOf(from), nodeOf(to));
  }
  const groundBundle = new Map(
    box.conductors.flatMap((conductor) =>
      conductor.at && !conductor.at.capped
        ? [[conductor.id, joined.find(nodeOf(conductor.at))] as const]
        : [],
    ),
  );
  return { groundBundle, screwBundle: joined.find('box') };
}

function wiringOf(box: Box, inside: readonly Conductor[]): Wiring {
  const node = (at: At | undefined): string | null => (!at || at.capped || at.boxScrew ? null : nodeOf(at));
  const links: Wiring['links'] = [];
  for (const conductor of box.conductors) {
    const [from, to] = (conductor.ends ?? []).map(node);
    if (from && to && !looksLikeGround(conductor)) links.push({ id: conductor.id, nodes: [from, to] });
  }
  const bridged: Wiring['bridged'] = [];
  const terminals = new Map<number, string[]>();
  for (const position of box.positions) {
    for (const lead of position.leads ?? []) {
      const at = node(lead.at);
      if (at)
        links.push({
          id: `${position.index}.${lead.terminal}`,
          nodes: [at, `terminal:${position.index}.${lead.terminal}`],
        });
    }
    if (position.existing === 'receptacle') {
      const half = (name: string) => `terminal:${position.index}.${name}`;
      if (position.breakOff === undefined)
        bridged.push({ position: position.index, nodes: [half('hot'), half('hot2')] });
      if (position.breakOff !== 'both')
        bridged.push({ position: position.index, nodes: [half('neutral'), half('neutral2')] });
    }
  }
  const coreNode = inside.map((conductor) => node(conductor.at));
  for (const name of [
    ...coreNode,
    ...links.flatMap((link) => link.nodes),
    ...bridged.flatMap((entry) => entry.nodes),
  ]) {
    const found = name && /^terminal:(\d+)\./.exec(name);
    if (!found || !name) continue;
    const list = terminals.get(Number(found[1])) ?? [];
    if (!list.includes(name)) list.push(name);
    terminals.set(Number(found[1]), list);
  }
  return { coreNode, links, terminals, bridged };
}

/** Everything joined in place, switch contacts apart. */
function components(wiring: Wiring): (node: string) => string {
  const joined = new Joined();
  for (const { nodes } of [...wiring.links, ...wiring.bridged]) joined.merge(...nodes);
  return (node) => joined.find(node);
}

/** The net at each terminal of a position's device, its ground aside. */
function netsAtTerminals(
  position: Position,
  wiring: Wiring,
  netNumber: (node: string) => number | undefined,
): Map<string, number> {
  const at = new Map<string, number>();
  for (const node of wiring.terminals.get(position.index) ?? []) {
    const net = netNumber(node);
    const terminal = node.slice(node.indexOf('.') + 1);
    if (net !== undefined && terminal !== 'ground') at.set(terminal, net);
  }
  return at;
}

function switchPosition(
  box: Box,
  position: Position,
  known: JobLookup,
  at: ReadonlyMap<string, number>,
): SwitchPosition {
  const group = known.groups.get(placeKey(box.id, position.index));
  const device = position.existing === 'smart' ? known.devices.get(position.deviceId ?? '') : undefined;
  return {
    index: position.index,
    existing: position.existing,
    nets: at,
    loadIds: position.loadIds,
    partners: (group?.places ?? [])
      .filter((place) => place.boxId !== box.id || place.position !== position.index)
      .map((place) => placeKey(place.boxId, place.position)),
    roles: device ? new Map(device.terminals.map((terminal) => [terminal.id, terminal.role])) : null,
    interchangeable: device?.interchangeableLineLoad === true,
  };
}

const SURE: Record<string, number> = { seen: 0.98, tested: 0.99, supposed: 0.8 };

function cableEnd(
  box: Box,
  cableId: string,
  known: JobLookup,
  circuits: Problem['circuits'],
): CableCores['end'] {
  for (const run of known.job.runs ?? []) {
    const own = run.ends.findIndex((end) => end.boxId === box.id && end.cableId === cableId);
    const far = own < 0 ? undefined : run.ends[1 - own];
    if (!far) continue;
    const weight = SURE[run.known ?? 'supposed'] ?? 0.8;
    const circuit = circuits.findIndex((entry) => entry.id !== null && entry.id === far.circuitId);
    if (far.circuitId !== undefined && circuit >= 0) return { kind: 'circuit', circuit, weight };
    if (far.loadId !== undefined) return { kind: 'load', loadId: far.loadId, weight };
    if (far.boxId !== undefined) return { kind: 'box', boxId: far.boxId };
  }
  return null;
}

/** Travelers and switched lines come into question only where something suggests them. */
function isMultiLocation(box: Box, known: JobLookup): boolean {
  const suggests = box.positions.some(
    (position) =>
      position.existing === 'three-way' ||
      position.existing === 'four-way' ||
      position.existing === 'none' ||
      position.existing === 'smart' ||
      known.groups.has(placeKey(box.id, position.index)) ||
      box.conductors.some((conductor) =>
        [conductor.at, ...(conductor.ends ?? [])].some(
          (at) => at?.position === position.index && (at.terminal === 't1' || at.terminal === 't2'),
        ),
      ),
  );
  const runs = (known.job.runs ?? []).some(
    (run) => run.ends.some((end) => end.boxId === box.id) && run.ends.every((end) => end.boxId !== undefined),
  );
  return suggests || runs;
}

/** What of how a net is made up speaks of what it carries. */
function markNets(box: Box, nets: Net[], cores: readonly Core[], netAt: (node: string) => number): void {
  const onTerminal = new Map<string, number>();
  for (const { at, cableId } of box.conductors) {
    if (at?.position === undefined || cableId === undefined) continue;
    const node = nodeOf(at);
    onTerminal.set(node, (onTerminal.get(node) ?? 0) + 1);
  }
  for (const [node, count] of onTerminal) if (count >= 2) entryAt(nets, netAt(node)).underOneScrew = true;
  const isSwitch = (index: number) => {
    const existing = box.positions.find((position) => position.index === index)?.existing;
    return existing !== undefined && !['receptacle', 'blank', 'none'].includes(existing);
  };
  for (const net of nets) {
    const cables = new Set(net.cores.map((core) => cores[core]?.cable));
    if (cables.size < 2) continue;
    const joints = new Set(net.joints);
    const tails = box.conductors.filter(
      ({ ends }) =>
        ends?.some((at) => at.joint !== undefined && joints.has(at.joint)) &&
        ends.some((at) => at.position !== undefined && isSwitch(at.position)),
    );
    if (tails.length === 1) net.tailToSwitch = true;
  }
}

/** Circuits that readings show in the box beside its own, and those a run of its cables ends at. */
function shownCircuits(box: Box, known: JobLookup): Set<string> {
  const shown = new Set(boxReadings(box, profileOf(known.job)).shown);
  for (const { ends } of known.job.runs ?? [])
    if (ends.some((end) => end.boxId === box.id))
      for (const end of ends) if (end.circuitId !== undefined) shown.add(end.circuitId);
  return shown;
}

/** Cores that end straight on a terminal, by position. */
function coreTerminals(
  box: Box,
  number: ReadonlyMap<string, number>,
): ReadonlyMap<number, readonly number[]> {
  const found = new Map<number, number[]>();
  for (const { id, at } of box.conductors) {
    const core = number.get(id);
    if (core !== undefined && at?.position !== undefined)
      found.set(at.position, [...(found.get(at.position) ?? []), core]);
  }
  return found;
}

/**
 * Circuits that share a neutral with those that feed the box: off with them before a neutral of the box is
 * opened.
 */
function otherCircle(box: Box, known: JobLookup, feeding: readonly Circuit[]): string[] {
  const circle = new Set<string>(circleOf(box, known.job, [], []));
  return [...circle].filter((id) => !feeding.some((circuit) => circuit.id === id));
}

/** How the box was left by the latest reading: what stands so already costs no time. */
function standsNow(box: Box): Problem['standsNow'] {
  const latest = box.readings.reduce<Reading | undefined>(
    (last, reading) => (last && last.at > reading.at ? last : reading),
    undefined,
  );
  if (!latest) return null;
  const { arrangement, position = null, breakers = {}, loads = {} } = latest;
  const out = Object.keys(loads).filter((id) => loads[id] === 'out');
  return { arrangement, position: arrangement === 'device-out' ? position : null, breakers, out };
}
