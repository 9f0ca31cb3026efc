import {
  asideEvent,
  type BatchStands,
  eventRecord,
  holdEvent,
  type JobEvent,
  putPart,
} from '@inventario/core';
import { CheckCheck, Hand, Undo2, UserRound } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { instant, newId, thisDevice } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';
import { classes } from '../../ui/classes.js';
import { Dialog } from '../../ui/dialog.js';
import { TextField } from '../../ui/field.js';
import { Menu, type MenuEntry } from '../../ui/menu.js';

/** The boxes of the batch: how far each is, in whose hands, and what else can be done with it. */
export function BatchList({ stands, now }: { stands: BatchStands; now: string | null }) {
  return (
    <section aria-label="Boxes of this batch" className="mt-3">
      <h2 className="mb-1 font-bold">Boxes of this batch</h2>
      <ul className="grid gap-1.5 md:grid-cols-2">
        {stands.boxes.map((box) => (
          <BatchBox key={box.boxId} box={box} isNow={box.boxId === now} />
        ))}
      </ul>
    </section>
  );
}

function BatchBox({ box, isNow }: { box: BatchStands['boxes'][number]; isNow: boolean }) {
  const { job, known } = useJob();
  const [isAside, setAside] = useState(false);
  const name = known.boxes.get(box.boxId)?.name ?? 'The box';
  const entries = useEntries(box, () => setAside(true));
  return (
    <li
      className={classes(
        'flex items-center gap-2 rounded-md border bg-sheet px-3 py-1.5',
        isNow ? 'border-ink ring-1 ring-ink' : 'border-rule',
      )}
    >
      <Link className="min-w-0 flex-1 leading-tight hover:underline" to={paths.wire(job.id, box.boxId)}>
        <strong className="block">{name}</strong>
        <span className="flex items-center gap-1.5 text-sm">
          <Holder box={box} />
        </span>
      </Link>
      <span className="shrink-0 text-sm font-semibold tabular-nums">
        {box.mounted ? 'closed' : `${box.done} of ${box.of}`}
      </span>
      <Menu name={`More at ${name}`} entries={entries} />
      {isAside && <AsideDialog box={box} name={name} onClose={() => setAside(false)} />}
    </li>
  );
}

function Holder({ box: { holder, mounted } }: { box: BatchStands['boxes'][number] }) {
  if (mounted)
    return (
      <>
        <CheckCheck aria-hidden className="size-4" />
        mounted
      </>
    );
  if (holder === null) return <span className="text-soft">in nobody’s hands</span>;
  return holder === thisDevice() ? (
    <>
      <Hand aria-hidden className="size-4" />
      in your hands
    </>
  ) : (
    <>
      <UserRound aria-hidden className="size-4" />
      in other hands
    </>
  );
}

function useEntries(box: BatchStands['boxes'][number], onAside: () => void): MenuEntry[] {
  const { job, known, applyAndSay } = useJob();
  const name = known.boxes.get(box.boxId)?.name ?? 'The box';
  const mounted = eventRecord(job).latest('mounted', box.boxId)?.event.id;
  const record = (event: JobEvent, label: string) => {
    if (event.id !== undefined) applyAndSay([putPart('event', event.id, event)], label, `${label}.`);
  };
  if (box.mounted)
    return [
      { label: 'It does not work yet: aside', icon: Undo2, onPick: onAside },
      {
        label: 'It is not mounted: open again',
        icon: Undo2,
        onPick: () => {
          if (mounted !== undefined)
            record({ id: newId(), kind: 'correction', of: mounted, at: instant() }, `${name} is not mounted`);
        },
      },
    ];
  const mine = box.holder === thisDevice();
  const hold = (kind: 'taken' | 'left', label: string) =>
    record(holdEvent(kind, box.boxId, { id: newId(), at: instant(), by: thisDevice() }), label);
  return [
    ...(box.holder === null
      ? [{ label: 'Take it in hand', icon: Hand, onPick: () => hold('taken', `${name} in hand`) }]
      : []),
    ...(mine ? [{ label: 'Out of my hands', onPick: () => hold('left', `${name} out of hand`) }] : []),
    ...(box.holder === null || mine
      ? [{ label: 'It cannot be finished', icon: Undo2, onPick: onAside }]
      : []),
  ];
}

/** Why a box is not finished; it is put back as found, step by step, and planned anew. */
function AsideDialog({
  box: { boxId, mounted },
  name,
  onClose,
}: {
  box: BatchStands['boxes'][number];
  name: string;
  onClose: () => void;
}) {
  const { job, apply } = useJob();
  const [note, setNote] = useState('');
  const aside = () => {
    const id = newId();
    apply([putPart('event', id, asideEvent(boxId, note.trim(), { id, at: instant() }))], `${name} put aside`);
    onClose();
  };
  return (
    <Dialog
      title={mounted ? `${name} does not work yet` : `${name} cannot be finished`}
      open
      onClose={onClose}
    >
      <div className="flex flex-col gap-3">
        {mounted ? (
          <p>It stays closed, and its breaker as it is safe. It leaves this batch and stays on the list.</p>
        ) : (
          <>
            <p>
              Put it back as it was found, dead and proved: its steps stand under <em>As found</em>. It leaves
              this batch and comes back into the day.
            </p>
            <Link className="min-h-11 underline" to={paths.wire(job.id, boxId)}>
              The way back, step by step
            </Link>
          </>
        )}
        <TextField label="Why" value={note} maxLength={400} onText={setNote} />
        <Button kind="main" disabled={note.trim() === ''} onClick={aside}>
          Put it aside
        </Button>
      </div>
    </Dialog>
  );
}
