import { type Box, labelsOf, type Words } from '@inventario/core';
import { inWords } from '../../../drawings/conductor-fan.js';
import { fanLayout } from '../../../drawings/fan-layout.js';
import { RoleMark } from '../../../drawings/role-mark.js';
import { Swatch } from '../../../drawings/strand.js';
import { classes } from '../../../ui/classes.js';

/** The same data as the drawing, for those who prefer a table. */
export function ConductorTable({
  box,
  words,
  held,
  onHold,
}: {
  box: Box;
  words: Words;
  held: string | null;
  onHold: (id: string) => void;
}) {
  const layout = fanLayout(box);
  const labels = labelsOf(box);
  return (
    <ul className="divide-y divide-rule">
      {layout.columns.map((column) => {
        const { conductor } = column;
        const cable = layout.groups.find((group) => group.cableId === (conductor.cableId ?? null));
        const label = labels.get(conductor.id);
        return (
          <li key={conductor.id}>
            <button
              type="button"
              aria-pressed={held === conductor.id}
              onClick={() => onHold(conductor.id)}
              className={classes(
                'flex min-h-12 w-full items-center gap-3 px-2 text-left',
                held === conductor.id && 'bg-well',
              )}
            >
              <Swatch colour={conductor.colour} />
              <span className="min-w-0 flex-1">
                <span className="text-soft">{cable?.label}: </span>
                {inWords(column, label, words, layout)}
              </span>
              {!column.made && (
                <RoleMark role={label?.role ?? 'unknown'} traveler={label?.traveler} size={28} />
              )}
            </button>
          </li>
        );
      })}
    </ul>
  );
}
