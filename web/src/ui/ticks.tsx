import { Button } from './button.js';

/** Several of a few words, each a button that stays pressed. */
export function Ticks<Id extends string>({
  legend,
  words,
  ticked,
  onTick,
}: {
  legend: string;
  words: Record<Id, string>;
  ticked: readonly Id[];
  onTick: (ticked: Id[]) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold text-soft">{legend}</legend>
      <div className="flex flex-wrap gap-1">
        {(Object.keys(words) as Id[]).map((id) => (
          <Button
            key={id}
            aria-pressed={ticked.includes(id)}
            className={ticked.includes(id) ? 'border-ink bg-well font-bold ring-2 ring-ink' : ''}
            onClick={() =>
              onTick(ticked.includes(id) ? ticked.filter((other) => other !== id) : [...ticked, id])
            }
          >
            {words[id]}
          </Button>
        ))}
      </div>
    </fieldset>
  );
}
