import { settledBox } from '../identify/settled.js';
import type { JobLookup } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';
import { TIMES } from '../practice/times.js';
import { chosenPlaces } from '../wire/comes-out.js';
import { planJoints } from '../wire/plan.js';
import { devicesIn, kindOfBox } from './box-kind.js';
import { learnedTimes } from './learned.js';

/** The parts of the work at a box, between trips to the panel. */
export const BOX_PHASES = ['open', 'check', 'wire', 'test', 'close'] as const;
export type BoxPhase = (typeof BOX_PHASES)[number];

/** Minutes a box takes by what is done; trips to the panel are the batch's. */
export type BoxMinutes = Readonly<Record<BoxPhase, number>>;

/** What of the batch the work at a box depends on. */
export interface BatchManner {
  needsCheck: boolean;
  testBeforeFold: boolean;
}

/** By the job's own record of boxes of its kind, else by the times for planning. */
export function minutesOf(box: Box, known: JobLookup, manner: BatchManner): BoxMinutes {
  const planned = plannedMinutes(box, known, manner);
  const learned = learnedTimes(known).get(kindOfBox(box, known));
  if (learned === undefined) return planned;
  const share = learned / sumOf(plannedMinutes(box, known, { ...manner, needsCheck: false }));
  return Object.fromEntries(
    BOX_PHASES.map((phase) => [phase, planned[phase] * share]),
  ) as unknown as BoxMinutes;
}

/** What a box takes by the times for planning. */
function plannedMinutes(box: Box, known: JobLookup, manner: BatchManner): BoxMinutes {
  const settled = settledBox(box, known).box;
  const places = chosenPlaces(settled, known);
  const devices = devicesIn(settled, known);
  const joints = planJoints(settled, places, known).joints.length;
  const { gangs } = box.enclosure;
  const prove = TIMES.isolateAndProve;
  const { needsCheck, testBeforeFold } = manner;
  return {
    open: prove + TIMES.open.box + TIMES.open.gang * gangs,
    check: needsCheck ? TIMES.partAndCap.gang * gangs + TIMES.energisedCheck + prove : 0,
    wire: TIMES.wire.device * devices + TIMES.wire.joint * Math.max(0, joints - TIMES.wire.jointsWithin),
    test: TIMES.functionTest * devices + (testBeforeFold ? prove : 0),
    close: TIMES.close.gang * gangs,
  };
}

export const sumOf = (minutes: BoxMinutes): number =>
  BOX_PHASES.reduce((sum, phase) => sum + minutes[phase], 0);
