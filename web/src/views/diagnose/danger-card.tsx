import { OctagonX } from 'lucide-react';

/** In place of every live test. */
export function DangerCard({ says }: { says: string }) {
  return (
    <section
      role="alert"
      aria-label="Stop"
      className="mb-3 flex gap-3 rounded-lg border-2 border-stop bg-sheet p-3"
    >
      <OctagonX aria-hidden className="size-8 shrink-0 text-stop" />
      <div>
        <h2 className="font-bold text-stop">Stop</h2>
        <p>{says}</p>
      </div>
    </section>
  );
}
