import {
  type Box,
  type BoxPower,
  hinderText,
  stageToProve,
  standsNow,
  wireStepWords,
} from '@inventario/core';
import { ArrowLeft, ArrowRight, Camera, NotebookPen } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { Button, buttonClass } from '../../ui/button.js';
import { Dialog } from '../../ui/dialog.js';
import { TextField } from '../../ui/field.js';
import { paths } from '../paths.js';
import { ProofKeys } from '../proof/proof-keys.js';
import type { Work } from './use-work.js';

/** Which step, of how many, and what it is. */
export function StepHead({ work }: { work: Work }) {
  const { known, job } = useJob();
  const units = useUnits(job);
  const { step, steps, number, wiring } = work;
  if (!step) return null;
  return (
    <p className="leading-tight">
      <span className="text-sm text-soft">
        Step {number} of {steps.length}
      </span>
      <strong className="block text-lg">{wireStepWords(wiring, step, known, units).title}</strong>
    </p>
  );
}

/** What is done now, whether a hand may go to it, and the touch that says it is done. */
export function StepKeys({ box, work, power }: { box: Box; work: Work; power: BoxPower }) {
  const { known, job } = useJob();
  const units = useUnits(job);
  const { step, steps, number, wiring, progress, hinders } = work;
  const [isNoting, setNoting] = useState(false);
  if (!step) return null;
  const { lines } = wireStepWords(wiring, step, known, units);
  const isDone = progress.done.has(step.key);
  // After the test the box is proved anew, whatever was recorded of its breaker.
  const needsProof = step.kind === 'prove-again' || (hinders !== null && step.kind !== 'test');
  const beside = (by: number) => steps[number - 1 + by];
  return (
    <div className="flex flex-col gap-2">
      <ul className="flex flex-col gap-0.5 leading-tight">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {hinders !== null && !isDone && <Gate box={box} work={work} power={power} hinders={hinders} />}
      {needsProof && !isDone && (
        <ProofKeys
          box={box}
          power={power}
          stage={power.dead === 'face' ? 'device-out' : stageToProve(standsNow(box, job))}
        />
      )}
      {(!needsProof || isDone) && step.kind !== 'prove' && (
        <Button
          kind={isDone ? 'plain' : 'main'}
          className="min-h-14 text-lg"
          disabled={hinders !== null && !isDone}
          onClick={() => (isDone ? work.notDone(step) : work.done(step))}
        >
          {isDone ? 'It is not done' : doneWords(step.kind)}
        </Button>
      )}
      <div className="grid grid-cols-[1fr_auto_auto_1fr] gap-1.5">
        <Button icon={ArrowLeft} disabled={!beside(-1)} onClick={() => work.look(beside(-1)?.key ?? null)}>
          Before
        </Button>
        <Button
          icon={NotebookPen}
          iconOnly
          title="Note"
          disabled={hinders !== null}
          onClick={() => setNoting(true)}
        >
          Done, with a note
        </Button>
        <Link className={buttonClass('plain')} to={paths.photos(job.id, box.id)} title="Photograph">
          <Camera aria-hidden className="size-5" />
          <span className="sr-only">Photographs of {box.name}</span>
        </Link>
        <Button icon={ArrowRight} disabled={!beside(1)} onClick={() => work.look(beside(1)?.key ?? null)}>
          After
        </Button>
      </div>
      {isNoting && <NoteDialog onNote={(note) => work.done(step, note)} onClose={() => setNoting(false)} />}
    </div>
  );
}

function doneWords(kind: string): string {
  if (kind === 'plate') return 'Done: the box is closed';
  return kind === 'test' ? 'Done: it works' : 'Done';
}

/** What the keys of the proof below say or put right themselves. */
const BY_PROOF: ReadonlySet<BoxPower['hinders'][number]['code']> = new Set([
  'not-proved',
  'face-only',
  'circuit-on',
  'circuit-unknown',
  'neighbour-on',
  'neighbour-unknown',
  'on-unknown-to-prover',
  'old',
  'corrected',
]);

/** Why a hand may not go in yet, beside what the proof says itself. */
function Gate({
  box,
  work,
  power,
  hinders,
}: {
  box: Box;
  work: Work;
  power: BoxPower;
  hinders: readonly BoxPower['hinders'][number][];
}) {
  const { job } = useJob();
  const { step } = work;
  if (step?.kind === 'prove' && power.stops.length === 0) return null;
  const others = hinders.filter(({ code }) => !BY_PROOF.has(code) || step?.kind === 'test');
  return (
    <div role="status" className="rounded-md border-2 border-ink p-2">
      <p className="font-semibold">
        {step?.gate === 'neutral'
          ? 'Not yet. A neutral opens here: every circuit of the box off, and proved.'
          : 'Not yet: this is done dead, and proved.'}
      </p>
      {others.length > 0 && (
        <ul className="list-disc pl-5">
          {others.map((hinder) => (
            <li key={`${hinder.code}${hinder.circuitId}${hinder.readingId}`}>
              {hinderText(hinder, box, job)}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function NoteDialog({ onNote, onClose }: { onNote: (note: string) => void; onClose: () => void }) {
  const [note, setNote] = useState('');
  return (
    <Dialog title="Done, with a note" open onClose={onClose}>
      <div className="flex flex-col gap-3">
        <TextField label="Note" value={note} maxLength={400} onText={setNote} />
        <Button
          kind="main"
          disabled={note.trim() === ''}
          onClick={() => {
            onNote(note.trim());
            onClose();
          }}
        >
          Done, and noted
        </Button>
      </div>
    </Dialog>
  );
}
