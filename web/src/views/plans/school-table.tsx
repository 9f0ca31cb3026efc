import {
  moneyText,
  OUTAGE_WORDS,
  OUTAGES,
  type OutageReport,
  SCHOOL_WORDS,
  type School,
  schoolsText,
} from '@inventario/core';
import { useJob } from '../../data/job-context.js';
import type { ReckonedPlan } from '../../data/planner.worker.js';
import { classes } from '../../ui/classes.js';
import { Scrolls } from '../../ui/scrolls.js';

interface Row {
  name: string;
  of: (plan: ReckonedPlan) => string;
  strong?: boolean;
}

/** What is compared, line by line. */
function useRows(): Row[] {
  const { job, known } = useJob();
  const { currency } = job.money ?? {};
  const budget = job.brief?.budget;
  return [
    {
      name: 'Places served',
      of: (plan) => `${plan.served} of ${plan.served + plan.unserved.length}`,
      strong: true,
    },
    { name: currency ? `Cost, ${currency}` : 'Cost', of: (plan) => amount(plan.total), strong: true },
    ...(budget === undefined
      ? []
      : [{ name: 'Against the budget', of: (plan: ReckonedPlan) => overBudget(plan.total - budget) }]),
    { name: 'Devices', of: (plan) => amount(plan.devices) },
    { name: 'Hubs to buy', of: (plan) => amount(plan.hubs) },
    { name: 'Parts', of: (plan) => amount(plan.parts) },
    { name: 'Labour', of: (plan) => `${amount(plan.labour)}, ${plan.labourMinutes} min` },
    { name: 'Makers', of: (plan) => (plan.families.length > 0 ? plan.families.join(', ') : 'none') },
    {
      name: 'Hubs',
      of: (plan) => plan.hubIds.map((id) => known.hubs.get(id)?.name ?? id).join(', ') || 'none',
    },
    {
      name: 'On the router',
      of: ({ router }) =>
        router.limit === null ? `${router.clients}` : `${router.clients} of ${router.limit}`,
    },
    ...OUTAGES.map((outage) => ({
      name: OUTAGE_WORDS[outage],
      of: (plan: ReckonedPlan) => {
        const report = plan.outages.find((entry) => entry.outage === outage);
        return report ? outageText(report) : '';
      },
    })),
    {
      name: 'Proof',
      of: ({ proof }) =>
        proof === 'optimal' ? 'proved cheapest' : `at most ${amount(proof.gap)} over the least`,
    },
  ];
}

/**
 * The strategies as columns: what they serve, cost and lean on, and what still works when something is out.
 */
export function SchoolTable({
  plans,
  school,
  onSchool,
}: {
  plans: readonly ReckonedPlan[];
  school: School;
  onSchool: (school: School) => void;
}) {
  const rows = useRows();
  return (
    <Scrolls className="overflow-x-auto" label="Strategies side by side">
      <table className="w-full min-w-2xl table-fixed border-collapse text-sm" aria-label="Plans by strategy">
        <thead>
          <tr>
            <td className="w-26" />
            {plans.map((plan) => (
              <th key={plan.school} scope="col" className="p-1 align-bottom">
                <button
                  type="button"
                  aria-pressed={plan.school === school}
                  title={SCHOOL_WORDS[plan.school].says}
                  onClick={() => onSchool(plan.school)}
                  className={classes(
                    'min-h-13 w-full rounded-md border px-1 leading-tight font-bold',
                    plan.school === school
                      ? 'border-ink bg-well ring-2 ring-ink'
                      : 'border-edge bg-sheet hover:border-ink',
                  )}
                >
                  {schoolsText(plan.schools)}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.name} className="border-t border-rule">
              <th scope="row" className="py-1.5 pr-2 text-left align-top font-normal text-soft">
                {row.name}
              </th>
              {plans.map((plan) => (
                <td
                  key={plan.school}
                  className={classes(
                    'px-2 py-1.5 align-top tabular-nums',
                    row.strong && 'text-base font-bold',
                    plan.school === school && 'bg-sheet',
                  )}
                >
                  {row.of(plan)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Scrolls>
  );
}

/** Without the currency, which the row of the cost names. */
const amount = (minor: number) => moneyText(minor, undefined);

function overBudget(over: number): string {
  if (over === 0) return 'just met';
  return over > 0 ? `${amount(over)} over` : `${amount(-over)} left`;
}

function outageText({ full, wallOnly, dead }: OutageReport): string {
  if (full + wallOnly + dead.length === 0) return '–';
  const parts = [
    full > 0 ? `${full} in full` : '',
    wallOnly > 0 ? `${wallOnly} by hand` : '',
    dead.length > 0 ? `${dead.length} not at all` : '',
  ];
  return parts.filter(Boolean).join(', ');
}
