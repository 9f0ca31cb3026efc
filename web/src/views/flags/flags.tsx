import {
  type Box,
  conductorWords,
  type Job,
  type JobLookup,
  type Label,
  profileOf,
  putBackList,
} from '@inventario/core';
import { ArrowLeft, Printer } from 'lucide-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { certaintyOf, RoleMark } from '../../drawings/role-mark.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';
import { Segments } from '../../ui/choice.js';

/** What flags are printed on, mm: tape that is cut off, or a sheet that is cut up. */
const PAPER = {
  'tape-9': { label: 'tape, 9 mm', width: 60, height: 9, columns: 1 },
  'tape-12': { label: 'tape, 12 mm', width: 60, height: 12, columns: 1 },
  'tape-18': { label: 'tape, 18 mm', width: 60, height: 18, columns: 1 },
  sheet: { label: 'sheet, 60 x 15 mm', width: 60, height: 15, columns: 3 },
} as const;
type Paper = keyof typeof PAPER;

/** Flags to print and cut, and where each wire was, for putting the box back as found. */
export function FlagsView() {
  const { boxId = '' } = useParams();
  const { job, known } = useJob();
  const [paper, setPaper] = useState<Paper>('sheet');
  const box = known.boxes.get(boxId);
  if (!box) return null;
  const labels = box.labels.filter(({ role }) => role !== 'unknown');
  const { width, height, columns } = PAPER[paper];
  return (
    <Bench title={`Flags of ${box.name}`} glance={`${labels.length} flags`} reckoning={<PutBack box={box} />}>
      <div className="mb-3 flex flex-wrap items-end gap-3 print:hidden">
        <Link to={paths.box(job.id, box.id)} className="flex min-h-11 items-center gap-2 underline">
          <ArrowLeft aria-hidden className="size-5" />
          {box.name}
        </Link>
        <h1 className="mr-auto text-lg font-bold">Flags</h1>
        <Segments
          label="Printed on"
          value={paper}
          options={(Object.keys(PAPER) as Paper[]).map((value) => ({ value, label: PAPER[value].label }))}
          onChoice={setPaper}
        />
        <Button kind="main" icon={Printer} onClick={() => window.print()}>
          Print flags and put-back list
        </Button>
      </div>
      {labels.length === 0 && <p>No conductor of this box is labelled yet.</p>}
      <ul
        aria-label="Flags"
        className="grid border-t border-l border-dashed border-ink"
        style={{ gridTemplateColumns: columns === 1 ? `${width}mm` : `repeat(auto-fill, ${width}mm)` }}
      >
        {labels.map((label) => (
          <Flag key={label.conductorId} box={box} label={label} known={known} height={height} />
        ))}
      </ul>
      <div className="mt-6 lg:hidden print:block print:break-before-page">
        <PutBack box={box} />
      </div>
    </Bench>
  );
}

function Flag({ box, label, known, height }: { box: Box; label: Label; known: JobLookup; height: number }) {
  const { job } = known;
  const only = box.circuitIds.length === 1 ? box.circuitIds[0] : undefined;
  const circuit = known.circuits.get(label.circuitId ?? only ?? '');
  const loads = (label.loadIds ?? []).map((id) => known.loads.get(id)?.name).join(', ');
  const small = height < 12;
  return (
    <li
      className="flex items-center gap-1.5 overflow-hidden border-r border-b border-dashed border-ink bg-sheet px-1"
      style={{ height: `${height}mm` }}
    >
      <RoleMark
        role={label.role}
        traveler={label.traveler}
        size={small ? 26 : 40}
        certainty={certaintyOf(label)}
      />
      <span className="min-w-0 leading-none" style={{ fontSize: small ? '2.6mm' : '3mm' }}>
        <strong className="block truncate">
          {profileOf(job).words.roles[label.role]}
          {label.traveler ? ` ${label.traveler}` : ''}
          {circuit && `, breaker ${circuit.breaker}`}
        </strong>
        <span className="block truncate">{loads || whose(box, label, job)}</span>
        {!small && <span className="block truncate">{box.name}</span>}
      </span>
    </li>
  );
}

const whose = (box: Box, label: Label, job: Job) => conductorWords(box, label.conductorId, job);

function PutBack({ box }: { box: Box }) {
  const [done, setDone] = useState<ReadonlySet<number>>(new Set());
  const { job } = useJob();
  const lines = putBackList(box, job);
  return (
    <section aria-label="Put back as found">
      <h2 className="font-bold">Put back as found: {box.name}</h2>
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
