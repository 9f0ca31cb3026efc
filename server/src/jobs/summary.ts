import {
  houseBlockerText,
  type Job,
  type JobSummary,
  jobProgress,
  STAGES,
  worstBlockers,
} from '@inventario/core';

/** What the list of jobs shows of one: counts for each stage, and the worst blocker, as the board has it. */
export function summarise(job: Job, updatedAt: Date): JobSummary {
  const rooms = jobProgress(job);
  const stages = Object.fromEntries(
    STAGES.map((stage) => [
      stage,
      rooms.reduce(
        (sum, room) => ({ done: sum.done + room.counts[stage].done, of: sum.of + room.counts[stage].of }),
        { done: 0, of: 0 },
      ),
    ]),
  );
  const worst = worstBlockers(rooms.flatMap(({ boxes }) => boxes))[0];
  return {
    id: job.id,
    name: job.name,
    practice: job.practice,
    rooms: job.rooms.length,
    boxes: job.boxes.length,
    updatedAt: updatedAt.toISOString(),
    stages,
    blocker: worst ? houseBlockerText(worst) : null,
  };
}
