import type { MovedSheet, RequirementCost } from '@inventario/core';
import { useMemo } from 'react';
import { useJob, useLatest, usePlanner } from './job-context.js';
import type { Day, Plans, ScheduleQuestion, Schedules } from './planner.worker.js';

/** Every school's plan of the house as it stands. */
export function usePlans(): Plans | null {
  const planner = usePlanner();
  const { job } = useJob();
  const key = useMemo(() => ({ job }), [job]);
  return useLatest(key, () => planner.ask(job, (remote) => remote.plans()));
}

/** What one more wish would add; asked only when somebody wants to know. */
export function useRequirements(wanted: boolean): RequirementCost[] | null {
  const planner = usePlanner();
  const { job } = useJob();
  const key = useMemo(() => ({ job, wanted }), [job, wanted]);
  return useLatest<RequirementCost[] | null>(key, () =>
    wanted ? planner.ask(job, (remote) => remote.requirements()) : Promise.resolve(null),
  );
}

/** What the rules do in the year to come, and on one day; undefined while the first answer is worked out. */
export function useSchedules({ today, day, tariff }: ScheduleQuestion): Schedules | null | undefined {
  const planner = usePlanner();
  const { job } = useJob();
  const key = useMemo(() => ({ job, today, day, tariff }), [job, today, day, tariff]);
  const answer = useLatest(key, async () => ({
    told: await planner.ask(job, (remote) => remote.schedules({ today, day, tariff })),
  }));
  return answer?.told;
}

/** The day in batches; the last answer stays until the next is there. */
export function useDay(): Day | null {
  const planner = usePlanner();
  const { job } = useJob();
  const key = useMemo(() => ({ job }), [job]);
  return useLatest(key, () => planner.ask(job, (remote) => remote.day()));
}

/** What would come of putting a box into another batch. */
export function useMoved(): (boxId: string, to: number) => Promise<MovedSheet | null> {
  const planner = usePlanner();
  const { job } = useJob();
  return (boxId, to) => planner.ask(job, (remote) => remote.moved(boxId, to));
}
