import { type Box, HAZARD_WORDS, stopFindings } from '@inventario/core';
import { OctagonX } from 'lucide-react';

/** Findings at which work stops; calm, specific, in place. */
export function StopCard({ box }: { box: Box }) {
  const findings = stopFindings(box);
  if (findings.length === 0) return null;
  return (
    <section aria-label="Stop" className="flex gap-3 rounded-lg border-2 border-stop bg-sheet p-3">
      <OctagonX aria-hidden className="size-8 shrink-0 text-stop" />
      <div>
        <h2 className="font-bold text-stop">Stop, and call an electrician</h2>
        <ul className="list-disc pl-5">
          {findings.map((finding) => (
            <li key={finding}>
              <strong>{HAZARD_WORDS[finding].name}.</strong> {HAZARD_WORDS[finding].says}
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}
