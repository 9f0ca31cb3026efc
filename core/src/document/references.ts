import { ruleFigures } from '../job/figures.js';
import type { Problem } from '../job/problem.js';
import type { Job } from '../job/schema/job.js';
import { checkBox } from './references/box.js';
import { checkCatalogue } from './references/catalogue.js';
import { checkCommissioning } from './references/commissioning.js';
import { KnownIds } from './references/known-ids.js';
import { checkRecords } from './references/records.js';
import { checkUniqueIds } from './references/unique-ids.js';

/**
 * What the shapes alone cannot tell: ids used twice, references to nothing, terminals a device does not have.
 * Expects a document the schema has accepted. Problems come in document order of their kind.
 */
export function referenceProblems(job: Job): Problem[] {
  const known = new KnownIds(job);
  checkUniqueIds(known);
  checkRecords(known);
  job.boxes.forEach((box, index) => {
    checkBox(known, box, ['boxes', index]);
  });
  checkCommissioning(known);
  checkCatalogue(known);
  checkOverrides(known);
  return known.problems;
}

function checkOverrides(known: KnownIds): void {
  const figures = new Set(ruleFigures(known.job).map((figure) => figure.id));
  known.job.overrides?.forEach(({ figure, value }, index) => {
    const path = ['overrides', index];
    if (!figures.has(figure))
      known.warning([...path, 'figure'], `names "${figure}", which is no figure of this practice`);
    if (value <= 0) known.error([...path, 'value'], 'must be above 0');
  });
}
