import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import {
  type Box,
  conductorWords,
  type Label,
  labelContext,
  labelFor,
  plural,
  profileOf,
  setParts,
} from '@inventario/core';
import { Camera, ChevronRight, Tag } from 'lucide-react';
import { Link } from 'react-router';
import type { Identified } from '../../../data/engines.worker.js';
import { useIdentified, useJob } from '../../../data/job-context.js';
import { RoleMark } from '../../../drawings/role-mark.js';
import { paths } from '../../../parts/paths.js';
import { Button } from '../../../ui/button.js';
import { useSay } from '../../../ui/say.js';
import { ProofForm } from '../proof/proof-form.js';
import { Contradictions } from './contradictions.js';
import { ReadingList } from './reading-list.js';

/**
 * What the readings say: contradictions first, then the one next test, then each conductor with its grade and
 * reason.
 */
export function IdentifySection({
  box,
  onSetUp,
}: {
  box: Box;
  onSetUp: (test: Identified['next'][number]) => void;
}) {
  const { job } = useJob();
  const result = useIdentified(box.id);
  if (!result) return <p className="text-soft">The readings are being weighed …</p>;
  return (
    <section aria-label="What the readings say" className="flex flex-col gap-3">
      <Contradictions conflicts={result.conflicts} />
      {result.notes
        .filter((note) => note.code !== 'cannot-tell' || box.readings.length > 0)
        .map((note) => (
          <p
            key={`${note.code}${note.conductorIds.join()}`}
            className="rounded-md border border-rule bg-sheet p-3 text-sm"
          >
            {note.message}
          </p>
        ))}
      <NextTest box={box} result={result} onSetUp={onSetUp} />
      <ConfirmedToLabels box={box} result={result} />
      <Disclosure>
        <DisclosureButton className="group flex min-h-11 items-center gap-1 text-sm font-semibold">
          <ChevronRight aria-hidden className="size-4 transition-transform group-data-open:rotate-90" />
          Why: each conductor with its reason
        </DisclosureButton>
        <DisclosurePanel>
          <ul className="flex flex-col gap-2">
            {result.conductors.map((conductor) => (
              <li key={conductor.id} className="flex gap-2 border-t border-rule pt-2 text-sm">
                <RoleMark role={conductor.role} certainty={conductor.grade} size={28} />
                <div>
                  <p className="font-semibold">
                    {conductorWords(box, conductor.id)}: {profileOf(job).words.roles[conductor.role]},{' '}
                    {conductor.grade}
                  </p>
                  <p className="text-soft">
                    {conductor.reason}{' '}
                    {(100 * conductor.probability).toFixed(conductor.probability > 0.999 ? 2 : 1)} %.
                  </p>
                </div>
              </li>
            ))}
          </ul>
        </DisclosurePanel>
      </Disclosure>
      <ReadingList box={box} />
      <div>
        <h2 className="text-sm font-semibold text-soft">Is it dead?</h2>
        <ProofForm box={box} />
      </div>
      <Link
        to={paths.photos(job.id, box.id)}
        className="flex min-h-11 items-center gap-2 text-sm font-semibold underline"
      >
        <Camera aria-hidden className="size-4" />
        Photographs ({job.photos.filter((photo) => photo.boxId === box.id).length})
      </Link>
      <Link
        to={paths.flags(job.id, box.id)}
        className="flex min-h-11 items-center gap-2 text-sm font-semibold underline"
      >
        <Tag aria-hidden className="size-4" />
        Flags to print, and the way back as found
      </Link>
    </section>
  );
}

function NextTest({
  box,
  result,
  onSetUp,
}: {
  box: Box;
  result: Identified;
  onSetUp: (test: Identified['next'][number]) => void;
}) {
  const [test] = result.next;
  if (!test)
    return box.conductors.length > 0 && result.notes.length === 0 ? (
      <p>Every role that is needed is confirmed.</p>
    ) : null;
  return (
    <div className="flex flex-col gap-2 rounded-md border border-ink bg-sheet p-3">
      <h2 className="text-sm font-semibold text-soft">The test that tells most next</h2>
      <p className="font-semibold">{test.says}</p>
      <p className="text-sm text-soft">
        {test.because} About {plural(test.minutes, 'minute')}.
      </p>
      <Button onClick={() => onSetUp(test)}>Set the drawing up for it</Button>
    </div>
  );
}

/** One tap: what is confirmed becomes a flag. Flags that stand already are the installer's word and stay. */
function ConfirmedToLabels({ box, result }: { box: Box; result: Identified }) {
  const { known, apply, undo } = useJob();
  const say = useSay();
  const labelled = new Set(box.labels.map((label) => label.conductorId));
  const ready = result.conductors.filter(
    (conductor) => conductor.grade === 'confirmed' && !labelled.has(conductor.id),
  );
  if (ready.length === 0) return null;
  const flag = () => {
    const labels = ready.map((conductor): Label => {
      const context = labelContext(box, conductor.id, known);
      const made = labelFor(conductor.id, conductor.role, {
        loadIds: conductor.loadIds.length > 0 ? conductor.loadIds : context.loadIds,
        circuitIds: conductor.circuitId ? [conductor.circuitId] : context.circuitIds,
        ...(context.groupId ? { groupId: context.groupId } : {}),
      });
      return made;
    });
    apply(
      setParts('box', box.id, box, { labels: [...box.labels, ...numbered(labels, box)] }),
      `Flag ${ready.length} confirmed`,
    );
    say(`${ready.length} confirmed conductors are flagged.`, { label: 'Undo', run: undo });
  };
  return (
    <Button kind="main" icon={Tag} onClick={flag}>
      Flag the {ready.length} confirmed
    </Button>
  );
}

/** Travelers are numbered in the order of the drawing, after those that have a number. */
function numbered(labels: readonly Label[], box: Box): Label[] {
  let next = Math.max(0, ...box.labels.map((label) => label.traveler ?? 0));
  return labels.map((label) => {
    if (label.role !== 'traveler') return label;
    next += 1;
    return { ...label, traveler: next };
  });
}
