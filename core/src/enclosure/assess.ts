import { type JobLookup, lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { contentsAsFound } from './as-found.js';
import { contentsAsPlanned, plannedDevices } from './as-planned.js';
import { type FillResult, fill, printedFill } from './fill.js';
import { type DepthResult, depth, type PackingResult, packing } from './space.js';

/** Everything the enclosure engine says of one box, as printed. */
export interface BoxAssessment extends FillResult {
  boxId: string;
  depth: DepthResult;
  packing: PackingResult;
}

/** @param which as found, or with the selected devices in place of the existing ones */
export function assessBox(box: Box, known: JobLookup, which: 'found' | 'planned'): BoxAssessment {
  const contents = which === 'found' ? contentsAsFound(box, known) : contentsAsPlanned(box, plannedDevices(box, known), known);
  return { boxId: box.id, ...printedFill(fill(contents)), depth: depth(contents), packing: packing(contents) };
}

export function assessBoxes(job: Job, which: 'found' | 'planned'): BoxAssessment[] {
  const known = lookup(job);
  return job.boxes.map((box) => assessBox(box, known, which));
}
