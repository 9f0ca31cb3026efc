import { type Box, type Reading, readingWords } from '@inventario/core';
import { useJob } from '../../data/job-context.js';

/** What was read since the box is wired. */
export function ReadingList({ box, readings }: { box: Box; readings: readonly Reading[] }) {
  const { known } = useJob();
  if (readings.length === 0) return null;
  return (
    <section className="mt-4">
      <h2 className="mb-1 font-bold">Read so far</h2>
      <ul className="list-disc pl-5">
        {readings.map((reading) => (
          <li key={reading.id}>{readingWords(box, known, reading)}</li>
        ))}
      </ul>
    </section>
  );
}
