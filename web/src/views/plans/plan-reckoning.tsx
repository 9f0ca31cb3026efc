import { moneyText, plural, requirementWords, SCHOOL_WORDS, schoolsText, whyWords } from '@inventario/core';
import { Calculator, Check } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { useRequirements } from '../../data/plan-answers.js';
import type { ReckonedPlan } from '../../data/planner.worker.js';
import { paths } from '../../parts/paths.js';
import { TrialNote } from '../../parts/trial-note.js';
import { Button } from '../../ui/button.js';

export function PlanReckoning({
  plan,
  plans,
  adopted,
  onAdopt,
}: {
  plan: ReckonedPlan;
  plans: readonly ReckonedPlan[];
  adopted: boolean;
  onAdopt: () => void;
}) {
  const { job, known } = useJob();
  const { currency } = job.money ?? {};
  const least = plans[0];
  const extra = least && plan.served === least.served ? plan.total - least.total : 0;
  return (
    <div className="flex flex-col gap-4">
      <Button kind="main" icon={Check} disabled={adopted || plan.choices.length === 0} onClick={onAdopt}>
        {adopted ? 'This plan is the choice' : `Adopt: ${schoolsText(plan.schools).toLowerCase()}`}
      </Button>
      <p>
        {SCHOOL_WORDS[plan.school].says}
        {extra > 0 && ` It costs ${moneyText(extra, currency)} more than the least.`}
      </p>
      {plan.trial && <TrialNote trial={plan.trial} />}
      {plan.spares.length > 0 && (
        <p className="text-sm">
          Plus spares:{' '}
          {plan.spares
            .map((spare) => `${spare.count} x ${known.devices.get(spare.deviceId)?.model}`)
            .join(', ')}
          ,{' '}
          {moneyText(
            plan.spares.reduce((sum, spare) => sum + spare.price, 0),
            currency,
          )}
          .
        </p>
      )}
      {plan.unserved.length > 0 && (
        <section aria-label="Not served">
          <h2 className="font-bold">Not served</h2>
          <ul className="text-sm">
            {plan.unserved.map((place) => (
              <li key={`${place.boxId}/${place.position}`} className="py-0.5">
                <Link className="underline" to={paths.place(job.id, place.boxId, place.position)}>
                  {known.boxes.get(place.boxId)?.name}
                </Link>
                : {whyWords(place.why)}
              </li>
            ))}
          </ul>
        </section>
      )}
      <OneMoreWish />
    </div>
  );
}

/** What one more wish would add to the cheapest plan; each is a plan of its own, so it is asked for. */
function OneMoreWish() {
  const { job } = useJob();
  const [wanted, setWanted] = useState(false);
  const costs = useRequirements(wanted);
  const { currency } = job.money ?? {};
  return (
    <section aria-label="One more wish">
      <h2 className="mb-1 font-bold">One more wish</h2>
      {!wanted && (
        <Button icon={Calculator} onClick={() => setWanted(true)}>
          Work out what it would cost
        </Button>
      )}
      {wanted && !costs && <p role="status">Being worked out …</p>}
      {costs && (
        <ul className="text-sm">
          {costs.map((cost) => (
            <li
              key={`${cost.kind}${cost.what}`}
              className="flex justify-between gap-2 border-t border-rule py-1"
            >
              <span>{requirementWords(cost)}</span>
              <span className="text-right tabular-nums">
                {cost.lost > 0
                  ? `${plural(cost.lost, 'place')} fewer`
                  : cost.extra === 0
                    ? 'nothing more'
                    : `${cost.extra > 0 ? 'plus' : 'less'} ${moneyText(Math.abs(cost.extra), currency)}`}
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
