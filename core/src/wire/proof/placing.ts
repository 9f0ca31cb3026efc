import type { JobLookup } from '../../job/lookup.js';
import { looseEnds } from '../../job/loose-ends.js';
import { neutralFamilies } from '../../job/neutral-families.js';
import type { WireSize } from '../../job/schema/primitives.js';
import { profileOf } from '../../practice/profiles.js';
import { connectorRange, holds } from '../connectors.js';
import { netName } from '../once-wired.js';
import type { BoxToProve, Breach } from './vocabulary.js';

/**
 * What is wrong with a plan before anything is switched on: an end that is nowhere, or twice; one left bare;
 * a connector or terminal that does not take what goes into it.
 */
export function placingBreaches(entry: BoxToProve, known: JobLookup): Breach[] {
  const { box, plan } = entry;
  const breaches: Breach[] = [];
  const say = (code: Breach['code'], ...about: string[]) => breaches.push({ code, boxId: box.id, about });
  const places = placesOf(entry);
  for (const [name, wanted] of wantedPlaces(entry, known)) {
    const count = places.get(name) ?? 0;
    if (count < wanted.least) say('end-not-placed', name);
    else if (count > wanted.most) say('end-placed-twice', name);
  }
  const sizes = sizesOf(entry, known);
  const range = connectorRange(known.job.catalogue.connectors);
  for (const { id, members, connector, kept } of plan.joints) {
    if (members.length < 2 && !kept) say('joint-of-one', id);
    const taken = connector && range.find((choice) => choice.id === connector.id);
    const bundle = members.map((name) => sizes.get(name) ?? { size: profileOf(known.job).sizes.lead });
    if (!kept && !(taken && holds(taken, bundle))) say('no-connector', id);
  }
  for (const piece of plan.made) {
    const stands = [
      ...plan.joints.filter(({ members }) => members.includes(piece.id)).map(({ id }) => id),
      ...plan.landed.filter(({ conductorId }) => conductorId === piece.id).map(({ terminal }) => terminal),
    ];
    if (!stands.includes(piece.from) || !stands.includes(piece.to)) say('piece-adrift', piece.id);
  }
  for (const { name, holds: room, runsOn } of screwsOf(entry)) {
    const on = plan.landed.filter(({ terminal }) => terminal === name).length;
    if (on > room) say('terminal-overfull', name);
    if (on > 1 && !runsOn(known)) say('runs-on-through-device', name);
  }
  return breaches;
}

/** How often each end and terminal stands somewhere in the plan. */
function placesOf({ plan }: BoxToProve): Map<string, number> {
  const places = new Map<string, number>();
  const put = (name: string) => places.set(name, (places.get(name) ?? 0) + 1);
  for (const { members } of plan.joints) for (const name of members) put(name);
  for (const { terminal, conductorId } of plan.landed) {
    put(conductorId);
    put(terminal);
  }
  for (const name of plan.capped) put(name);
  for (const { conductorId } of plan.kept) put(conductorId);
  return places;
}

interface Wanted {
  least: number;
  most: number;
}

/** Each cable conductor once, each piece twice, each lead once, each other terminal for all it holds. */
function wantedPlaces({ box, plan, places }: BoxToProve, known: JobLookup): Map<string, Wanted> {
  const wanted = new Map<string, Wanted>();
  const want = (name: string, least: number, most = least) => {
    const before = wanted.get(name);
    wanted.set(name, { least: least + (before?.least ?? 0), most: most + (before?.most ?? 0) });
  };
  const removed = new Set(plan.removed);
  for (const { conductor } of looseEnds(box)) if (!removed.has(conductor.id)) want(conductor.id, 1);
  for (const { id } of plan.made) want(id, 2);
  for (const { position, device, selection } of places) {
    for (const { id, form, holds: room = 1 } of device?.mount === 'box' ? device.terminals : [])
      want(`${position.index}.${id}`, 1, form === 'lead' ? 1 : room);
    for (const partId of selection.with ?? []) {
      const part = known.job.catalogue.parts.find((entry) => entry.id === partId);
      if (device && part?.where === 'box')
        for (const end of [1, 2]) want(`${position.index}.${partId}.${end}`, 1);
    }
  }
  return wanted;
}

function sizesOf({ box, plan, places }: BoxToProve, known: JobLookup) {
  const lead = profileOf(known.job).sizes.lead;
  const sizes = new Map<string, { size: WireSize; aluminium?: boolean }>();
  for (const { id, size, material } of box.conductors)
    sizes.set(id, { size, aluminium: material === 'aluminium' || material === 'copper-clad' });
  for (const { id, size } of plan.made) sizes.set(id, { size });
  for (const { position, device } of places)
    for (const terminal of device?.terminals ?? [])
      sizes.set(`${position.index}.${terminal.id}`, { size: terminal.size ?? lead });
  for (const { index, leads = [] } of box.positions)
    for (const { terminal, size } of leads)
      if (!sizes.has(`${index}.${terminal}`)) sizes.set(`${index}.${terminal}`, { size: size ?? lead });
  return sizes;
}

/** Terminals that conductors land on, how many each holds, and whether a net may run on through it. */
function screwsOf({ plan, places }: BoxToProve) {
  return places.flatMap(({ position, device }) =>
    (device?.mount === 'box' ? device.terminals : [])
      .filter(({ form }) => form !== 'lead')
      .map(({ id, role, holds: room = 1 }) => {
        const name = `${position.index}.${id}`;
        return {
          name,
          holds: room,
          runsOn: (known: JobLookup) =>
            role !== 'ground' && !(role === 'neutral' && isShared(plan, name, known)),
        };
      }),
  );
}

/** Whether the neutral on a terminal is one that circuits share. */
function isShared(plan: BoxToProve['plan'], terminal: string, known: JobLookup): boolean {
  const ids = plan.landed
    .filter((entry) => entry.terminal === terminal)
    .map(({ conductorId }) => conductorId);
  const nets = [
    ...plan.made.filter(({ id }) => ids.includes(id)).map(({ net }) => net),
    ...plan.joints.filter(({ members }) => members.some((name) => ids.includes(name))).map(({ net }) => net),
  ];
  return nets.some(
    (net) =>
      net.startsWith('neutral:') &&
      neutralFamilies(known.job).of(netName(net).slice('neutral:'.length)).size > 1,
  );
}
