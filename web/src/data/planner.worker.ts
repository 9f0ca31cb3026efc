import {
  distinctPlans,
  type HousePlan,
  homePlans,
  type Job,
  judgeControlPoint,
  lookup,
  type OutageReport,
  outagesOf,
  type Phase,
  phasesOf,
  placeKey,
  type RecordChange,
  type RequirementCost,
  type RoomAdvice,
  requirementCosts,
  roomAdvice,
  roomsInOrder,
  type School,
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
};

export type Planner = typeof planner;
expose(planner);
