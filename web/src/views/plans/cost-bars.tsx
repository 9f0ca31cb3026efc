import { moneyText, schoolsText } from '@inventario/core';
import { useJob } from '../../data/job-context.js';
import type { ReckonedPlan } from '../../data/planner.worker.js';
import { BarsLegend, StackedBars } from '../../drawings/bars.js';

const PARTS = [
  ['devices', 'Devices'],
  ['labour', 'Labour'],
  ['hubs', 'Hubs'],
  ['parts', 'Parts'],
] as const;

/** The schools' costs, made of devices, labour, hubs and parts. */
export function CostBars({ plans }: { plans: readonly ReckonedPlan[] }) {
  const { job } = useJob();
  return (
    <div className="my-3 max-w-3xl">
      <StackedBars
        title="What each plan costs; the figures stand in the table above"
        labels={plans.map((plan) => schoolsText(plan.schools))}
        series={PARTS.map(([field, label]) => ({ label, values: plans.map((plan) => plan[field]) }))}
        text={(value) => moneyText(value, job.money?.currency)}
      />
      <BarsLegend names={PARTS.map(([, label]) => label)} />
    </div>
  );
}
