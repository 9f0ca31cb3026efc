import type { JobLookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { KeptWhile, sameEntries } from '../units/kept.js';
import { BoxInstant, type ConfirmedOf, JobInstant, recordedSoFar } from './instant.js';
import { liveWhileOff, reversedPolarity, stopsOf } from './stops.js';
import type { Stop, StopCode } from './vocabulary.js';

const kept = {
  alone: new KeptWhile<Box, readonly StopCode[]>(sameEntries),
  withRoles: new KeptWhile<Box, readonly StopCode[]>(sameEntries),
};

/**
 * The stops of a box as everything recorded has them, by code; kept while nothing they rest on is another.
 * @param confirmedOf absent: labels alone speak, which is told without weighing any reading
 */
export function stopCodes(
  box: Box,
  { job }: Pick<JobLookup, 'job'>,
  confirmedOf?: ConfirmedOf,
): readonly StopCode[] {
  const restsOn = [job.circuits, job.events, job.runs, job.practice, job.overrides];
  return kept[confirmedOf ? 'withRoles' : 'alone'].of(box, restsOn, () => {
    const whole = confirmedOf ? new JobInstant(job, 0, false, confirmedOf) : recordedSoFar(job);
    return stopsOf(new BoxInstant(whole, box, job)).map(({ code }) => code);
  });
}

/** What the readings of a box alone stop for: life with every breaker of it off, and exchanged polarity. */
export function stopsFromReadings(box: Box, job: Job): Stop[] {
  const at = new BoxInstant(recordedSoFar(job), box, job);
  return [...liveWhileOff(at), ...reversedPolarity(at)].map(
    ({ code, conductorIds = [], circuitIds = [] }) => ({
      code,
      conductorIds: [...conductorIds],
      circuitIds: [...circuitIds],
    }),
  );
}
