import {
  assessBox,
  type BoxAssessment,
  boxProgress,
  type Candidate,
  type Job,
  type JobLookup,
  lookup,
  matchPlace,
  type RecordChange,
  sentence,
} from '@inventario/core';
import { expose } from 'comlink';
import { applyChanges } from './record-changes.js';

/** A device at a place, with its reasons in words. */
export type JudgedDevice = Omit<Candidate, 'reasons'> & { reasons: { rule: string; code: string; outcome: string; text: string }[] };

let job: Job | undefined;
let key = '';
const assessments = new WeakMap<object, { inputs: unknown[]; result: BoxAssessment }>();
const planned = new WeakMap<object, { inputs: unknown[]; result: BoxAssessment }>();

/** Recomputes a box only when something its figures rest on is another object than before. */
function assess(box: Job['boxes'][number], known: JobLookup, which: 'found' | 'planned'): BoxAssessment {
  const memo = which === 'found' ? assessments : planned;
  const { job: whole } = known;
  const inputs = [
    whole.practice,
    whole.edition,
    whole.catalogue,
    ...(which === 'planned' ? [whole.selections, whole.loads, whole.groups, whole.brief] : []),
  ];
  const kept = memo.get(box);
  if (kept?.inputs.every((input, index) => input === inputs[index])) return kept.result;
  const result = assessBox(box, known, which);
  memo.set(box, { inputs, result });
  return result;
}

const engines = {
  /** Brings the worker's copy up to date: a whole job under a new key, or what changed since the last call. */
  update(forKey: string, whole: Job | null, changes: RecordChange[]): boolean {
    if (whole) {
      job = whole;
      key = forKey;
      return true;
    }
    if (!job || key !== forKey) return false;
    job = applyChanges(job, changes);
    return true;
  },

  house() {
    if (!job) throw new Error('No job was given to the worker yet: call update first');
    const known = lookup(job);
    return {
      found: job.boxes.map((box) => assess(box, known, 'found')),
      planned: job.boxes.map((box) => assess(box, known, 'planned')),
      progress: job.boxes.map((box) => boxProgress(box, known)),
    };
  },

  place(boxId: string, index: number): JudgedDevice[] {
    if (!job) throw new Error('No job was given to the worker yet: call update first');
    const known = lookup(job);
    const box = known.boxes.get(boxId);
    const position = box?.positions.find((candidate) => candidate.index === index);
    if (!box || !position) return [];
    const { practice } = job;
    return matchPlace(box, position, known).map((candidate) => ({
      ...candidate,
      reasons: candidate.reasons.map((reason) => ({
        rule: reason.rule,
        code: reason.code,
        outcome: reason.outcome,
        text: sentence(reason, practice),
      })),
    }));
  },
};

export type Engines = typeof engines;
expose(engines);
