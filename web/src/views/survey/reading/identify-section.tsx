import { Disclosure, DisclosureButton, DisclosurePanel, useClose } from '@headlessui/react';
import { type Box, conductorWords, profileOf } from '@inventario/core';
import { ChevronRight } from 'lucide-react';
import { useIdentified, useJob } from '../../../data/job-context.js';
import { CERTAINTY_WORDS, RoleMark } from '../../../drawings/role-mark.js';
import { Button } from '../../../ui/button.js';
import { useHand } from '../hand/use-hand.js';
import { ProofStands } from '../proof/proof-stands.js';
import { Contradictions } from './contradictions.js';

/**
 * What the readings say: contradictions first, then each conductor with its grade and reason; and the proof.
 */
export function IdentifySection({ box }: { box: Box }) {
  const { job } = useJob();
  const result = useIdentified(box.id);
  const { roles } = profileOf(job).words;
  if (!result) return <p className="text-soft">The readings are being weighed …</p>;
  const [best] = result.next;
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
      {best ? (
        <div>
          <h2 className="text-sm font-semibold text-soft">Best next test</h2>
          <p className="font-semibold">{best.says}</p>
          <p className="text-sm text-soft">{best.because}</p>
          <StartTest />
        </div>
      ) : (
        box.conductors.length > 0 && result.notes.length === 0 && <p>Every role that is needed is proved.</p>
      )}
      <Disclosure>
        <DisclosureButton className="group flex min-h-11 items-center gap-1 text-sm font-semibold">
          <ChevronRight aria-hidden className="size-4 transition-transform group-data-open:rotate-90" />
          Why: each conductor with its reason
        </DisclosureButton>
        <DisclosurePanel>
          <ul className="flex flex-col gap-2">
            {result.conductors.map((conductor) => (
              <li key={conductor.id} className="flex gap-2 border-t border-rule pt-2 text-sm">
                <RoleMark role={conductor.role} certainty={conductor.grade} size={30} />
                <div>
                  <p className="font-semibold">
                    {conductorWords(box, conductor.id, job)}: {roles[conductor.role]},{' '}
                    {CERTAINTY_WORDS[conductor.grade]}
                  </p>
                  <p className="text-soft">
                    {conductor.reason}
                    {/* A guess has no percentage: nothing was measured that could be counted. */}
                    {conductor.grade !== 'guess' &&
                      ` ${(100 * conductor.probability).toFixed(conductor.probability > 0.999 ? 2 : 1)} %.`}
                  </p>
                </div>
              </li>
            ))}
          </ul>
        </DisclosurePanel>
      </Disclosure>
      <div>
        <h2 className="text-sm font-semibold text-soft">Is it dead?</h2>
        <ProofStands box={box} />
      </div>
    </section>
  );
}

/** The bar asks for tests again, the one named here first. */
function StartTest() {
  const { bench, onBench } = useHand();
  const close = useClose();
  if (bench.mode === 'test' && bench.held === null && bench.skipped.size === 0) return null;
  const start = () => {
    onBench({ mode: 'test', held: null, end: null, joint: null, skipped: new Set() });
    close();
  };
  return (
    <Button className="mt-2" onClick={start}>
      Start this test
    </Button>
  );
}
