import { LIMITS, limitProblems } from '../job/limits.js';
import { pointer } from '../job/pointer.js';
import type { Problem } from '../job/problem.js';
import { headerOf, LIST_KINDS, listOf, RECORD_LISTS } from '../job/records.js';
import { FORMAT, Job, VERSION } from '../job/schema/job.js';
import { schemaProblems } from '../job/schema-problems.js';
import { referenceProblems } from './references.js';

export type ReadResult =
  | { ok: true; job: Job; problems: Problem[] }
  | { ok: false; unusable: boolean; problems: Problem[] };

/**
 * Reads the text of a job file. `unusable` when it is not JSON, not this format or not a version this program
 * knows: nothing else can then be said of it. Otherwise every problem is listed; `ok` when none is an error.
 * The job returned is the parsed document itself, unknown fields and order kept.
 */
export function readJobFile(text: string): ReadResult {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    return unusable(
      '',
      'is not JSON: ' +
        `${error instanceof Error ? error.message.replaceAll(/\s+/g, ' ') : 'it cannot be parsed'}`,
    );
  }
  return readJobDocument(document);
}

/** As {@link readJobFile}, for a document that is parsed already. */
export function readJobDocument(document: unknown): ReadResult {
  if (typeof document !== 'object' || document === null || Array.isArray(document))
    return unusable('', 'must be a JSON object: a job file starts with "format" and "version"');
  const { format, version } = document as { format?: unknown; version?: unknown };
  if (format === undefined) return unusable('/format', `is missing: a job file says "${FORMAT}"`);
  if (format !== FORMAT) return unusable('/format', `must be "${FORMAT}"`);
  if (version === undefined) return unusable('/version', `is missing: the known version is ${VERSION}`);
  if (version !== VERSION)
    return unusable('/version', `is ${JSON.stringify(version)}; the known version is ${VERSION}`);
  const beyond = limitProblems(document);
  if (beyond.length > 0)
    return {
      ok: false,
      unusable: false,
      problems: beyond.map((problem) => ({ ...problem, severity: 'error' })),
    };
  const parsed = Job.safeParse(document);
  if (!parsed.success)
    return { ok: false, unusable: false, problems: schemaProblems(parsed.error, document) };
  // The document itself goes on, not Zod's copy of it, which moves fields it does not know behind those it
  // does.
  const job = document as Job;
  const problems = [...sizeProblems(job), ...referenceProblems(job)];
  return problems.some((problem) => problem.severity === 'error')
    ? { ok: false, unusable: false, problems }
    : { ok: true, job, problems };
}

/** Records that are too large to be kept. */
function sizeProblems(job: Job): Problem[] {
  const whole: Problem[] =
    JSON.stringify(headerOf(job)).length > LIMITS.record
      ? [{ path: '', message: TOO_LARGE, severity: 'error' }]
      : [];
  const single = LIST_KINDS.flatMap((kind) =>
    (listOf(job, kind) ?? []).flatMap((record, index): Problem[] =>
      JSON.stringify(record).length > LIMITS.record
        ? [{ path: pointer([...RECORD_LISTS[kind], index]), message: TOO_LARGE, severity: 'error' }]
        : [],
    ),
  );
  return [...whole, ...single];
}

const TOO_LARGE = `is too large: at most ${LIMITS.record} characters of one record are taken`;

function unusable(path: string, message: string): ReadResult {
  return { ok: false, unusable: true, problems: [{ path, message, severity: 'error' }] };
}
