import type { JointPlan } from '../wire/joint-plan.js';

/** A plan with one thing done otherwise, and what. */
export interface ChangedPlan {
  what: string;
  plan: JointPlan;
}

type Slot = { of: 'joint'; joint: number; member: number } | { of: 'landed'; landed: number };

/**
 * Every single change to what stands where: two ends exchanged, one left out and capped, two joints made one,
 * what lands on two terminals exchanged, a lead exchanged with a capped one.
 */
export function singleChanges(plan: JointPlan): ChangedPlan[] {
  const changes: ChangedPlan[] = [];
  const add = (what: string, change: (copy: JointPlan) => void) => {
    const copy = structuredClone({ ...plan, wired: undefined }) as unknown as JointPlan;
    change(copy);
    changes.push({ what, plan: { ...copy, wired: plan.wired } });
  };
  const slots: Slot[] = [
    ...plan.joints.flatMap(({ members }, joint) =>
      members.map((_, member): Slot => ({ of: 'joint', joint, member })),
    ),
    ...plan.landed.map((_, landed): Slot => ({ of: 'landed', landed })),
  ];
  const get = (from: JointPlan, slot: Slot): string =>
    slot.of === 'joint'
      ? (from.joints[slot.joint]?.members[slot.member] ?? '')
      : (from.landed[slot.landed]?.conductorId ?? '');
  const set = (into: JointPlan, slot: Slot, name: string): void => {
    if (slot.of === 'joint') (into.joints[slot.joint] as JointPlan['joints'][0]).members[slot.member] = name;
    else (into.landed[slot.landed] as JointPlan['landed'][0]).conductorId = name;
  };
  const isLead = (name: string) => name.includes('.');
  slots.forEach((one, at) => {
    for (const other of slots.slice(at + 1)) {
      if (one.of === 'joint' && other.of === 'joint' && one.joint === other.joint) continue;
      const [a, b] = [get(plan, one), get(plan, other)];
      if (a === b) continue;
      // A lead does not land on a terminal.
      if ((isLead(a) && other.of === 'landed') || (isLead(b) && one.of === 'landed')) continue;
      add(`exchange ${a} and ${b}`, (copy) => {
        set(copy, one, b);
        set(copy, other, a);
      });
    }
    plan.capped.forEach((name, capped) => {
      if (isLead(name) && one.of === 'landed') return;
      add(`exchange ${get(plan, one)} with the capped ${name}`, (copy) => {
        copy.capped[capped] = get(plan, one);
        set(copy, one, name);
      });
    });
  });
  plan.joints.forEach(({ members }, joint) => {
    members.forEach((name, member) => {
      if (members.length > 2)
        add(`leave out ${name}`, (copy) => {
          copy.joints[joint]?.members.splice(member, 1);
          copy.capped.push(name);
        });
    });
    plan.joints.slice(joint + 1).forEach((other, at) => {
      add(`join ${plan.joints[joint]?.id} and ${other.id}`, (copy) => {
        copy.joints[joint]?.members.push(...other.members);
        copy.joints.splice(joint + 1 + at, 1);
      });
    });
  });
  return changes;
}
