import { HOW_LIKELY, SYMPTOM_WORDS, type SymptomKind } from '@inventario/core';
import { OctagonX } from 'lucide-react';
import { classes } from '../../ui/classes.js';
import { Fold } from '../../ui/fold.js';
import { causeKey, type Doubt } from './doubt.js';

/** So many are in sight; what contradicts what was seen is folded away. */
const IN_SIGHT = 6;

/** Causes, the likeliest first, each with what it would show otherwise than was seen. */
export function CauseList({ doubt }: { doubt: Doubt }) {
  const { causes } = doubt.answer;
  const agree = causes.filter(({ fits }) => fits !== 'contradicts').slice(0, IN_SIGHT);
  const rest = causes.filter((cause) => !agree.includes(cause));
  return (
    <section aria-label="Causes">
      <h2 className="mb-1 font-bold">What it may be</h2>
      {agree.length === 0 && <p>Nothing shows all of this: look at each answer again.</p>}
      <ol className="flex flex-col gap-1">
        {(agree.length > 0 ? agree : rest.slice(0, 3)).map((cause) => (
          <Cause key={causeKey(cause)} cause={cause} doubt={doubt} />
        ))}
      </ol>
      {agree.length > 0 && rest.length > 0 && (
        <Fold title="Would show something else" says={`${rest.length} causes`}>
          <ol className="flex flex-col gap-1">
            {rest.map((cause) => (
              <Cause key={causeKey(cause)} cause={cause} doubt={doubt} />
            ))}
          </ol>
        </Fold>
      )}
      <p className="mt-2 text-sm text-soft">{HOW_LIKELY}</p>
    </section>
  );
}

type RankedCause = Doubt['answer']['causes'][number];

function Cause({ cause, doubt }: { cause: RankedCause; doubt: Doubt }) {
  const { picked, pick, answer } = doubt;
  const key = causeKey(cause);
  const isPicked = picked === key || (picked === null && answer.causes[0] === cause);
  return (
    <li>
      <button
        type="button"
        aria-pressed={isPicked}
        className={classes(
          'flex min-h-11 w-full items-start gap-2 rounded-md border px-2 py-1.5 text-left leading-tight',
          isPicked ? 'border-ink bg-well ring-1 ring-ink' : 'border-rule bg-sheet hover:border-ink',
        )}
        onClick={() => pick(key)}
      >
        {cause.stop && <OctagonX aria-label="Stop" className="size-5 shrink-0 text-stop" />}
        <span className="min-w-0 flex-1">
          <strong className="block">{cause.name}</strong>
          <span className="block text-sm text-soft">{otherwise(cause, doubt)}</span>
        </span>
        <span className="shrink-0 text-sm font-semibold">{sureness(cause.probability)}</span>
      </button>
    </li>
  );
}

/** In words; the figure stands beside them where it says more than they. */
function sureness(probability: number): string {
  if (probability >= 0.9) return 'nearly sure';
  if (probability >= 0.01) return `${Math.round(probability * 100)} %`;
  return 'unlikely';
}

/** What it would show of what was seen: all of it, or where it differs. */
function otherwise({ predicts }: RankedCause, { seen }: Doubt): string {
  const differs = (Object.keys(seen) as SymptomKind[]).filter(
    (kind) => predicts[kind] !== null && predicts[kind] !== seen[kind],
  );
  if (differs.length > 0)
    return differs
      .map((kind) => {
        const words = SYMPTOM_WORDS[kind];
        return `${words.question}: ${(words.values as Record<string, string>)[predicts[kind] ?? '']}`;
      })
      .join('; ');
  const open = (Object.keys(seen) as SymptomKind[]).filter((kind) => predicts[kind] === null);
  return open.length > 0 ? 'Says nothing of some of it' : 'Shows all of it';
}
