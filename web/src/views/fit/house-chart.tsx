import { boxesOfRoom, roomsInOrder, TROUBLE_WORDS } from '@inventario/core';
import { CircleCheck, CircleHelp, CircleSlash2 } from 'lucide-react';
import { Link } from 'react-router';
import { type House, useJob } from '../../data/job-context.js';
import { paths } from '../../parts/paths.js';
import { classes } from '../../ui/classes.js';
import { type FitRow, rowsByTrouble } from './by-trouble.js';

/** The house at a glance: fill, depth and packing of every box against what there is. */
export function HouseChart({ house, boxId }: { house: House; boxId: string | undefined }) {
  const { job } = useJob();
  const rows = rowsByTrouble(
    roomsInOrder(job).flatMap((room) => boxesOfRoom(job, room.id)),
    house,
  );
  return (
    <table className="w-full border-collapse text-sm" aria-label="Boxes by their trouble">
      <thead>
        <tr className="text-left text-soft">
          <th className="py-1 pr-2 font-semibold">Box</th>
          <th className="w-[24%] py-1 pr-3 font-semibold sm:w-[22%]">Count</th>
          <th className="w-[16%] py-1 font-semibold sm:w-[22%] sm:pr-3">Depth</th>
          <th className="hidden w-[22%] py-1 font-semibold sm:table-cell">Packing</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr
            key={row.box.id}
            className={classes('border-t border-rule align-middle', row.box.id === boxId && 'bg-sheet')}
          >
            <td className="py-1 pr-2">
              <Link
                to={paths.fit(job.id, row.box.id)}
                className="flex min-h-11 items-center gap-2"
                aria-current={row.box.id === boxId}
              >
                <Mark row={row} />
                <span>
                  <span className="font-semibold underline">{row.box.name}</span>
                  <span
                    className={classes(
                      'block',
                      row.troubles.length > 0 ? 'font-semibold text-stop' : 'text-soft',
                    )}
                  >
                    {row.troubles.length > 0
                      ? row.troubles.map((trouble) => TROUBLE_WORDS[trouble]).join(', ')
                      : row.fill === null && row.depth === null
                        ? 'not measured'
                        : 'OK'}
                  </span>
                </span>
              </Link>
            </td>
            <Share share={row.fill} />
            <Share share={row.depth} bar="when-wide" />
            <Share share={row.packing} cell="when-wide" />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Mark({ row }: { row: FitRow }) {
  const Icon =
    row.troubles.length > 0
      ? CircleSlash2
      : row.fill === null && row.depth === null
        ? CircleHelp
        : CircleCheck;
  return <Icon aria-hidden className={classes('size-5 shrink-0', row.troubles.length > 0 && 'text-stop')} />;
}

/** A bar against a mark at 100 %: what is over stands out beyond it, hatched as well as coloured. */
function Share({ share, bar, cell }: { share: number | null; bar?: 'when-wide'; cell?: 'when-wide' }) {
  const shown = Math.min(share ?? 0, 2);
  return (
    <td className={classes('py-1 sm:pr-3', cell && 'hidden sm:table-cell')}>
      {share === null ? (
        <span className="text-soft">not read</span>
      ) : (
        <span className="flex items-center gap-1 sm:gap-2">
          <svg
            aria-hidden="true"
            viewBox="0 0 100 12"
            preserveAspectRatio="none"
            className={classes('h-3 min-w-0 flex-1 text-ink', bar && 'hidden sm:block')}
          >
            <rect
              x="0"
              y="1"
              width={Math.min(shown, 1) * 66}
              height="10"
              fill="currentColor"
              opacity="0.75"
            />
            {shown > 1 && <rect x="66" y="1" width={(shown - 1) * 34} height="10" fill="var(--stop)" />}
            <path d="M66 0V12" stroke="currentColor" strokeWidth="1.2" />
          </svg>
          <span
            className={classes(
              'w-11 shrink-0 text-right whitespace-nowrap tabular-nums',
              share > 1 && 'font-bold text-stop',
            )}
          >
            {Math.round(share * 100)} %
          </span>
        </span>
      )}
    </td>
  );
}
