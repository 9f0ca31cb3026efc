import { moneyText } from '@inventario/core';
import type { useEnergy } from '../../data/energy.js';
import { useJob } from '../../data/job-context.js';
import type { Schedules } from '../../data/planner.worker.js';
import { TariffField } from '../../parts/tariff-field.js';

/** What clashes, and what each rule costs in a year. */
export function RulesReckoning({
  year,
  energy,
}: {
  year: Schedules['year'] | undefined;
  energy: ReturnType<typeof useEnergy>;
}) {
  const { job } = useJob();
  if (!year) return <p>When rules fire and what clashes stands here.</p>;
  const unseen = job.automations.filter(({ enabled, seen }) => enabled !== false && !seen);
  return (
    <div className="flex flex-col gap-4">
      <section>
        <h2 className="mb-1 font-bold">Conflicts</h2>
        {year.conflicts.length === 0 ? (
          <p>None in the year to come.</p>
        ) : (
          <ul className="text-sm">
            {year.conflicts.map(({ id, says, times }) => (
              <li key={id} className="border-t border-rule py-1.5">
                {says}
                {times > 1 && <span className="text-soft"> {times} times in the year.</span>}
              </li>
            ))}
          </ul>
        )}
      </section>
      {unseen.length > 0 && (
        <section>
          <h2 className="mb-1 font-bold">Not seen to fire</h2>
          <p className="text-sm">{unseen.map(({ name }) => name).join(', ')}.</p>
        </section>
      )}
      {year.costs.length > 0 && (
        <section>
          <h2 className="mb-1 font-bold">What they keep on in a year</h2>
          <table className="w-full text-sm">
            <thead>
              <tr className="text-left text-soft">
                <th className="py-1 font-semibold">Rule</th>
                <th className="py-1 pl-2 text-right font-semibold">Hours</th>
                <th className="py-1 pl-2 text-right font-semibold">kWh</th>
                <th className="py-1 pl-2 text-right font-semibold">Cost</th>
              </tr>
            </thead>
            <tbody>
              {year.costs.map(({ automationId, hours, kWh, cost }) => (
                <tr key={automationId} className="border-t border-rule">
                  <td className="py-1 pr-2">
                    {job.automations.find(({ id }) => id === automationId)?.name ?? automationId}
                  </td>
                  <td className="py-1 pl-2 text-right">{hours === null ? '?' : Math.round(hours)}</td>
                  <td className="py-1 pl-2 text-right">{kWh === null ? '?' : energyText(kWh)}</td>
                  <td className="py-1 pl-2 text-right">{costText(kWh, cost, job.money?.currency)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-1 text-sm text-soft">
            Loads at full power, until a rule switches them off.
            {year.costs.some(({ kWh }) => kWh === null) &&
              ' Nothing tells how often a rule with a question mark fires.'}
          </p>
          <div className="mt-2 max-w-48">
            <TariffField {...energy} />
          </div>
        </section>
      )}
    </div>
  );
}

/** Tenths matter below ten. */
const energyText = (kWh: number) => (kWh < 10 ? kWh.toFixed(1) : String(Math.round(kWh)));

function costText(kWh: number | null, cost: number | null, currency: string | undefined): string {
  if (kWh === null) return '?';
  return cost === null ? 'no tariff' : moneyText(Math.round(cost), currency);
}
