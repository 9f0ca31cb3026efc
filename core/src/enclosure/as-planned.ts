import { type JobLookup, labelsOf, placeKey } from '../job/lookup.js';
import type { WireSize } from '../job/schema/primitives.js';
import type { Box, Label } from '../job/schema/survey.js';
import { CLEARANCE } from '../practice/bodies.js';
import { largestSize } from '../practice/wire.js';
import { connectorRange } from '../wire/connectors.js';
import { type JointPlan, planJoints } from '../wire/plan.js';
import type { PlannedDevice } from '../wire/terminal-nets.js';
import {
  addToStrap,
  boxItself,
  contentConductor,
  deviceLeads,
  foundJoint,
  foundLeads,
  foundStrap,
  holdsDevice,
  leadSize,
} from './as-found.js';
import type { BoxContents, ContentConnector, Strap } from './contents.js';

/** The devices the job's selections put in a box. A selection of null leaves the mechanical device where it is. */
export function plannedDevices(box: Box, known: JobLookup): PlannedDevice[] {
  return box.positions.flatMap((position) => {
    const selection = known.selections.get(placeKey(box.id, position.index));
    const device = selection?.deviceId ? known.devices.get(selection.deviceId) : undefined;
    return selection && device ? [{ position, device, selection }] : [];
  });
}

/** The box with the planned devices in place of what they replace; the other positions as found. */
export function contentsAsPlanned(box: Box, planned: readonly PlannedDevice[], known: JobLookup): BoxContents {
  const { job } = known;
  const labels = labelsOf(box);
  const plan = planJoints(box, planned, known);
  const removed = new Set(plan.removed);
  const replaced = new Set(planned.map((entry) => entry.position.index));
  const inBox = planned.filter((entry) => entry.device.mount === 'box');
  return {
    ...boxItself(box, job),
    conductors: [
      ...box.conductors
        .filter((conductor) => !removed.has(conductor.id))
        .map((conductor) => contentConductor(conductor, labels.get(conductor.id), job)),
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
    straps: plannedStraps(box, inBox, replaced, plan, known, labels),
    connectors: plannedConnectors(box, plan, known),
    leads: [
      ...box.positions.filter((position) => !replaced.has(position.index)).flatMap((position) => foundLeads(position, known)),
      ...inBox.flatMap(({ device }) => deviceLeads(device, leadSize(job.practice))),
    ],
  };
}

function plannedConnectors(box: Box, plan: JointPlan, known: JobLookup): ContentConnector[] {
  const conductors = new Map(box.conductors.map((conductor) => [conductor.id, conductor]));
  const made = new Map(plan.made.map((piece) => [piece.id, piece.size]));
  const range = connectorRange(known.job.catalogue.connectors);
  const old = new Map(box.joints.map((joint) => [joint.id, joint]));
  return plan.joints.map((joint) => {
    const before = old.get(joint.id);
    const found = before && foundJoint(box, before, known.job.practice, range);
    const sizes = joint.members.flatMap((name): WireSize[] =>
      [conductors.get(name)?.size ?? made.get(name)].filter((size) => size !== undefined),
    );
    return {
      kind: joint.connector?.kind ?? found?.kind ?? 'unknown',
      ml: joint.connector?.ml ?? found?.ml ?? range.at(-1)?.ml ?? 0,
      onlyBare: joint.members.every((name) => conductors.get(name)?.colour === 'bare'),
      assembly: before?.assembly ?? joint.id,
      largest: largestSize(sizes),
    };
  });
}

function plannedStraps(
  box: Box,
  planned: readonly PlannedDevice[],
  replaced: ReadonlySet<number>,
  plan: JointPlan,
  known: JobLookup,
  labels: ReadonlyMap<string, Label>,
): Strap[] {
  const straps = new Map<number, Strap>();
  const byPosition = new Map(planned.map((entry) => [entry.position.index, entry]));
  for (const position of box.positions) {
    const entry = byPosition.get(position.index);
    if (entry) addToStrap(straps, plannedStrap(box, entry, plan, known, labels), position);
    else if (!replaced.has(position.index) && holdsDevice(position)) addToStrap(straps, foundStrap(box, position, known, labels), position);
  }
  return [...straps.values()];
}

function plannedStrap(box: Box, entry: PlannedDevice, plan: JointPlan, known: JobLookup, labels: ReadonlyMap<string, Label>): Strap {
  const { device, position } = entry;
  const { size } = foundStrap(box, position, known, labels);
  return {
    positions: [position.index],
    gangs: known.job.practice === 'us' || known.job.practice === 'ca' ? Math.max(position.width ?? 1, device.gangs) : (position.width ?? 1),
    size: joinedByPlan(entry, plan) ?? size,
    bodies: [
      {
        position: position.index,
        body: device.body,
        clearance: device.terminals.some((terminal) => terminal.form === 'lead') ? CLEARANCE.leads : CLEARANCE.terminals,
      },
    ],
  };
}

/** The largest conductor the plan joins to the device, grounds left out; undefined while a needed terminal has no net. */
function joinedByPlan({ device, position }: PlannedDevice, plan: JointPlan): WireSize | undefined {
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
