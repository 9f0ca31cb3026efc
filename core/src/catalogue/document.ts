import { referenceProblems } from '../document/references.js';
import type { EditPart } from '../job/edit/edit.js';
import { putPart } from '../job/edit/parts.js';
import type { Problem } from '../job/problem.js';
import { type JobRecord, recordKey } from '../job/records.js';
import { Catalogue } from '../job/schema/catalogue.js';
import { FORMAT, type Job } from '../job/schema/job.js';
import { schemaProblems } from '../job/schema-problems.js';
import { CATALOGUE_KINDS, CATALOGUE_LISTS, type CatalogueList } from './kinds.js';

const CATALOGUE_FORMAT = 'inventario/catalogue';
const CATALOGUE_VERSION = 1;

/** A catalogue by itself, to be taken into other jobs. */
export function catalogueDocument(catalogue: Catalogue): object {
  return { format: CATALOGUE_FORMAT, version: CATALOGUE_VERSION, catalogue };
}

export type Records = Partial<Record<CatalogueList, readonly object[]>>;

/** What taking records in would do: the parts that do it, or every problem with the field it is in. */
export type TakenIn =
  | { ok: true; parts: EditPart[]; added: number; replaced: number }
  | { ok: false; problems: Problem[] };

/** A catalogue document, or the catalogue of a job file, as text. */
export function readCatalogue(text: string, job: Job): TakenIn {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    return failed('', `is not JSON: ${error instanceof Error ? error.message : 'it cannot be parsed'}`);
  }
  const { format, version, catalogue } = (document ?? {}) as {
    format?: unknown;
    version?: unknown;
    catalogue?: unknown;
  };
  if (format !== CATALOGUE_FORMAT && format !== FORMAT)
    return failed('/format', `must be "${CATALOGUE_FORMAT}" or "${FORMAT}"`);
  if (version !== CATALOGUE_VERSION)
    return failed('/version', `is ${JSON.stringify(version)}; the known version is ${CATALOGUE_VERSION}`);
  if (typeof catalogue !== 'object' || catalogue === null) return failed('/catalogue', 'is missing');
  return takeIn(catalogue as Records, job);
}

/**
 * Records by list, checked as they would stand in the job: those with a known id or name take the place of
 * what is there.
 */
export function takeIn(records: Records, job: Job): TakenIn {
  const parsed = Catalogue.partial().safeParse(records);
  if (!parsed.success)
    return {
      ok: false,
      problems: schemaProblems(parsed.error, records).map((problem) => ({
        ...problem,
        path: `/catalogue${problem.path}`,
      })),
    };
  const parts: EditPart[] = [];
  let [added, replaced] = [0, 0];
  const merged = { ...job.catalogue } as Record<CatalogueList, readonly object[]>;
  for (const list of CATALOGUE_LISTS) {
    const own = records[list] ?? [];
    const kind = CATALOGUE_KINDS[list];
    const byKey = new Map(
      merged[list].map((record, at) => [recordKey(kind, record as JobRecord, at), record]),
    );
    own.forEach((record, at) => {
      const key = recordKey(kind, record as JobRecord, at);
      if (byKey.has(key)) replaced += 1;
      else added += 1;
      byKey.set(key, record);
      parts.push(putPart(kind, key, record));
    });
    merged[list] = [...byKey.values()];
  }
  const before = new Set(referenceProblems(job).map((problem) => problem.message));
  const problems = referenceProblems({ ...job, catalogue: merged as unknown as Catalogue }).filter(
    (problem) => problem.severity === 'error' && !before.has(problem.message),
  );
  return problems.length > 0 ? { ok: false, problems } : { ok: true, parts, added, replaced };
}

function failed(path: string, message: string): TakenIn {
  return { ok: false, problems: [{ path, message, severity: 'error' }] };
}

/**
 * What in the job would name nothing if a record were taken out of its catalogue; empty when nothing does.
 */
export function namedStill(job: Job, list: CatalogueList, key: string): Problem[] {
  const kind = CATALOGUE_KINDS[list];
  const left = job.catalogue[list].filter((record, at) => recordKey(kind, record as JobRecord, at) !== key);
  const before = new Set(referenceProblems(job).map((problem) => problem.message));
  return referenceProblems({ ...job, catalogue: { ...job.catalogue, [list]: left } }).filter(
    (problem) => problem.severity === 'error' && !before.has(problem.message),
  );
}
