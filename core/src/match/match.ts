import { type JobLookup, lookup, wantsSmart } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box, Position } from '../job/schema/survey.js';
import { ALONE, type Candidate, IN_GROUP, type PlaceMatch } from './candidate.js';
import { placeFacts } from './place.js';
import { PlaceJudge } from './place-judge.js';

/** Every place that wants a smart device against every device of the catalogue, blocked ones too. */
export function matchJob(job: Job): PlaceMatch[] {
  const known = lookup(job);
  return job.boxes.flatMap((box) => matchBox(box, known));
}

export function matchBox(box: Box, known: JobLookup): PlaceMatch[] {
  return box.positions.filter(wantsSmart).map((position) => ({
    boxId: box.id,
    position: position.index,
    devices: matchPlace(box, position, known),
  }));
}

export function matchPlace(box: Box, position: Position, known: JobLookup): Candidate[] {
  const place = placeFacts(box, position, known);
  const judge = new PlaceJudge(place);
  const strategies = place.group ? IN_GROUP : ALONE;
  const candidates: Candidate[] = [];
  for (const device of known.job.catalogue.devices)
    for (const strategy of strategies) candidates.push(judge.candidate(device, strategy));
  return candidates;
}
