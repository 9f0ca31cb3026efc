import { OUTAGE_WORDS, OUTAGES, SCHOOL_WORDS, type School } from '@inventario/core';
import { useJob } from '../../data/job-context.js';
import type { ReckonedPlan } from '../../data/planner.worker.js';
import { classes } from '../../ui/classes.js';
import { moneyText } from '../choose/money-text.js';

/** The schools as columns: what they serve, cost and lean on, and what still works when something is out. */
export function SchoolTable({
  plans,
  school,
  onSchool,
}: {
  plans: readonly ReckonedPlan[];
  school: School;
  onSchool: (school: School) => void;
}) {
  const { job, known } = useJob();
  const { currency } = job.money ?? {};
  const budget = job.brief?.budget;
  const rows: { name: string; of: (plan: ReckonedPlan) => string; strong?: boolean }[] = [
    { name: 'Places served', of: (plan) => `${plan.served} of ${plan.served + plan.unserved.length}`, strong: true },
    { name: 'Cost', of: (plan) => moneyText(plan.total, currency), strong: true },
    ...(budget === undefined
      ? []
      : [{ name: 'Against the budget', of: (plan: ReckonedPlan) => overBudget(plan.total - budget, currency) }]),
    { name: 'Devices', of: (plan) => moneyText(plan.devices, currency) },
    { name: 'Hubs to buy', of: (plan) => moneyText(plan.hubs, currency) },
    { name: 'Parts', of: (plan) => moneyText(plan.parts, currency) },
    { name: 'Labour', of: (plan) => `${moneyText(plan.labour, currency)}, ${plan.labourMinutes} min` },
    { name: 'Families', of: (plan) => (plan.families.length > 0 ? plan.families.join(', ') : 'none') },
    { name: 'Hubs', of: (plan) => plan.hubIds.map((id) => known.hubs.get(id)?.name ?? id).join(', ') || 'none' },
    {
      name: 'On the router',
      of: ({ router }) => (router.limit === null ? `${router.clients}` : `${router.clients} of ${router.limit}`),
    },
    ...OUTAGES.map((outage) => ({
      name: OUTAGE_WORDS[outage],
      of: (plan: ReckonedPlan) => {
        const report = plan.outages.find((entry) => entry.outage === outage);
        return report
          ? `${report.full} in full, ${report.wallOnly} wall only${report.dead.length > 0 ? `, ${report.dead.length} not` : ''}`
          : '';
      },
    })),
    {
      name: 'Proof',
      of: ({ proof }) => (proof === 'optimal' ? 'the least there is' : `at most ${moneyText(proof.gap, currency)} over the least`),
    },
  ];
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-3xl border-collapse text-sm" aria-label="Plans by school">
        <thead>
          <tr>
            <td />
            {plans.map((plan) => (
              <th key={plan.school} scope="col" className="p-1 align-bottom">
                <button
                  type="button"
                  aria-pressed={plan.school === school}
                  title={SCHOOL_WORDS[plan.school].says}
                  onClick={() => onSchool(plan.school)}
                  className={classes(
                    'min-h-11 w-full rounded-md border px-2 font-bold',
                    plan.school === school ? 'border-strong bg-strong text-onstrong' : 'border-rule bg-sheet hover:border-ink',
                  )}
                >
                  {SCHOOL_WORDS[plan.school].name}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.name} className="border-t border-rule">
              <th scope="row" className="py-1.5 pr-2 text-left font-normal text-soft">
                {row.name}
              </th>
              {plans.map((plan) => (
                <td
                  key={plan.school}
                  className={classes('px-2 py-1.5 tabular-nums', row.strong && 'text-base font-bold', plan.school === school && 'bg-sheet')}
                >
                  {row.of(plan)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function overBudget(over: number, currency: string | undefined): string {
  if (over === 0) return 'just met';
  return over > 0 ? `${moneyText(over, currency)} over` : `${moneyText(-over, currency)} left`;
}
