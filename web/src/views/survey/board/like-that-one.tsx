import { type Box, boxesOfRoom, roomsInOrder } from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { BoxThumbnail } from '../../../drawings/box-thumbnail.js';
import { Dialog } from '../../../ui/dialog.js';

/** Another box of the job to begin from; its labels come as guesses. */
export function LikeThatOne({
  box,
  onTaken,
  onClose,
}: {
  box: Box;
  onTaken: (like: Box) => void;
  onClose: () => void;
}) {
  const { job } = useJob();
  const others = roomsInOrder(job)
    .flatMap((room) => boxesOfRoom(job, room.id))
    .filter(({ id, conductors }) => id !== box.id && conductors.length > 0);
  return (
    <Dialog title="Like which box?" open onClose={onClose}>
      <p className="mb-3">
        Its conductors, joints and devices are taken over, its labels as guesses to be accepted.
        {box.conductors.length > 0 &&
          ' What is recorded of conductors and readings here goes; undo brings it back.'}
      </p>
      {others.length === 0 && <p>No other box of this job has conductors yet.</p>}
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
        {others.map((like) => (
          <button
            key={like.id}
            type="button"
            className="flex flex-col gap-1 rounded-md border border-edge bg-sheet p-2 text-left hover:border-ink"
            onClick={() => {
              onTaken(like);
              onClose();
            }}
          >
            <BoxThumbnail box={like} />
            <span className="leading-tight font-semibold">{like.name}</span>
          </button>
        ))}
      </div>
    </Dialog>
  );
}
