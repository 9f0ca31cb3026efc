import {
  type BoxAssessment,
  figureOfAllowance,
  fillLineWords,
  type UnitSystem,
  volumeText,
} from '@inventario/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { OwnFigures } from '../../parts/own-figures.js';
import { paths } from '../../parts/paths.js';
import { classes } from '../../ui/classes.js';

/**
 * The count as a stack in the box: each allowance a block as high as its volume; touched, it says its clause.
 */
export function FillStack({ result, units }: { result: BoxAssessment; units: UnitSystem }) {
  const { job } = useJob();
  const [open, setOpen] = useState<string | null>(null);
  const { usedMl, capacityMl, lines } = result;
  if (usedMl === null || lines.length === 0)
    return <p className="text-sm text-soft">This practice has no count: depth and packing decide.</p>;
  const scale = Math.max(usedMl, capacityMl ?? 0);
  const held = lines.find((line) => keyOf(line) === open);
  return (
    <div className="flex gap-3">
      <div className="relative flex h-72 w-40 shrink-0 flex-col-reverse">
        {lines.map((line) => (
          <button
            key={keyOf(line)}
            type="button"
            aria-pressed={keyOf(line) === open}
            aria-label={`${fillLineWords(line)}: ${volumeText(line.ml, units)}`}
            onClick={() => setOpen(keyOf(line) === open ? null : keyOf(line))}
            style={{ height: `${(100 * line.ml) / scale}%` }}
            className={classes(
              'min-h-2 overflow-hidden border border-ink px-2 text-left text-sm leading-tight',
              keyOf(line) === open ? 'bg-strong text-onstrong' : 'bg-sheet hover:bg-well',
            )}
          >
            {line.ml / scale > 0.07 && `${SHORT[line.rule]} ${volumeText(line.ml, units)}`}
          </button>
        ))}
        {capacityMl !== null && (
          <div
            aria-hidden
            style={{ bottom: `${(100 * capacityMl) / scale}%` }}
            className={classes(
              'absolute -right-2 -left-2 border-t-3',
              usedMl > capacityMl ? 'border-stop' : 'border-ink',
            )}
          />
        )}
      </div>
      <div className="min-w-0 flex-1 text-sm">
        <p>
          <strong>{volumeText(usedMl, units)}</strong> counted
          {capacityMl !== null && (
            <>
              {' '}
              in <strong>{volumeText(capacityMl, units)}</strong>, the heavy line
            </>
          )}
          .
        </p>
        <OwnFigures own={result.own} />
        {held ? (
          <div className="mt-2 border-l-3 border-ink pl-3">
            <p className="font-semibold">{fillLineWords(held)}</p>
            <p>
              {held.count} × {volumeText(held.eachMl, units)} = {volumeText(held.ml, units)}
            </p>
            <p className="text-soft">{held.clause}</p>
            {figureOfAllowance(held.size) && (
              <Link
                className="flex min-h-11 items-center underline"
                to={`${paths.figures(job.id)}#${figureOfAllowance(held.size)}`}
              >
                Where {volumeText(held.eachMl, units)} comes from
              </Link>
            )}
          </div>
        ) : (
          <p className="mt-2 text-soft">Touch a block for its clause and its arithmetic.</p>
        )}
      </div>
    </div>
  );
}

const keyOf = (line: BoxAssessment['lines'][number]) => `${line.rule}|${line.what}`;

const SHORT: Record<BoxAssessment['lines'][number]['rule'], string> = {
  conductor: 'conductors',
  loop: 'loops',
  clamps: 'clamps',
  support: 'fittings',
  device: 'devices',
  ground: 'grounds',
  'ground-extra': 'more grounds',
  'isolated-ground': 'isolated ground',
  'terminal-block': 'blocks',
  connectors: 'connectors',
};
