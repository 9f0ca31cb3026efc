import {
  type Box,
  conductorWords,
  isFromOutside,
  type Photo,
  putPart,
  removePart,
  setParts,
} from '@inventario/core';
import { ArrowLeft, Camera, Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { api } from '../../data/api.js';
import { instant, newId } from '../../data/ids.js';
import { useJob, usePhotoQueue } from '../../data/job-context.js';
import type { Waiting } from '../../data/session/photo-queue.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { timeOf } from '../../parts/times.js';
import { Button } from '../../ui/button.js';
import { PickOne, Segments } from '../../ui/choice.js';
import { classes } from '../../ui/classes.js';
import { Empty } from '../../ui/empty.js';
import { shrink } from './shrink.js';

type Kept = Photo & { id: string };

/** Photographs of a box, before anything is touched and after; pins name the conductors in them. */
export function PhotosView() {
  const { boxId = '' } = useParams();
  const { job, known, apply, applyAndSay } = useJob();
  const queue = usePhotoQueue();
  const [stage, setStage] = useState<'before' | 'after'>('before');
  const [sending, setSending] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [heldId, setHeld] = useState<string | null>(null);
  const box = known.boxes.get(boxId);
  if (!box) return null;
  const photos = job.photos.filter(
    (photo): photo is Kept => photo.boxId === box.id && photo.id !== undefined,
  );
  const held = photos.find((photo) => photo.id === heldId);

  const take = async (chosen: File) => {
    setSending(true);
    setProblem(null);
    try {
      const id = newId();
      const { picture, width, height } = await shrink(chosen);
      await queue.add(id, picture);
      apply(
        [putPart('photo', id, { id, boxId: box.id, stage, at: instant(), width, height, pins: [] })],
        `A photograph of ${box.name}`,
      );
      setHeld(id);
    } catch (error) {
      setProblem(`“${chosen.name}” was not taken: ${error instanceof Error ? error.message : String(error)}`);
    } finally {
      setSending(false);
    }
  };
  const remove = (photo: Kept) => {
    if (applyAndSay([removePart('photo', photo.id)], 'Delete a photograph', 'The photograph is deleted.'))
      setHeld(null);
  };

  return (
    <Bench
      title="Photographs"
      glance={`${photos.length} photographs`}
      reckoning={held ? <Pins box={box} photo={held} /> : <p>Touch a photograph to name conductors in it.</p>}
    >
      <Toolbar
        box={box}
        stage={stage}
        onStage={setStage}
        sending={sending}
        onFile={(file) => void take(file)}
      />
      {problem && (
        <p role="alert" className="mb-3 text-stop">
          {problem}
        </p>
      )}
      {held && <Picture box={box} photo={held} onRemove={() => remove(held)} />}
      {photos.length === 0 && !sending && (
        <Empty title="No photographs yet">
          <p>Before anything is touched: the whole box, then each side. Position data is taken off.</p>
        </Empty>
      )}
      {(['before', 'after'] as const).map((when) => (
        <Stage
          key={when}
          box={box}
          when={when}
          photos={photos.filter((photo) => (photo.stage ?? 'before') === when)}
          heldId={heldId}
          onHold={setHeld}
        />
      ))}
    </Bench>
  );
}

function Toolbar({
  box,
  stage,
  onStage,
  sending,
  onFile,
}: {
  box: Box;
  stage: 'before' | 'after';
  onStage: (stage: 'before' | 'after') => void;
  sending: boolean;
  onFile: (chosen: File) => void;
}) {
  const { job } = useJob();
  const file = useRef<HTMLInputElement>(null);
  return (
    <div className="mb-3 flex flex-wrap items-end gap-3">
      <Link to={paths.box(job.id, box.id)} className="flex min-h-11 items-center gap-2 underline">
        <ArrowLeft aria-hidden className="size-5" />
        {box.name}
      </Link>
      <h1 className="mr-auto text-lg font-bold">Photographs</h1>
      <Segments
        label="Taken"
        hideLabel
        value={stage}
        options={[
          { value: 'before', label: 'before touching' },
          { value: 'after', label: 'after' },
        ]}
        onChoice={onStage}
      />
      <Button kind="main" icon={Camera} disabled={sending} onClick={() => file.current?.click()}>
        {sending ? 'Being kept …' : 'Take or choose'}
      </Button>
      <input
        ref={file}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        aria-label="Photograph"
        className="hidden"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = '';
          if (chosen) onFile(chosen);
        }}
      />
    </div>
  );
}

/** The photographs of before, or of after, small. */
function Stage({
  box,
  when,
  photos,
  heldId,
  onHold,
}: {
  box: Box;
  when: 'before' | 'after';
  photos: readonly Kept[];
  heldId: string | null;
  onHold: (id: string) => void;
}) {
  const { waiting } = usePhotoQueue();
  if (photos.length === 0) return null;
  const alt = (photo: Kept) => {
    const taken = photo.at ? `, ${timeOf(photo.at)}` : '';
    return `${box.name}, ${when}${taken}, ${photo.pins?.length ?? 0} pins`;
  };
  return (
    <section aria-label={when} className="mt-4">
      <h2 className="mb-1 font-bold">{when === 'before' ? 'Before' : 'After'}</h2>
      <ul className="flex flex-wrap gap-2">
        {photos.map((photo) => (
          <li key={photo.id}>
            <button
              type="button"
              aria-pressed={photo.id === heldId}
              onClick={() => onHold(photo.id)}
              className="rounded-md border-2 border-rule p-1 aria-pressed:border-ink"
            >
              <Shown
                photo={photo}
                size="thumb"
                alt={alt(photo)}
                className="size-28 rounded-sm object-cover"
              />
              {waiting.has(photo.id) && (
                <span className="block max-w-28 text-left text-sm text-soft">
                  {waitingWords(waiting.get(photo.id))}
                </span>
              )}
            </button>
            {waiting.get(photo.id)?.unkept && (
              <a
                href={waiting.get(photo.id)?.url}
                download={`${photo.id}.jpg`}
                className="flex min-h-11 items-center justify-center underline"
              >
                Save it as a file
              </a>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Picture({ box, photo, onRemove }: { box: Box; photo: Kept; onRemove: () => void }) {
  const { job, apply } = useJob();
  const cable = box.conductors.filter(isFromOutside);
  const [conductorId, setConductor] = useState(cable[0]?.id ?? '');
  const pins = photo.pins ?? [];
  const put = (next: NonNullable<Photo['pins']>, label: string) =>
    apply(setParts('photo', photo.id, photo, { pins: next }), label);
  return (
    <figure className="flex flex-col gap-2">
      <div className="flex flex-wrap items-end gap-2">
        <PickOne
          label="The pin names"
          value={conductorId}
          options={cable.map((conductor) => ({
            value: conductor.id,
            label: conductorWords(box, conductor.id, job),
          }))}
          onChoice={setConductor}
          className="min-w-48 flex-1"
        />
        <Button icon={Trash2} onClick={onRemove}>
          Delete the photograph
        </Button>
      </div>
      <div className="relative">
        <button
          type="button"
          aria-label="Set the pin where you touch the photograph"
          className="block w-full"
          onClick={(event) => {
            const area = event.currentTarget.getBoundingClientRect();
            // From the keyboard there is no place: the pin goes to the middle and its list can move on from
            // there.
            const at =
              event.detail === 0
                ? { x: 0.5, y: 0.5 }
                : {
                    x: (event.clientX - area.left) / area.width,
                    y: (event.clientY - area.top) / area.height,
                  };
            const round = (share: number) => Math.round(Math.min(1, Math.max(0, share)) * 1000) / 1000;
            if (conductorId)
              put(
                [
                  ...pins.filter((pin) => pin.conductorId !== conductorId),
                  { conductorId, x: round(at.x), y: round(at.y) },
                ],
                'Pin a conductor',
              );
          }}
        >
          <Shown
            photo={photo}
            size="full"
            alt={`${box.name}, ${photo.stage ?? 'before'}`}
            className="max-h-[60vh] w-full rounded-md bg-well object-contain"
            style={photo.width && photo.height ? { aspectRatio: `${photo.width} / ${photo.height}` } : {}}
          />
        </button>
        {pins.map((pin, index) => (
          <span
            key={pin.conductorId}
            className="pointer-events-none absolute flex size-8 -translate-x-1/2 -translate-y-1/2 items-center justify-center rounded-full border-2 border-ink bg-sheet font-bold"
            style={{ left: `${pin.x * 100}%`, top: `${pin.y * 100}%` }}
          >
            {index + 1}
          </span>
        ))}
      </div>
    </figure>
  );
}

/** Where a photograph is that the server does not have. */
function waitingWords(waiting: Waiting | undefined): string {
  if (waiting?.unkept) return 'no room here: in this page only';
  return waiting?.refused ?? 'kept here, not sent yet';
}

/**
 * From this device while it waits here, else from the server; one that another device has not sent yet says
 * so.
 */
function Shown({
  photo,
  size,
  alt,
  className,
  style,
}: {
  photo: Kept;
  size: 'full' | 'thumb';
  alt: string;
  className: string;
  style?: React.CSSProperties;
}) {
  const { job } = useJob();
  const { waiting } = usePhotoQueue();
  const [failed, setFailed] = useState<string | null>(null);
  const source = waiting.get(photo.id)?.url ?? api.photoAddress(job.id, photo.id, size);
  if (failed === source)
    return (
      <span className={classes(className, 'flex items-center justify-center bg-well p-2 text-sm text-soft')}>
        Not here yet: another device has it.
      </span>
    );
  return (
    <img
      src={source}
      alt={alt}
      className={className}
      {...(style ? { style } : {})}
      onError={() => setFailed(source)}
    />
  );
}

function Pins({ box, photo }: { box: Box; photo: Kept }) {
  const { job, apply } = useJob();
  const pins = photo.pins ?? [];
  return (
    <section aria-label="Pins">
      <h2 className="mb-1 font-bold">Pins</h2>
      {pins.length === 0 && <p className="text-soft">Choose a conductor and touch where it is.</p>}
      <ol>
        {pins.map((pin, index) => (
          <li key={pin.conductorId} className="flex items-center gap-2 border-t border-rule">
            <span className="font-bold">{index + 1}</span>
            <span className="flex-1">{conductorWords(box, pin.conductorId, job)}</span>
            <Button
              kind="quiet"
              icon={Trash2}
              iconOnly
              onClick={() =>
                apply(
                  setParts('photo', photo.id, photo, { pins: pins.filter((other) => other !== pin) }),
                  'Delete a pin',
                )
              }
            >
              Delete pin {index + 1}
            </Button>
          </li>
        ))}
      </ol>
    </section>
  );
}
