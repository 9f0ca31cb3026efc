import { type Box, conductorWords, profileOf, putBackList } from '@inventario/core';
import { ArrowLeft, Printer } from 'lucide-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { RoleMark } from '../../drawings/role-mark.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';

/** A strip of flags to print and cut, and where each wire was, for putting the box back as found. */
export function FlagsView() {
  const { boxId = '' } = useParams();
  const { job, known } = useJob();
  const box = known.boxes.get(boxId);
  if (!box) return null;
  return (
    <Bench title="Flags" glance={`${box.labels.length} flags`} reckoning={<PutBack box={box} />}>
      <div className="mb-3 flex flex-wrap items-center gap-3 print:hidden">
        <Link to={paths.box(job.id, box.id)} className="flex min-h-11 items-center gap-2 underline">
          <ArrowLeft aria-hidden className="size-5" />
          {box.name}
        </Link>
        <h1 className="mr-auto text-lg font-bold">Flags</h1>
        <Button icon={Printer} onClick={() => window.print()}>
          Print the strip
        </Button>
      </div>
      {box.labels.length === 0 && <p>No conductor of this box is flagged yet.</p>}
      <ul className="grid grid-cols-2 gap-0 border-t border-l border-dashed border-ink sm:grid-cols-3">
        {box.labels.map((label) => {
          const circuit = label.circuitId
            ? known.circuits.get(label.circuitId)
            : box.circuitIds.length === 1
              ? known.circuits.get(box.circuitIds[0] ?? '')
              : undefined;
          const loads = (label.loadIds ?? []).map((id) => known.loads.get(id)?.name).join(', ');
          return (
            <li
              key={label.conductorId}
              className="flex items-center gap-2 border-r border-b border-dashed border-ink bg-sheet p-2"
            >
              <RoleMark role={label.role} traveler={label.traveler} size={40} />
              <span className="text-sm leading-tight">
                <strong>
                  {profileOf(job).words.roles[label.role]}
                  {label.traveler ? ` ${label.traveler}` : ''}
                </strong>
                {circuit && `, breaker ${circuit.breaker}`}
                <br />
                {loads || conductorWords(box, label.conductorId)}
                <br />
                {box.name}
              </span>
            </li>
          );
        })}
      </ul>
      <div className="mt-6 lg:hidden">
        <PutBack box={box} />
      </div>
    </Bench>
  );
}

function PutBack({ box }: { box: Box }) {
  const [done, setDone] = useState<ReadonlySet<number>>(new Set());
  const lines = putBackList(box);
  return (
    <section aria-label="Put back as found">
      <h2 className="font-bold">Put back as found</h2>
      <p className="mb-2 text-sm text-soft">
        {done.size} of {lines.length} ends. Dead, and tug each one.
      </p>
      <ol className="flex flex-col">
        {lines.map((line, index) => (
          <li key={`${line.conductorId}${line.says}`}>
            <label className="flex min-h-11 items-center gap-3 border-t border-rule">
              <input
                type="checkbox"
                className="size-6 shrink-0 accent-ink"
                checked={done.has(index)}
                onChange={() =>
                  setDone(
                    done.has(index)
                      ? new Set([...done].filter((entry) => entry !== index))
                      : new Set([...done, index]),
                  )
                }
              />
              {line.says}
            </label>
          </li>
        ))}
      </ol>
    </section>
  );
}
