import { moneyText } from '@inventario/core';
import { useJob } from '../../data/job-context.js';
import type { ReckonedPlan } from '../../data/planner.worker.js';
import { Scrolls } from '../../ui/scrolls.js';

/** Room by room over months: what each step takes, and how far the money reaches. */
export function PhaseList({ plan }: { plan: ReckonedPlan }) {
  const { job, known } = useJob();
  const { currency } = job.money ?? {};
  if (plan.phases.length === 0) return null;
  return (
    <section aria-label="Room by room" className="my-4 max-w-3xl">
      <h2 className="text-lg font-bold">Room by room, over time</h2>
      <p className="mb-2 text-sm text-soft">
        Every device is the one it will have for good, so nothing bought early is replaced. What asks for a
        further hub comes after what does not.
      </p>
      <Scrolls className="overflow-x-auto" label="Phases side by side">
        <table className="w-full min-w-xl border-collapse text-sm">
          <thead>
            <tr className="text-left text-soft">
              <th className="py-1 pr-2 font-semibold">Rooms</th>
              <th className="py-1 pr-2 text-right font-semibold">Places</th>
              <th className="py-1 pr-2 font-semibold">Hub to buy</th>
              <th className="py-1 pr-2 text-right font-semibold">This step</th>
              <th className="py-1 text-right font-semibold">So far</th>
            </tr>
          </thead>
          <tbody>
            {plan.phases.map((phase) => (
              <tr key={phase.roomIds.join()} className="border-t border-rule">
                <td className="py-1.5 pr-2">
                  {phase.roomIds.map((id) => known.rooms.get(id)?.name ?? id).join(' and ')}
                </td>
                <td className="py-1.5 pr-2 text-right tabular-nums">{phase.places}</td>
                <td className="py-1.5 pr-2">
                  {phase.hubIds.map((id) => known.hubs.get(id)?.name ?? id).join(', ') || 'none'}
                </td>
                <td className="py-1.5 pr-2 text-right tabular-nums">{moneyText(phase.total, currency)}</td>
                <td className="py-1.5 text-right tabular-nums">
                  {moneyText(phase.sum, currency)}
                  {phase.withinBudget === false && <span className="block text-soft">over the budget</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scrolls>
    </section>
  );
}
