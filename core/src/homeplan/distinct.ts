import type { HousePlan, School } from './vocabulary.js';

/**
 * Plans worth comparing: those that choose the same are one, under all their strategies; a strategy that
 * serves nothing is none, unless no strategy serves anything.
 */
export function distinctPlans<Plan extends HousePlan>(
  plans: readonly Plan[],
): (Plan & { schools: School[] })[] {
  const serving = plans.filter(({ served }) => served > 0);
  const found = new Map<string, Plan & { schools: School[] }>();
  for (const plan of serving.length > 0 ? serving : plans.slice(0, 1)) {
    const key = JSON.stringify([plan.total, plan.choices]);
    const same = found.get(key);
    if (same) same.schools.push(plan.school);
    else found.set(key, { ...plan, schools: [plan.school] });
  }
  return [...found.values()];
}
