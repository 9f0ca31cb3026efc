import {
  type Box,
  lengthText,
  moneyText,
  placeKey,
  profileOf,
  putPart,
  type Remedy,
  remedyWords,
  setParts,
  sideEffectWords,
  standardBoxes,
  TROUBLE_WORDS,
  volumeText,
} from '@inventario/core';
import { useUnits } from '../../app/preferences.js';
import { useJob, useRemedies } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';
import { useSay } from '../../ui/say.js';

/** Ways out, the best first: the figure each reaches, its price, and what else it changes. */
export function RemedyList({ box }: { box: Box }) {
  const { job, known, apply, undo } = useJob();
  const say = useSay();
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
    if (remedy.place) {
      const { position, strategy } = remedy.place;
      const parts = remedy.also.flatMap((effect) => (effect.code === 'parts' ? effect.facts.parts : []));
      const ids = job.catalogue.parts.filter((part) => parts.includes(part.name)).map((part) => part.id);
      apply(
        [
          putPart('selection', placeKey(box.id, position), {
            boxId: box.id,
            position,
            deviceId: remedy.id,
            strategy,
            with: ids,
          }),
        ],
        `${name} (${box.name})`,
      );
    } else if (remedy.kind === 'ring') {
      const part = job.catalogue.parts.find((entry) => entry.id === remedy.id);
      const volume =
        part?.in3 !== undefined ? { in3: part.in3 } : part?.mL !== undefined ? { mL: part.mL } : {};
      const rings = [...(box.enclosure.rings ?? []), { depth: part?.depth ?? 0, ...volume }];
      apply(
        setParts('box', box.id, box, { enclosure: { ...box.enclosure, rings } }),
        `${name} (${box.name})`,
      );
    } else if (remedy.kind === 'deeper-box') {
      const listed = job.catalogue.enclosures.find((entry) => entry.id === remedy.id);
      const made = listed ?? standardBoxes(profileOf(job)).find((entry) => entry.id === remedy.id);
      if (!made) return;
      const { rings, ...rest } = box.enclosure;
      const enclosure = {
        ...rest,
        capacity: { from: 'standard' as const, enclosureId: made.id },
        depth: made.depth ?? rest.depth,
        material: made.material ?? rest.material,
      };
      apply(
        [
          ...(listed ? [] : [putPart('enclosure', made.id, made)]),
          ...setParts('box', box.id, box, { enclosure }),
        ],
        `${name} (${box.name})`,
      );
    }
    say(`${name}: recorded for ${box.name}.`, { label: 'Undo', run: undo });
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
