import { figureOfAllowance, ruleFigures } from '../job/figures.js';
import { type JobLookup, lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import type { RuleFigure } from '../practice/figures/figure.js';
import { boundTogether } from '../wire/bound-together.js';
import { chosenPlaces } from '../wire/comes-out.js';
import { contentsAsFound } from './as-found.js';
import { contentsAsPlanned } from './as-planned.js';
import type { BoxContents } from './contents.js';
import { type FillResult, fill, printedFill } from './fill.js';
import { type DepthResult, depth, type PackingResult, packing } from './space.js';

/** Everything the enclosure engine says of one box, as printed. */
export interface BoxAssessment extends FillResult {
  boxId: string;
  depth: DepthResult;
  packing: PackingResult;
  /** Figures the job set itself that this result rests on. */
  own: { id: string; name: string; value: number; unit: RuleFigure['unit']; note: string }[];
}

/** @param which as found, or with the selected devices in place of the existing ones */
export function assessBox(box: Box, known: JobLookup, which: 'found' | 'planned'): BoxAssessment {
  const contents =
    which === 'found' ? contentsAsFound(box, known) : contentsAsPlanned(box, chosenPlaces(box, known), known);
  return {
    boxId: box.id,
    ...printedFill(fill(contents)),
    depth: depth(contents),
    packing: packing(contents),
    own: ownFigures(contents, known.job),
  };
}

/**
 * What the assessment of a box rests on beside the box: while each entry is the same object, so is the
 * result. As planned, the boxes that share a light with it are among them.
 */
export function assessmentRestsOn(
  box: Box,
  known: JobLookup,
  which: 'found' | 'planned',
): readonly unknown[] {
  const { practice, edition, overrides, catalogue, ...job } = known.job;
  const found = [practice, edition, overrides, catalogue];
  if (which === 'found') return found;
  const { circuits, selections, loads, groups, brief, runs, events } = job;
  const others = boundTogether(box, known).filter((other) => other !== box);
  const ofOthers = others.length > 0 ? [runs, events, ...others] : [];
  return [...found, circuits, selections, loads, groups, brief, ...ofOthers];
}

export function assessBoxes(job: Job, which: 'found' | 'planned'): BoxAssessment[] {
  const known = lookup(job);
  return job.boxes.map((box) => assessBox(box, known, which));
}

/**
 * Allowances count where a conductor of their size is in the box; the others wherever their group is
 * computed.
 */
function ownFigures(contents: BoxContents, job: Job): BoxAssessment['own'] {
  if (!job.overrides?.length) return [];
  const gauges = new Set(contents.conductors.map((conductor) => figureOfAllowance(conductor.size)));
  return ruleFigures(job).flatMap(({ id, name, unit, group, own }) => {
    const matters = group !== 'conductor' && (!id.startsWith('fill.allowance.') || gauges.has(id));
    return own && matters ? [{ id, name, unit, value: own.value, note: own.note }] : [];
  });
}
