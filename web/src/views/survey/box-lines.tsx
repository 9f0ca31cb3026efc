import {
  ARRANGEMENT_WORDS,
  type Box,
  type JobLookup,
  plural,
  positionsInOrder,
  profileOf,
  withPositionOrder,
} from '@inventario/core';
import { Camera, Tag } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { paths } from '../../parts/paths.js';
import { Fold } from '../../ui/fold.js';
import { SortableList } from '../../ui/sortable-list.js';
import { BoxState } from './bar/box-state.js';
import type { ChangeBox } from './change-box.js';
import { useHand } from './hand/use-hand.js';
import { PositionPanel } from './positions/position-panel.js';
import { ReadingList } from './reading/reading-list.js';

/** Everything below the conductors, one line each. */
export function BoxLines({ box, change, known }: { box: Box; change: ChangeBox; known: JobLookup }) {
  const { stands } = useHand();
  const { job } = known;
  const photos = job.photos.filter((photo) => photo.boxId === box.id).length;
  const link =
    'flex min-h-11 items-center gap-2 rounded-lg border border-edge bg-sheet px-3 font-semibold hover:border-ink';
  return (
    <>
      <PositionLines box={box} change={change} known={known} />
      <Fold
        title="Readings and box state"
        says={`${plural(box.readings.length, 'reading')}, ${ARRANGEMENT_WORDS[stands.arrangement]}`}
      >
        <div className="flex flex-col gap-3">
          <BoxState />
          <ReadingList box={box} />
        </div>
      </Fold>
      <Link to={paths.photos(job.id, box.id)} className={link}>
        <Camera aria-hidden className="size-5" />
        Photographs
        <span className="flex-1 text-right font-normal text-soft">{photos === 0 ? 'none yet' : photos}</span>
      </Link>
      <Link to={paths.flags(job.id, box.id)} className={link}>
        <Tag aria-hidden className="size-5" />
        Flags, and the way back as found
      </Link>
    </>
  );
}

/** One line a position: what is there now, and what it controls. */
function PositionLines({ box, change, known }: { box: Box; change: ChangeBox; known: JobLookup }) {
  const [loadFor, setLoadFor] = useState<number | null>(null);
  const { words } = profileOf(known.job);
  const positions = positionsInOrder(box);
  const says = (position: Box['positions'][number]) => {
    const loads = position.loadIds.flatMap((id) => known.loads.get(id)?.name ?? []).join(', ');
    return `${words.existing[position.existing]}${loads ? `, controls ${loads}` : ''}`;
  };
  return (
    <section aria-label="Positions" className="flex flex-col gap-2">
      {positions.map((position) => (
        <Fold
          key={position.index}
          title={positions.length > 1 ? `Position ${position.index}` : 'Position'}
          says={says(position)}
          isComplete={position.loadIds.length > 0}
        >
          <PositionPanel
            box={box}
            position={position}
            words={words}
            change={change}
            addingLoad={loadFor === position.index}
            onAddLoad={(open) => setLoadFor(open ? position.index : null)}
          />
        </Fold>
      ))}
      {positions.length > 1 && (
        <Fold title="Order of positions" says={positions.map(({ index }) => index).join(', ')}>
          <SortableList
            label="Positions, left to right"
            ids={positions.map(({ index }) => String(index))}
            nameOf={(id) => `Position ${id}`}
            onOrder={(ids) => change(withPositionOrder(box, ids.map(Number)), 'Positions, left to right')}
          >
            {(id) => `Position ${id}`}
          </SortableList>
        </Fold>
      )}
    </section>
  );
}
