import { setParts, targetWords } from '@inventario/core';
import { X } from 'lucide-react';
import { useForm } from 'react-hook-form';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';
import { PickOne } from '../../ui/choice.js';
import { Dialog } from '../../ui/dialog.js';
import { targetOf, targetOptions } from './target-options.js';

/** Pairs that are meant to be lit in turn: when both are lit or dark for longer, that is a conflict. */
export function InTurnDialog({ onClose }: { onClose: () => void }) {
  const { job, known, apply } = useJob();
  const targets = targetOptions(known, false);
  const { watch, setValue, reset, handleSubmit } = useForm({ defaultValues: { a: '', b: '' } });
  const { a, b } = watch();
  const pairs = job.opposites ?? [];
  const keep = (opposites: typeof pairs, label: string) =>
    apply(setParts('job', job.id, job, { opposites }), label);
  const add = handleSubmit((pair) => {
    const opposites = { id: newId(), a: targetOf(pair.a, known), b: targetOf(pair.b, known) };
    if (keep([...pairs, opposites], 'Two to be lit in turn')) reset();
  });
  return (
    <Dialog title="Lit in turn" open onClose={onClose}>
      <p className="mb-2 text-soft">
        When one goes on the other goes off. Both lit, or both dark, for over a minute is told as a conflict.
      </p>
      <ul className="mb-3" aria-label="Pairs">
        {pairs.map((pair) => {
          const words = `${targetWords(pair.a, known)} and ${targetWords(pair.b, known)}`;
          return (
            <li key={pair.id} className="flex items-center gap-2 border-t border-rule py-1">
              <span className="flex-1">{words}</span>
              <Button
                kind="quiet"
                icon={X}
                iconOnly
                onClick={() =>
                  keep(
                    pairs.filter(({ id }) => id !== pair.id),
                    'Not lit in turn any more',
                  )
                }
              >
                {`Take out ${words}`}
              </Button>
            </li>
          );
        })}
      </ul>
      <form className="flex flex-col gap-2" onSubmit={(event) => void add(event)}>
        <PickOne label="One" value={a} options={targets} onChoice={(target) => setValue('a', target)} />
        <PickOne label="The other" value={b} options={targets} onChoice={(target) => setValue('b', target)} />
        {a !== '' && a === b && <p role="alert">Choose two that are not the same.</p>}
        <Button kind="main" type="submit" disabled={a === '' || b === '' || a === b}>
          Add the pair
        </Button>
      </form>
    </Dialog>
  );
}
