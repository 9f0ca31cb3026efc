import {
  againstChoice,
  assessBox,
  assessmentRestsOn,
  type Box,
  type BoxAssessment,
  type BoxProgress,
  type BoxWiring,
  boxProgress,
  type Candidate,
  causeName,
  conflictWords,
  DANGER_TEXT,
  fixSteps,
  foundWiring,
  type Identification,
  identificationRestsOn,
  identifyBox,
  isSameBasis,
  type Job,
  type JobLookup,
  KeptWhile,
  lookup,
  matchPlace,
  type NextReading,
  type NextTest,
  nextReadingWhy,
  nextTestWhy,
  noteWords,
  placeInDoubtOf,
  type RankedCause,
  type RecordChange,
  type Remedy,
  readingWords,
  reasonWords,
  remedies,
  type SeenAndRead,
  type Settling,
  sameEntries,
  sameJson,
  sentence,
  settling,
  type WireStep,
  type WiringFinding,
  type WiringPicture,
  type WiringToDo,
  wayBackSteps,
  wireSteps,
  wiringFindingWords,
  wiringOfBox,
  wiringOfHouse,
  wiringPicture,
} from '@inventario/core';
import { expose } from 'comlink';
import { applyChanges } from './record-changes.js';

/** A device at a place, with its reasons in words. */
export type JudgedDevice = Omit<Candidate, 'reasons'> & {
  reasons: {
    rule: Candidate['reasons'][number]['rule'];
    code: string;
    outcome: Candidate['reasons'][number]['outcome'];
    text: string;
    settles: Settling | null;
    place: string | null;
  }[];
};

/** What the engines say of one box. */
export interface BoxReckoning {
  boxId: string;
  found: BoxAssessment;
  planned: BoxAssessment;
  progress: BoxProgress;
}

/** What the readings say of a box, with its sentences. */
export interface Identified extends Omit<Identification, 'conductors' | 'conflicts' | 'next' | 'notes'> {
  conductors: (Identification['conductors'][number] & { reason: string })[];
  conflicts: (Identification['conflicts'][number] & { message: string })[];
  next: (NextTest & { says: string; because: string })[];
  notes: (Identification['notes'][number] & { message: string })[];
}

export interface HouseNews {
  key: string;
  /** Every box there is, in the job's order. */
  boxIds: string[];
  news: BoxReckoning[];
}

/** The last answer given for each box. */
const told = new Map<string, BoxReckoning>();
let job: Job | undefined;
let key = '';
const assessments = {
  found: new KeptWhile<Box, BoxAssessment>(sameEntries),
  planned: new KeptWhile<Box, BoxAssessment>(sameEntries),
};
const identified = new Map<
  string,
  { restsOn: ReturnType<typeof identificationRestsOn>; result: Identification }
>();

/** Recomputes a box only when something its figures rest on is another object than before. */
function assess(box: Box, known: JobLookup, which: 'found' | 'planned'): BoxAssessment {
  return assessments[which].of(box, assessmentRestsOn(box, known, which), () => assessBox(box, known, which));
}

/**
 * Recomputes only when something the roles rest on is another than before: most keystrokes change none of it.
 */
function identification(box: Box, known: JobLookup): Identification {
  const restsOn = identificationRestsOn(box, known);
  const kept = identified.get(box.id);
  if (kept && isSameBasis(kept.restsOn, restsOn, 'all')) return kept.result;
  const result = identifyBox(box, known);
  identified.set(box.id, { restsOn, result });
  return result;
}

/** How a box is put together, with what is said of it. */
export interface WiringAnswer {
  boxId: string;
  /** Null where nothing is chosen for the box. */
  planned: {
    wiring: BoxWiring;
    picture: WiringPicture;
    steps: WireStep[];
    findings: (WiringFinding & { says: string })[];
  } | null;
  /** As it was found, and the way back to that. */
  found: { wiring: WiringToDo; picture: WiringPicture; steps: WireStep[] };
}

export interface WiringRow {
  boxId: string;
  ok: boolean;
  ready: boolean;
  steps: WireStep[];
  joints: number;
  pieces: number;
  findings: { severity: WiringFinding['severity']; code: WiringFinding['code']; says: string }[];
}

/** Why a place does not work, in words, with the drawing it is put right on. */
export interface DiagnosisAnswer {
  boxId: string;
  position: number;
  causes: (RankedCause & { name: string; steps: string[] })[];
  next: (NextReading & { says: string; because: string }) | null;
  stop: string | null;
  picture: WiringPicture;
}

/** A cause this likely is named when a reading is said to tell it from others; so many at most. */
const LIKELY = 0.02;
const MOST_NAMED = 3;

export const engines = {
  /**
   * Brings the worker's copy up to date: a whole job under a new key, or what changed since the last call.
   */
  update(forKey: string, whole: Job | null, changes: RecordChange[]): boolean {
    if (whole) {
      job = whole;
      key = forKey;
      told.clear();
      identified.clear();
      return true;
    }
    if (!job || key !== forKey) return false;
    job = applyChanges(job, changes);
    return true;
  },

  /**
   * What is known of the house, box by box; only the boxes of which something is new since the last answer.
   */
  house(): HouseNews {
    if (!job) throw new Error('No job was given to the worker yet: call update first');
    const known = lookup(job);
    const news: BoxReckoning[] = [];
    for (const box of job.boxes) {
      const found = assess(box, known, 'found');
      const planned = assess(box, known, 'planned');
      const progress = boxProgress(box, known);
      const last = told.get(box.id);
      if (last && last.found === found && last.planned === planned && sameJson(last.progress, progress))
        continue;
      const reckoning = { boxId: box.id, found, planned, progress };
      told.set(box.id, reckoning);
      news.push(reckoning);
    }
    return { key, boxIds: job.boxes.map((box) => box.id), news };
  },

  identify(boxId: string): Identified | null {
    if (!job) throw new Error('No job was given to the worker yet: call update first');
    const known = lookup(job);
    const box = known.boxes.get(boxId);
    if (!box) return null;
    const result = identification(box, known);
    return {
      ...result,
      conductors: result.conductors.map((conductor) => ({
        ...conductor,
        reason: reasonWords(box, known, conductor),
      })),
      conflicts: result.conflicts.map((conflict) => ({
        ...conflict,
        message: conflictWords(box, known, conflict),
      })),
      next: result.next.map((next) => ({
        ...next,
        says: readingWords(box, known, { ...next, position: next.position ?? undefined }),
        because: nextTestWhy(box, known, next),
      })),
      notes: result.notes.map((note) => ({ ...note, message: noteWords(note) })),
    };
  },

  /** Ways out for a box that does not close. */
  remedies(boxId: string): Remedy[] {
    if (!job) throw new Error('No job was given to the worker yet: call update first');
    const known = lookup(job);
    const box = known.boxes.get(boxId);
    return box ? remedies(box, known) : [];
  },

  /** How a box is put together, as planned and as found; null without such a box. */
  wiring(boxId: string): WiringAnswer | null {
    if (!job) throw new Error('No job was given to the worker yet: call update first');
    const known = lookup(job);
    const box = known.boxes.get(boxId);
    if (!box) return null;
    const chosen = job.selections.some((selection) => selection.boxId === boxId);
    const wiring = chosen ? wiringOfBox(box, known, againstChoice(known)) : undefined;
    const found = foundWiring(box, known);
    return {
      boxId,
      planned: wiring
        ? {
            wiring,
            picture: wiringPicture(wiring, known),
            steps: wireSteps(wiring, known),
            findings: wiring.findings.map((finding) => ({
              ...finding,
              says: wiringFindingWords(wiring, finding, known),
            })),
          }
        : null,
      found: {
        wiring: found,
        picture: wiringPicture(found, known),
        steps: wayBackSteps(found, wiring ?? null, known),
      },
    };
  },

  /** Of every box with a choice: whether its plan is proved, and what is missing. */
  houseWiring(): WiringRow[] {
    if (!job) throw new Error('No job was given to the worker yet: call update first');
    const known = lookup(job);
    return wiringOfHouse(known, againstChoice(known)).map((wiring) => ({
      boxId: wiring.boxId,
      ok: wiring.ok,
      ready: wiring.ready,
      steps: wireSteps(wiring, known),
      joints: wiring.plan.joints.filter(({ kept }) => !kept).length,
      pieces: wiring.plan.made.length,
      findings: wiring.findings.map((finding) => ({
        severity: finding.severity,
        code: finding.code,
        says: wiringFindingWords(wiring, finding, known),
      })),
    }));
  },

  /** Why a place does not work, by what was seen and read; null where no device is planned on wires there. */
  diagnose(place: { boxId: string; position: number }, evidence: SeenAndRead): DiagnosisAnswer | null {
    if (!job) throw new Error('No job was given to the worker yet: call update first');
    const known = lookup(job);
    const found = placeInDoubtOf(place, known);
    if (!found) return null;
    const { wiring } = found;
    const { causes, next, stop } = found.place.diagnosis(evidence);
    const named = causes.map((cause) => ({
      ...cause,
      name: causeName(cause.cause, known),
      steps: fixSteps(cause, wiring, known),
    }));
    const first = named.filter(({ probability }) => probability >= LIKELY).slice(0, MOST_NAMED);
    return {
      ...place,
      causes: named,
      next: next && {
        ...next,
        says: readingWords(wiring.box, known, { ...next, breakers: next.breakers ?? {} }),
        because: nextReadingWhy(
          next,
          first.map(({ name }) => name),
        ),
      },
      stop: stop ? DANGER_TEXT : null,
      picture: wiringPicture(wiring, known),
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
        settles: settling(reason),
        place: typeof reason.facts.place === 'string' ? reason.facts.place : null,
      })),
    }));
  },
};

export type Engines = typeof engines;
expose(engines);
