import { blockerText, type Job, type JobSummary, jobProgress, STAGES } from '@inventario/core';

/** What the list of jobs shows of one: counts for each stage, and the blocker met most often. */
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
  const first = rooms.flatMap((room) => room.boxes).flatMap((box) => box.blockers.slice(0, 1));
  const counts = new Map<string, { text: string; boxes: number }>();
  for (const blocker of first) {
    const known = counts.get(blocker.code);
    counts.set(blocker.code, { text: known?.text ?? blockerText(blocker), boxes: (known?.boxes ?? 0) + 1 });
  }
  const worst = [...counts.values()].sort((a, b) => b.boxes - a.boxes)[0];
  return {
    id: job.id,
    name: job.name,
    practice: job.practice,
    rooms: job.rooms.length,
    boxes: job.boxes.length,
    updatedAt: updatedAt.toISOString(),
    stages,
    blocker: worst
      ? `${worst.text}${worst.boxes > 1 ? `, and ${worst.boxes - 1} more box${worst.boxes > 2 ? 'es' : ''} like it` : ''}`
      : null,
  };
}
