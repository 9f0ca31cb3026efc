import { adoptParts, moneyText, placeKey, plural, type School, schoolsText } from '@inventario/core';
import { lazy, Suspense, useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { usePlans } from '../../data/plan-answers.js';
import type { ReckonedPlan } from '../../data/planner.worker.js';
import { Bench } from '../../parts/bench.js';
import { Empty } from '../../ui/empty.js';
import { ControlPoints } from './control-points.js';
import { PhaseList } from './phase-list.js';
import { PlanChoices } from './plan-choices.js';
import { PlanReckoning } from './plan-reckoning.js';
import { RoomAdviceList } from './room-advice-list.js';
import { SchoolTable } from './school-table.js';

const CostBars = lazy(async () => ({ default: (await import('./cost-bars.js')).CostBars }));

/** Which plan? The strategies side by side, and the one in hand place by place. */
export function PlansView() {
  const { job, known, applyAndSay } = useJob();
  const answer = usePlans();
  const [school, setSchool] = useState<School>('lowest-cost');
  if (!answer)
    return (
      <Bench title="Plans" glance="The plans are being worked out" reckoning={null}>
        <p role="status">The plans are being worked out …</p>
      </Bench>
    );
  const plan = (answer.plans.find(({ schools }) => schools.includes(school)) ??
    answer.plans[0]) as ReckonedPlan;
  const standing =
    answer.standing > 0
      ? ` ${plural(answer.standing, 'more place is', 'more places are')} wired and mounted, ` +
        'or tied to one that is: no plan replaces that.'
      : '';
  const wanted = plan.served + plan.unserved.length;
  const adopted =
    plan.choices.length > 0 &&
    plan.choices.every((choice) => sameAsChosen(choice, known.selections)) &&
    plan.unserved.every((place) => !known.selections.has(placeKey(place.boxId, place.position)));
  const adopt = () => {
    applyAndSay(
      adoptParts(plan.choices, job),
      `Adopt the plan: ${schoolsText(plan.schools)}`,
      `${plan.choices.length} places are chosen as planned.`,
    );
  };
  return (
    <Bench
      title="Plans"
      glance={
        `${schoolsText(plan.schools)}: ${moneyText(plan.total, job.money?.currency)}, ${plan.served} ` +
        `of ${wanted} places`
      }
      reckoning={<PlanReckoning plan={plan} plans={answer.plans} adopted={adopted} onAdopt={adopt} />}
    >
      <h1 className="mb-1 text-xl font-bold">Which plan for the house?</h1>
      {wanted === 0 ? (
        <Empty title={standing ? 'Nothing is left to plan' : 'No place wants a device yet'}>
          <p>{standing || 'Say in the brief, room by room, what is to be smart.'}</p>
        </Empty>
      ) : (
        <>
          <p className="mb-3 max-w-prose">
            Each strategy serves as many of the {wanted} places as it can, then for the least money. Only what
            fits as the findings stand is planned; what is not proved waits.{standing}
          </p>
          <SchoolTable plans={answer.plans} school={plan.school} onSchool={setSchool} />
          <Suspense fallback={null}>
            <CostBars plans={answer.plans} />
          </Suspense>
          <PlanChoices plan={plan} />
          <PhaseList plan={plan} />
          <RoomAdviceList advice={answer.advice} />
        </>
      )}
      <ControlPoints judged={answer.controls} />
    </Bench>
  );
}

function sameAsChosen(
  choice: ReckonedPlan['choices'][number],
  selections: ReadonlyMap<string, { deviceId: string | null; strategy: string }>,
): boolean {
  const now = selections.get(placeKey(choice.boxId, choice.position));
  return now !== undefined && now.deviceId === choice.deviceId && now.strategy === choice.strategy;
}
