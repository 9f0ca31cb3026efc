import { describe, expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import { looseEnds } from '../job/loose-ends.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { EXAMPLES, exampleJob } from '../test-support/examples.js';
import { chosenPlaces, type PlannedDevice, plannedDevices } from './comes-out.js';
import { connectorRange } from './connectors.js';
import type { JointPlan } from './joint-plan.js';
import { planJoints } from './plan.js';
import { terminalNets } from './terminal-nets.js';

/** What is chosen for the positions of a box, and its plan. */
function planned(job: Job, box: Box, devices = true) {
  const known = lookup(job);
  const chosen: PlannedDevice[] = devices ? plannedDevices(chosenPlaces(box, known)) : [];
  return { known, chosen, plan: planJoints(box, chosen, known) };
}

/** Where everything that has an end is: joints, terminals, capped. */
const placesOf = ({ joints, landed, capped, kept }: JointPlan) => [
  ...joints.flatMap(({ members }) => members),
  ...[...landed, ...kept].map(({ conductorId }) => conductorId),
  ...capped,
];

const BOXES = EXAMPLES.flatMap((name) => exampleJob(name).boxes.map(({ id }) => [name, id] as const));

describe.each(BOXES)('the joints of %s, box %s', (name, boxId) => {
  const job = exampleJob(name);
  const box = job.boxes.find(({ id }) => id === boxId) as Box;
  const { chosen, plan } = planned(job, box);

  test('leave no end of a conductor out, and none in two places', () => {
    const removed = new Set(plan.removed);
    const ends = looseEnds(box).filter(({ conductor }) => !removed.has(conductor.id));
    const places = placesOf(plan);
    for (const id of new Set(ends.map(({ conductor }) => conductor.id))) {
      const wanted = ends.filter(({ conductor }) => conductor.id === id).length;
      expect([id, places.filter((place) => place === id).length]).toEqual([id, wanted]);
    }
  });

  test('hold two or more each, in one connector, and what is made ends somewhere', () => {
    for (const { members } of plan.joints) {
      expect(members.length).toBeGreaterThanOrEqual(2);
      expect(new Set(members).size).toBe(members.length);
    }
    const places = new Set(placesOf(plan));
    for (const { id } of plan.made) expect(places).toContain(id);
    expect(new Set(plan.made.map(({ id }) => id)).size).toBe(plan.made.length);
  });

  test('take connectors that hold them, where they are opened at all', () => {
    const range = connectorRange(job.catalogue.connectors);
    for (const { members, connector, kept } of plan.joints) {
      if (kept || !connector) continue;
      expect(range).toContain(connector);
      expect(members.length).toBeLessThanOrEqual(connector.conductors[1]);
    }
  });

  test('give each terminal of what is chosen its net, once', () => {
    const inBox = chosen.filter(({ device }) => device.mount === 'box');
    const names = inBox.flatMap(({ position, device }) =>
      device.terminals.map(({ id }) => `${position.index}.${id}`),
    );
    expect([...plan.terminals.keys()].sort()).toEqual(names.sort());
    // What a group makes of its terminals is told by the whole group.
    for (const place of inBox.filter(({ selection }) => selection.strategy === 'single'))
      for (const [terminal, net] of terminalNets(box, place, lookup(job)))
        expect(plan.terminals.get(`${place.position.index}.${terminal.id}`)).toBe(net);
  });

  test('with nothing chosen are those that were found: nothing is made, nothing taken out', () => {
    const { plan: found } = planned(job, box, false);
    expect([found.made, found.removed]).toEqual([[], []]);
    const before = new Set(box.joints.map(({ id }) => id));
    for (const { id } of found.joints) expect(before).toContain(id);
  });
});

test('a joint too large for any connector is two, with a jumper between', () => {
  const job = exampleJob('pantry');
  const box = job.boxes[0] as Box;
  const whites = box.conductors.filter(({ colour, cableId }) => cableId && colour === 'white');
  const [white] = whites;
  if (!white || !('at' in white) || white.at?.joint === undefined) throw new Error('the whites are joined');
  const label = box.labels.find(({ conductorId }) => conductorId === white.id);
  if (!label) throw new Error('the white of the feed is labelled');
  for (let at = 0; at < 5; at++) {
    box.conductors.push({ ...white, id: `more-${at}` });
    box.labels.push({ ...label, conductorId: `more-${at}` });
  }
  const { plan } = planned(job, box);
  const jumpers = plan.made.filter(({ kind }) => kind === 'jumper');
  const neutral = plan.joints.filter(({ members }) => members.some((id) => id.startsWith('more-')));
  expect(jumpers).toHaveLength(1);
  expect(neutral).toHaveLength(2);
  for (const { members, connector } of neutral) {
    expect(members).toContain(jumpers[0]?.id);
    expect(connector).not.toBeNull();
  }
});
