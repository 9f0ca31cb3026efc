import type { JointPlan } from '../wire/joint-plan.js';

/** Edits of a wiring plan: what a slip of the hand makes of it. Nothing else of the box changes. */
type Plan = JointPlan;

/** Two terminals, conductors or leads in each other's place. */
export function exchanged(plan: Plan, one: string, other: string): Plan {
  const turned = (name: string) => (name === one ? other : name === other ? one : name);
  return {
    ...plan,
    joints: plan.joints.map((joint) => ({ ...joint, members: joint.members.map(turned) })),
    landed: plan.landed.map(({ terminal, conductorId }) => ({
      terminal: turned(terminal),
      conductorId: turned(conductorId),
    })),
    kept: plan.kept.map(({ conductorId, at }) => ({ conductorId: turned(conductorId), at: turned(at) })),
    capped: plan.capped.map(turned),
  };
}

/** An end of the plan: a member of a joint, or a conductor on a terminal. */
export type PlannedEnd = { jointId: string; name: string } | { terminal: string; name: string };

/** An end that came off what it was on. */
export function loosened(plan: Plan, end: PlannedEnd): Plan {
  if ('jointId' in end)
    return {
      ...plan,
      joints: plan.joints.map((joint) =>
        joint.id === end.jointId
          ? { ...joint, members: joint.members.filter((name) => name !== end.name) }
          : joint,
      ),
    };
  const stays = (at: string, conductorId: string) => at !== end.terminal || conductorId !== end.name;
  return {
    ...plan,
    landed: plan.landed.filter(({ terminal, conductorId }) => stays(terminal, conductorId)),
    kept: plan.kept.filter(({ at, conductorId }) => stays(at, conductorId)),
  };
}

/** Every end that stands in the plan. */
export function endsOf(plan: Plan): PlannedEnd[] {
  return [
    ...plan.joints.flatMap(({ id, members }) => members.map((name) => ({ jointId: id, name }))),
    ...plan.landed.map(({ terminal, conductorId }) => ({ terminal, name: conductorId })),
    ...plan.kept.map(({ at, conductorId }) => ({ terminal: at, name: conductorId })),
  ];
}

/** An end that went into another joint. */
export function moved(plan: Plan, end: PlannedEnd, jointId: string): Plan {
  const off = loosened(plan, end);
  return {
    ...off,
    joints: off.joints.map((joint) =>
      joint.id === jointId ? { ...joint, members: [...joint.members, end.name] } : joint,
    ),
  };
}

/** The device of a position taken off, each of its conductors capped alone. */
export function withoutDevice(plan: Plan, position: number): Plan {
  const isOwn = (name: string) => name.startsWith(`${position}.`);
  return {
    ...plan,
    joints: plan.joints.map((joint) => ({ ...joint, members: joint.members.filter((name) => !isOwn(name)) })),
    landed: plan.landed.filter(({ terminal }) => !isOwn(terminal)),
    kept: plan.kept.filter(({ at }) => !isOwn(at)),
  };
}
