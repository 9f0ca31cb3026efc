import { moneyText, type Schedule, scheduleFindingText } from '@inventario/core';
import { useJob } from '../../data/job-context.js';

/** What clashes, and what each rule costs in a year. */
export function RulesReckoning({ year }: { year: Schedule | null }) {
  const { known, job } = useJob();
  if (!year) return <p>When rules fire and what clashes stands here.</p>;
  const said = new Map<string, number>();
  for (const finding of year.findings) {
    const text = scheduleFindingText(finding, known);
    said.set(text, (said.get(text) ?? 0) + 1);
  }
  const unseen = job.automations.filter(({ enabled, seen }) => enabled !== false && !seen);
  return (
    <div className="flex flex-col gap-4">
      <section>
        <h2 className="mb-1 font-bold">Conflicts</h2>
        {said.size === 0 ? (
          <p>None in the year to come.</p>
        ) : (
          <ul className="text-sm">
            {[...said].map(([text, count]) => (
              <li key={text} className="border-t border-rule py-1.5">
                {text}
                {count > 1 && <span className="text-soft"> {count} times in the year.</span>}
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
                <th className="py-1 text-right font-semibold">Hours</th>
                <th className="py-1 text-right font-semibold">kWh</th>
                <th className="py-1 text-right font-semibold">Cost</th>
              </tr>
            </thead>
            <tbody>
              {year.costs.map(({ automationId, hours, kWh, cost }) => (
                <tr key={automationId} className="border-t border-rule">
                  <td className="py-1 pr-2">
                    {job.automations.find(({ id }) => id === automationId)?.name ?? automationId}
                  </td>
                  <td className="py-1 text-right">{hours === null ? 'not known' : Math.round(hours)}</td>
                  <td className="py-1 text-right">{kWh === null ? '–' : kWh.toFixed(1)}</td>
                  <td className="py-1 text-right">
                    {cost === null ? '–' : moneyText(Math.round(cost), job.money?.currency)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </div>
  );
}
