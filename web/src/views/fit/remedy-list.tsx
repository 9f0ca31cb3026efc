import {
  adoptRemedy,
  type Box,
  lengthText,
  moneyText,
  type Remedy,
  remedyWords,
  sideEffectWords,
  TROUBLE_WORDS,
  volumeText,
} from '@inventario/core';
import { useJob, useRemedies } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { Button } from '../../ui/button.js';

/** Ways out, the best first: the figure each reaches, its price, and what else it changes. */
export function RemedyList({ box }: { box: Box }) {
  const { job, known, applyAndSay } = useJob();
  const found = useRemedies(box.id);
  if (found === null) return <p className="text-soft">Ways out are being computed …</p>;
  if (found.length === 0)
    return (
      <p>
        Nothing in the catalogue makes this box close: another device, a part or a larger box has to be found
        for it.
      </p>
    );
  const adopt = (remedy: Remedy) => {
    const name = remedyWords(remedy);
    applyAndSay(adoptRemedy(remedy, box, job), `${name} (${box.name})`, `${name}: recorded for ${box.name}.`);
  };
  const action = (remedy: Remedy) =>
    remedy.place !== null && known.devices.has(remedy.id) ? 'Plan it' : (WHEN_DONE[remedy.kind] ?? null);
  return (
    <ol aria-label="Ways out" className="flex flex-col gap-2">
      {found.map((remedy, at) => (
        <li
          key={`${remedy.kind}${remedy.id}${remedy.place?.position ?? ''}`}
          className="rounded-md border border-rule bg-sheet p-3"
        >
          <div className="flex flex-wrap items-baseline gap-x-3">
            <p className="font-semibold">{remedyWords(remedy)}</p>
            <p className="ml-auto tabular-nums">{priceWords(remedy.price, job.money?.currency)}</p>
          </div>
          <Reached remedy={remedy} />
          {remedy.leaves.length > 0 && (
            <p className="text-sm font-semibold text-stop">
              Still {remedy.leaves.map((trouble) => TROUBLE_WORDS[trouble]).join(', ')}.
            </p>
          )}
          {remedy.also.length > 0 && (
            <p className="text-sm text-soft">Besides: {remedy.also.map(sideEffectWords).join('; ')}.</p>
          )}
          {action(remedy) && (
            <Button kind={at === 0 ? 'main' : 'plain'} className="mt-2" onClick={() => adopt(remedy)}>
              {action(remedy)}
            </Button>
          )}
        </li>
      ))}
    </ol>
  );
}

/** What changes the box itself is recorded once it is done. */
const WHEN_DONE: Partial<Record<Remedy['kind'], string>> = {
  ring: 'Record: it is fitted',
  'deeper-box': 'Record: the box is replaced',
};

function priceWords(price: number | null, currency: string | undefined): string {
  if (price === null) return 'price not known';
  return price < 0 ? `${moneyText(-price, currency)} less` : moneyText(price, currency);
}

function Reached({ remedy }: { remedy: Remedy }) {
  const { job } = useJob();
  const units = useUnits(job);
  const { before, after } = remedy;
  const told = [
    before.usedMl !== after.usedMl || before.capacityMl !== after.capacityMl
      ? `count ${after.usedMl === null ? '' : volumeText(after.usedMl, units)} in ` +
        `${after.capacityMl === null ? 'an unread box' : volumeText(after.capacityMl, units)}`
      : '',
    before.neededMm !== after.neededMm || before.availableMm !== after.availableMm
      ? `depth ${lengthText(after.neededMm, units)} of ` +
        `${after.availableMm === null ? 'an unread one' : lengthText(after.availableMm, units)}`
      : '',
    before.occupancy !== after.occupancy && after.occupancy !== null
      ? `packing ${Math.round(after.occupancy * 100)} %`
      : '',
  ].filter(Boolean);
  return <p className="text-sm">Reaches {told.join(', ')}.</p>;
}
