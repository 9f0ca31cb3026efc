import { deviceStands } from '../commission/pairing/stands.js';
import { tasksOfBox } from '../commission/pairing/tasks.js';
import { holdsDevice, unreadFigures } from '../enclosure/as-found.js';
import { assessBox } from '../enclosure/assess.js';
import { untoldCores } from '../job/conductors.js';
import { mountedBoxes } from '../job/events.js';
import { boxesOfRoom, type JobLookup, lookup, placeKey, roomsInOrder, wantsSmart } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { stopCodes } from '../power/box-stops.js';
import { labelClashes } from '../power/label-clashes.js';
import { wiredSteps } from '../wire/progress.js';
import { STAGES, type Stage } from './stages.js';

/**
 * What still keeps a box from a stage: a code, and what to count or name. The sentence stands in
 * `findings/words/progress.ts`.
 */
export interface Blocker {
  stage: Stage;
  code:
    | 'stopped'
    | 'labels-clash'
    | 'no-conductors'
    | 'no-positions'
    | 'volume-not-read'
    | 'depth-not-read'
    | 'loads-not-named'
    | 'no-circuit'
    | 'not-identified'
    | 'not-chosen'
    | 'over-full'
    | 'too-deep'
    | 'not-mounted'
    | 'wiring-begun'
    | 'not-paired'
    | 'pairing-failed';
  count: number;
}

export interface BoxProgress {
  boxId: string;
  roomId: string;
  /**
   * For each stage: done, due, or not wanted here (a box without smart places is neither chosen nor paired).
   */
  stages: Record<Stage, 'done' | 'due' | 'not-wanted'>;
  blockers: Blocker[];
  /** The first stage that is due. */
  next: Stage | null;
}

export interface RoomProgress {
  roomId: string;
  boxes: BoxProgress[];
  /** Done and wanted boxes for each stage. */
  counts: Record<Stage, { done: number; of: number }>;
}

export function jobProgress(job: Job): RoomProgress[] {
  const known = lookup(job);
  return roomsInOrder(job).map((room) => {
    const boxes = boxesOfRoom(job, room.id).map((box) => boxProgress(box, known));
    const counts = Object.fromEntries(
      STAGES.map((stage) => [
        stage,
        {
          done: boxes.filter((box) => box.stages[stage] === 'done').length,
          of: boxes.filter((box) => box.stages[stage] !== 'not-wanted').length,
        },
      ]),
    ) as RoomProgress['counts'];
    return { roomId: room.id, boxes, counts };
  });
}

export function boxProgress(box: Box, known: JobLookup): BoxProgress {
  const blockers: Blocker[] = [
    ...surveyBlockers(box, known),
    ...identifyBlockers(box, known),
    ...choiceBlockers(box, known),
    ...mountBlockers(box, known),
    ...pairBlockers(box, known),
  ];
  const smart = box.positions.some(wantsSmart);
  const stages = Object.fromEntries(
    STAGES.map((stage) => {
      const wanted = stage === 'surveyed' || stage === 'identified' || smart;
      const done = !blockers.some((blocker) => blocker.stage === stage);
      return [stage, wanted ? (done ? 'done' : 'due') : 'not-wanted'];
    }),
  ) as BoxProgress['stages'];
  return {
    boxId: box.id,
    roomId: box.roomId,
    stages,
    blockers,
    next: STAGES.find((stage) => stages[stage] === 'due') ?? null,
  };
}

const when = (condition: boolean, stage: Stage, code: Blocker['code'], count = 1): Blocker[] =>
  condition ? [{ stage, code, count }] : [];

function surveyBlockers(box: Box, known: JobLookup): Blocker[] {
  const unnamed = box.positions.filter(
    (position) => holdsDevice(position) && position.loadIds.length === 0,
  ).length;
  const unread = unreadFigures(box, known.job);
  return [
    ...when(box.conductors.length === 0, 'surveyed', 'no-conductors'),
    ...when(box.positions.length === 0, 'surveyed', 'no-positions'),
    ...when(unread.volume, 'surveyed', 'volume-not-read'),
    ...when(unread.depth, 'surveyed', 'depth-not-read'),
    ...when(unnamed > 0, 'surveyed', 'loads-not-named', unnamed),
    ...when(box.circuitIds.length === 0, 'surveyed', 'no-circuit'),
  ];
}

function identifyBlockers(box: Box, known: JobLookup): Blocker[] {
  const count = untoldCores(box).length;
  const clashes = labelClashes(box, known.job).length;
  return [
    ...when(clashes > 0, 'identified', 'labels-clash', clashes),
    ...when(box.conductors.length === 0, 'identified', 'no-conductors'),
    ...when(count > 0, 'identified', 'not-identified', count),
  ];
}

function choiceBlockers(box: Box, known: JobLookup): Blocker[] {
  const open = box.positions.filter(
    (position) => wantsSmart(position) && !known.selections.has(placeKey(box.id, position.index)),
  ).length;
  const chosen = box.positions.some(
    (position) => known.selections.get(placeKey(box.id, position.index))?.deviceId,
  );
  const planned = chosen ? assessBox(box, known, 'planned') : undefined;
  return [
    ...when(open > 0, 'chosen', 'not-chosen', open),
    ...when(planned?.verdict === 'over', 'chosen', 'over-full'),
    ...when(planned?.depth.verdict === 'too-deep', 'chosen', 'too-deep'),
  ];
}

/**
 * A stop at the box holds its wiring up, whatever else is done. Told at every keystroke, so without weighing
 * readings.
 */
function mountBlockers(box: Box, known: JobLookup): Blocker[] {
  const stops = stopCodes(box, known).length;
  const mounted = mountedBoxes(known.job).has(box.id);
  const done = wiredSteps(known.job, box.id);
  return [
    ...when(stops > 0, 'wired', 'stopped', stops),
    ...when(!mounted && done === 0, 'wired', 'not-mounted'),
    ...when(!mounted && done > 0, 'wired', 'wiring-begun', done),
  ];
}

function pairBlockers(box: Box, known: JobLookup): Blocker[] {
  let waiting = 0;
  let failed = 0;
  for (const position of box.positions) {
    const selection = known.selections.get(placeKey(box.id, position.index));
    const device = selection?.deviceId ? known.devices.get(selection.deviceId) : undefined;
    if (!wantsSmart(position) || (device && device.radio === 'none')) continue;
    // A mechanical device chosen to stay has nothing to pair.
    if (!device && !selection) waiting += 1;
  }
  for (const task of tasksOfBox(box, known)) {
    const { joinedAt, failing, parked } = deviceStands(task, known);
    if (joinedAt !== null || !wantsSmart(task.position)) continue;
    waiting += task.channels.length;
    if (failing || parked) failed += task.channels.length;
  }
  return [
    ...when(failed > 0, 'paired', 'pairing-failed', failed),
    ...when(waiting > failed, 'paired', 'not-paired', waiting - failed),
  ];
}
