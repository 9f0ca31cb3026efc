import { figuresInUse } from '../job/figures.js';
import { conductorsById, type JobLookup, labelsOf } from '../job/lookup.js';
import type { WireSize } from '../job/schema/primitives.js';
import type { Box, Label } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import { largestSize } from '../practice/wire.js';
import type { PlannedDevice, PlannedPlace } from '../wire/comes-out.js';
import { connectorRange } from '../wire/connectors.js';
import type { JointPlan } from '../wire/joint-plan.js';
import { planJoints } from '../wire/plan.js';
import {
  addToStrap,
  boxItself,
  contentConductors,
  deviceLeads,
  foundJoint,
  foundLeads,
  foundStrap,
  holdsDevice,
} from './as-found.js';
import type { BoxContents, ContentConnector, Strap } from './contents.js';

/** The box with the planned devices in place of what they replace; the other positions as found. */
export function contentsAsPlanned(box: Box, planned: readonly PlannedPlace[], known: JobLookup): BoxContents {
  const { job } = known;
  const plan = planJoints(box, planned, known);
  const removed = new Set(plan.removed);
  const { out } = plan.wired;
  const inBox = planned.flatMap(({ device }) => (device?.mount === 'box' ? [device] : []));
  return {
    ...boxItself(box, job),
    conductors: [
      ...contentConductors(box, known).filter((conductor) => !removed.has(conductor.id)),
      ...plan.made.map(({ id, size, length }) => ({
        id,
        size,
        fromOutside: false,
        ground: false,
        isolatedGround: false,
        bare: false,
        longLoop: false,
        length,
      })),
    ],
    straps: strapsAsPlanned(box, planned, netsOfPlan(plan), known),
    connectors: plannedConnectors(box, plan, known),
    leads: [
      ...box.positions
        .filter((position) => !out.has(position.index))
        .flatMap((position) => foundLeads(position, known)),
      ...inBox.flatMap((device) => deviceLeads(device, profileOf(job).sizes.lead)),
    ],
  };
}

function plannedConnectors(box: Box, plan: JointPlan, known: JobLookup): ContentConnector[] {
  const conductors = conductorsById(box);
  const made = new Map(plan.made.map((piece) => [piece.id, piece.size]));
  const range = connectorRange(known.job.catalogue.connectors);
  return plan.joints.map((joint) => {
    const before = box.joints.find((entry) => entry.id === joint.id);
    const found =
      before && !joint.connector ? foundJoint(box, before, profileOf(known.job), range) : undefined;
    const sizes: WireSize[] = [];
    for (const name of joint.members) {
      const size = conductors.get(name)?.size ?? made.get(name);
      if (size) sizes.push(size);
    }
    return {
      kind: joint.connector?.kind ?? found?.kind ?? 'unknown',
      ml: joint.connector?.ml ?? found?.ml ?? range.at(-1)?.ml ?? 0,
      onlyBare: joint.members.every((name) => conductors.get(name)?.colour === 'bare'),
      assembly: before?.assembly ?? joint.id,
      largest: largestSize(sizes),
    };
  });
}

/**
 * What of a plan the yokes rest on: where each planned terminal goes, the largest conductor of each net, and
 * where the old device comes out.
 */
export interface PlannedNets extends Pick<JointPlan, 'terminals' | 'largest'> {
  out: ReadonlySet<number>;
}

export const netsOfPlan = ({ terminals, largest, wired }: JointPlan): PlannedNets => ({
  terminals,
  largest,
  out: wired.out,
});

/** The yokes with the planned devices on them; the other positions as found. */
export function strapsAsPlanned(
  box: Box,
  planned: readonly PlannedPlace[],
  nets: PlannedNets,
  known: JobLookup,
): Strap[] {
  const labels = labelsOf(box);
  const straps = new Map<number, Strap>();
  for (const position of box.positions) {
    const entry = planned.find((candidate) => candidate.position.index === position.index);
    if (entry?.device?.mount === 'box')
      addToStrap(straps, plannedStrap(box, entry as PlannedDevice, nets, known, labels), position);
    else if (!nets.out.has(position.index) && holdsDevice(position))
      addToStrap(straps, foundStrap(box, position, known, labels), position);
  }
  return [...straps.values()];
}

function plannedStrap(
  box: Box,
  entry: PlannedDevice,
  plan: PlannedNets,
  known: JobLookup,
  labels: ReadonlyMap<string, Label>,
): Strap {
  const { device, position } = entry;
  const { clearance } = figuresInUse(known.job);
  return {
    positions: [position.index],
    gangs: profileOf(known.job).deviceTakesItsGangs
      ? Math.max(position.width ?? 1, device.gangs)
      : (position.width ?? 1),
    size: joinedByPlan(entry, plan) ?? foundStrap(box, position, known, labels).size,
    bodies: [
      {
        position: position.index,
        body: device.body,
        clearance: device.terminals.some((terminal) => terminal.form === 'lead')
          ? clearance.leads
          : clearance.terminals,
      },
    ],
  };
}

/**
 * The largest conductor the plan joins to the device, grounds left out; undefined while a needed terminal has
 * no net.
 */
function joinedByPlan({ device, position }: PlannedDevice, plan: PlannedNets): WireSize | undefined {
  const sizes: WireSize[] = [];
  for (const terminal of device.terminals) {
    if (terminal.role === 'ground') continue;
    const net = plan.terminals.get(`${position.index}.${terminal.id}`);
    const size = net === undefined ? undefined : plan.largest.get(net);
    if (size) sizes.push(size);
    else if (!terminal.optional && (terminal.role === 'line' || terminal.role === 'load')) return undefined;
  }
  return largestSize(sizes);
}
