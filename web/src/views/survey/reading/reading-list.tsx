import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import { type Box, type Reading, readingWords, setParts } from '@inventario/core';
import { ChevronRight, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useJob } from '../../../data/job-context.js';
import { MeterPad } from '../../../parts/meter-pad.js';
import { Button } from '../../../ui/button.js';
import { Dialog } from '../../../ui/dialog.js';
import { useSay } from '../../../ui/say.js';

/** What was read in a box, each to be changed or taken back. */
export function ReadingList({ box }: { box: Box }) {
  const { known, apply, undo } = useJob();
  const say = useSay();
  const [changing, setChanging] = useState<Reading | null>(null);
  const put = (readings: Reading[], label: string) =>
    apply(setParts('box', box.id, box, { readings }), label);
  if (box.readings.length === 0)
    return <p className="text-sm text-soft">Nothing has been read in this box yet.</p>;
  return (
    <Disclosure>
      <DisclosureButton className="group flex min-h-11 items-center gap-1 text-sm font-semibold">
        <ChevronRight aria-hidden className="size-4 transition-transform group-data-open:rotate-90" />
        Readings ({box.readings.length})
      </DisclosureButton>
      <DisclosurePanel>
        <ol aria-label="Readings" className="flex flex-col">
          {box.readings.map((reading) => (
            <li key={reading.id} className="flex items-center gap-1 border-t border-rule text-sm">
              <button
                type="button"
                className="min-h-11 flex-1 py-1 text-left hover:bg-well"
                onClick={() => setChanging(reading)}
              >
                {readingWords(box, known, reading)}
              </button>
              <Button
                kind="quiet"
                icon={Trash2}
                iconOnly
                onClick={() => {
                  put(
                    box.readings.filter((other) => other.id !== reading.id),
                    'Delete a reading',
                  );
                  say('The reading is deleted.', { label: 'Undo', run: undo });
                }}
              >
                Delete this reading
              </Button>
            </li>
          ))}
        </ol>
        {changing && (
          <Dialog title="Change the value" open onClose={() => setChanging(null)}>
            <p className="mb-3">{readingWords(box, known, changing)}</p>
            <ValueEntry
              reading={changing}
              onValue={(value) => {
                put(
                  box.readings.map((other) => (other.id === changing.id ? { ...other, value } : other)),
                  'Change a reading',
                );
                setChanging(null);
              }}
            />
          </Dialog>
        )}
      </DisclosurePanel>
    </Disclosure>
  );
}

const WORD_VALUES: Partial<Record<Reading['tool'], readonly Reading['value'][]>> = {
  indicator: ['alert', 'quiet'],
  lamp: ['lit', 'dim', 'dark'],
  breaker: ['held', 'tripped'],
};

function ValueEntry({ reading, onValue }: { reading: Reading; onValue: (value: Reading['value']) => void }) {
  const values = WORD_VALUES[reading.tool];
  if (values)
    return (
      <div className="flex gap-2">
        {values.map((value) => (
          <Button key={value} className="flex-1" onClick={() => onValue(value)}>
            {value}
          </Button>
        ))}
      </div>
    );
  return <MeterPad label="Value" tool={reading.tool} onValue={onValue} />;
}
