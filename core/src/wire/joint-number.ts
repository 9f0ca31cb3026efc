import type { WiringToDo } from './steps.js';

/** What a joint is called: those of the box as found keep their number, new ones count on. */
export function jointNumber({ box, plan }: Pick<WiringToDo, 'box' | 'plan'>, id: string): number {
  const found = box.joints.findIndex((joint) => joint.id === id);
  if (found >= 0) return found + 1;
  const own = plan.joints.filter((joint) => !box.joints.some((entry) => entry.id === joint.id));
  return box.joints.length + own.findIndex((joint) => joint.id === id) + 1;
}
