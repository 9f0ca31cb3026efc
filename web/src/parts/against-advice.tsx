import { type Box, placeKey } from '@inventario/core';
import { Link } from 'react-router';
import { useJob } from '../data/job-context.js';
import { paths } from './paths.js';

/** Devices chosen although a rule stops them, with the reason given; marked until the hand-over. */
export function AgainstAdvice({ boxes }: { boxes: readonly Box[] }) {
  const { job, known } = useJob();
  const marked = boxes.flatMap((box) =>
    box.positions.flatMap((position) => {
      const selection = known.selections.get(placeKey(box.id, position.index));
      return selection?.against ? [{ box, position, selection }] : [];
    }),
  );
  if (marked.length === 0) return null;
  return (
    <section aria-label="Against advice" className="rounded-md border-2 border-stop p-2 text-sm">
      <h2 className="font-bold text-stop">Chosen against advice</h2>
      <ul>
        {marked.map(({ box, position, selection }) => (
          <li key={placeKey(box.id, position.index)}>
            <Link className="underline" to={paths.place(job.id, box.id, position.index)}>
              {boxes.length > 1 ? `${box.name}, ` : ''}position {position.index},{' '}
              {known.devices.get(selection.deviceId ?? '')?.model}
            </Link>
            : {selection.against}
          </li>
        ))}
      </ul>
    </section>
  );
}
