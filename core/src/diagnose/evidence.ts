import { eventRecord, lastByClock } from '../job/events.js';
import type { JobLookup } from '../job/lookup.js';
import type { JobEvent } from '../job/schema/job.js';
import type { Reading } from '../job/schema/survey.js';
import { outcomeOfValue } from '../practice/instruments.js';
import { profileOf } from '../practice/profiles.js';
import { stageOf } from './candidates.js';
import type { Form } from './forms.js';
import { likelihood, usual } from './rank.js';
import type { Scene } from './scene.js';
import type { ShownBy } from './shown-by.js';
import { FAULT_CAUSES, type FaultCause, type Symptoms } from './vocabulary.js';

/** What was seen at a place, and what was read since it is wired. */
export interface SeenAndRead {
  seen: Symptoms;
  readings: readonly Reading[];
}

/** A form with the chance of all that was seen and read, under it, by itself and with how usual it is. */
export interface Weighed {
  form: Form;
  weight: number;
  prior: number;
}

/** Each form weighed by what was seen and read; the prior of a cause is shared out over its forms. */
export function weighed(
  forms: readonly Form[],
  { seen, readings }: SeenAndRead,
  scene: Scene,
  shown: ShownBy,
): Weighed[] {
  const { known } = scene;
  const proved = provedVolts(scene);
  const read = readings.flatMap((reading) => {
    const stage = stageOf(reading, scene);
    const outcome = outcomeOfValue(reading.tool, reading.value, profileOf(known.job), proved);
    return stage === null || outcome === null ? [] : [{ ...reading, stage, outcome }];
  });
  const found = foundBefore(known);
  const count = new Map<string, number>();
  for (const form of forms) count.set(keyOf(form), (count.get(keyOf(form)) ?? 0) + 1);
  return forms.map((form) => ({
    form,
    prior: usual(form.cause, found) / (count.get(keyOf(form)) as number),
    weight: read.reduce(
      (chance, one) => chance * (shown.row(one, form.slip)[one.outcome] ?? MISREAD),
      likelihood(form, seen),
    ),
  }));
}

/** The chance of an outcome that no row knows. */
const MISREAD = 0.001;

/** What names a cause at a place. */
export const keyOf = ({ cause, position }: Pick<Form, 'cause' | 'position'>): string =>
  `${cause}|${position ?? ''}`;

/** How often each cause was what it was, on this job. */
function foundBefore({ job }: JobLookup): ReadonlyMap<FaultCause, number> {
  const record = eventRecord(job);
  const causes = job.boxes.flatMap(({ id }) => record.standing('cause', id).map(({ event }) => event));
  const found = new Map<FaultCause, number>();
  for (const { cause } of causes as (JobEvent & { cause?: unknown })[]) {
    const known = FAULT_CAUSES.find((entry) => entry === cause);
    if (known) found.set(known, (found.get(known) ?? 0) + 1);
  }
  return found;
}

/** The voltage recorded when the tester was proved at the box. */
function provedVolts({ known, own }: Scene): number | undefined {
  const proofs = eventRecord(known.job)
    .standing('proved', own.boxId)
    .map(({ event }) => event as JobEvent & { volts?: number })
    .filter(({ volts }) => volts !== undefined);
  return lastByClock(proofs)?.volts;
}
