import {
  type BeforeLeaving,
  beforeLeaving,
  type DayFiring,
  distinctPlans,
  firingsOfDay,
  type HousePlan,
  homePlans,
  type Job,
  judgeControlPoint,
  lookup,
  type MovedSheet,
  movedSheet,
  type OutageReport,
  type Overview,
  outagesOf,
  overviewOf,
  type Phase,
  phasesOf,
  placeKey,
  type RecordChange,
  type RequirementCost,
  type RoomAdvice,
  type RunSheet,
  requirementCosts,
  roomAdvice,
  roomsInOrder,
  runSheet,
  type School,
  scheduleFindingText,
  scheduleLacks,
  scheduleOf,
  sentence,
  standingPlaces,
  stillOpen,
  type Trial,
  trialOf,
  type Verdict,
  wallFirst,
} from '@inventario/core';
import { expose } from 'comlink';
import { applyChanges } from './record-changes.js';

/** A school's plan with what follows from it. */
export interface ReckonedPlan extends HousePlan {
  /** Every strategy that comes to it. */
  schools: School[];
  outages: OutageReport[];
  phases: Phase[];
  trial: Trial | null;
}

export interface Plans {
  plans: ReckonedPlan[];
  /** Places that are mounted, or tied to one that is: no plan touches them. */
  standing: number;
  /** Room by room, against the cheapest plan. */
  advice: RoomAdvice[];
  controls: { id: string; verdict: Verdict; reasons: { outcome: string; text: string }[] }[];
}

let job: Job | undefined;
let key = '';

/** A conflict of rules, in words, with how often it comes. */
interface SaidConflict {
  id: string;
  automationIds: string[];
  says: string;
  times: number;
}

/** What the rules of all apps do in the year to come, and on one day. */
export interface Schedules {
  today: number;
  year: Omit<Overview, 'conflicts'> & { conflicts: SaidConflict[] };
  /** The date it is told of, by its number. */
  day: { day: number; firings: DayFiring[] };
}

/** What of its schedule is asked: numbers of dates; minor units a kWh, null where that is not known. */
export interface ScheduleQuestion {
  today: number;
  day: number;
  tariff: number | null;
}

/** The day as it is worked from now on, and what is to be had before leaving. */
export interface Day {
  sheet: RunSheet;
  leaving: BeforeLeaving;
}

const YEAR = 365;
/** A year has more firings than a screen has points: those of one in so many days are drawn. */
const DRAWN_DAYS = 4;

/** Decides for the whole house, apart from the worker that answers every keystroke. */
export const planner = {
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

  plans(): Plans {
    if (!job) throw new Error('No job was given to the planner yet: call update first');
    const known = lookup(job);
    const { practice } = job;
    const standing = standingPlaces(job);
    const open = wallFirst(stillOpen(job));
    const openKnown = lookup(open);
    const plans = distinctPlans(homePlans(open)).map((plan) => ({
      ...plan,
      outages: outagesOf(plan.choices, openKnown),
      phases: phasesOf(plan, openKnown),
      trial: trialOf(plan.choices, openKnown),
    }));
    const stays = job.selections
      .filter((selection) => standing.has(placeKey(selection.boxId, selection.position)))
      .map((selection) => ({ ...selection, with: selection.with ?? [] }));
    const choices = [...(plans[0]?.choices ?? []), ...stays];
    return {
      plans,
      standing: standing.size,
      advice: roomsInOrder(job).map((room) => roomAdvice(room, choices, known)),
      controls: (job.controlPoints ?? []).map((point) => {
        const judged = judgeControlPoint(point, known);
        return {
          id: judged.id,
          verdict: judged.verdict,
          reasons: judged.reasons.map((reason) => ({
            outcome: reason.outcome,
            text: sentence(reason, practice),
          })),
        };
      }),
    };
  },

  requirements(): RequirementCost[] {
    if (!job) throw new Error('No job was given to the planner yet: call update first');
    return requirementCosts(wallFirst(stillOpen(job)));
  },

  day(): Day {
    if (!job) throw new Error('No job was given to the planner yet: call update first');
    const known = lookup(job);
    const sheet = runSheet(known);
    return {
      sheet,
      leaving: beforeLeaving(
        sheet.batches.flatMap(({ boxIds }) => boxIds),
        known,
      ),
    };
  },

  /** What comes of putting a box into another batch; null where it is on none. */
  moved(boxId: string, to: number): MovedSheet | null {
    if (!job) throw new Error('No job was given to the planner yet: call update first');
    return movedSheet(boxId, to, lookup(job));
  },

  /** Null where the job lacks what it takes to tell when rules fire. */
  schedules({ today, day, tariff }: ScheduleQuestion): Schedules | null {
    if (!job) throw new Error('No job was given to the planner yet: call update first');
    const known = lookup(job);
    if (scheduleLacks(known)) return null;
    const year = overviewOf(scheduleOf(known, { fromDay: today, toDay: today + YEAR }, tariff), DRAWN_DAYS);
    const conflicts = year.conflicts.map(({ id, finding, times }) => ({
      id,
      automationIds: finding.automationIds,
      says: scheduleFindingText(finding, known),
      times,
    }));
    // From the day before on: what is undone after midnight began then.
    const about = scheduleOf(known, { fromDay: day - 1, toDay: day + 2 });
    return { today, year: { ...year, conflicts }, day: { day, firings: firingsOfDay(about, day) } };
  },
};

export type Planner = typeof planner;
expose(planner);
