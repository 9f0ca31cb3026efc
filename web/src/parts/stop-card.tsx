import {
  type Box,
  conductorWords,
  putPart,
  STOP_WORDS,
  type Stop,
  setParts,
  stopText,
  tracedEvent,
} from '@inventario/core';
import { OctagonX, Unplug } from 'lucide-react';
import { useState } from 'react';
import { instant, newId } from '../data/ids.js';
import { useJob } from '../data/job-context.js';
import { useBoxPower } from '../data/power.js';
import { Button } from '../ui/button.js';
import { TextField } from '../ui/field.js';
import { SourceSearch } from './source-search.js';

/**
 * Findings at which work stops, with what to do about each; calm, specific, in place. A live conductor comes
 * first, with the search for its breaker; a breaker that was found waits to be added to the box.
 * @param only one finding, where others stand elsewhere on the screen
 * @param search whether the breaker is looked for here, and not in another card of the screen
 */
export function StopCard({ box, only, search = true }: { box: Box; only?: Stop['code']; search?: boolean }) {
  const power = useBoxPower(box.id);
  const { job } = useJob();
  if (!power) return null;
  const stops = power.stops.filter(({ code }) => only === undefined || code === only);
  const live = stops.find(({ code }) => code === 'live-while-off');
  const others = stops.filter((stop) => stop !== live);
  return (
    <>
      {search && <FoundSource box={box} />}
      {stops.length > 0 && (
        <section
          id={only ? undefined : 'stop'}
          aria-label="Stop"
          role="alert"
          className="flex scroll-mt-4 gap-3 rounded-lg border-2 border-stop bg-sheet p-3"
        >
          <OctagonX aria-hidden className="size-8 shrink-0 text-stop" />
          <div className="flex min-w-0 flex-1 flex-col gap-3">
            {live && (
              <div className="flex flex-col gap-2">
                <h2 className="text-lg font-bold text-stop">
                  Stop: {STOP_WORDS[live.code].name.toLowerCase()}
                </h2>
                <p>{stopText(live, box, job).replace(`${STOP_WORDS[live.code].name}: `, 'It shows on ')}</p>
                {search && <SourceSearch box={box} stop={live} />}
                {!only && <PutRight box={box} stop={live} />}
              </div>
            )}
            {others.length > 0 && (
              <div>
                <h2 className="font-bold text-stop">Stop, and call an electrician</h2>
                <ul className="flex flex-col gap-2">
                  {others.map((stop) => (
                    <li key={stop.code} className="border-t border-rule pt-2 first:border-0 first:pt-0">
                      <p>
                        <strong>{STOP_WORDS[stop.code].name}.</strong>{' '}
                        {stop.conductorIds.length > 0 &&
                          `${stop.conductorIds.map((id) => conductorWords(box, id, job)).join(', ')}. `}
                        {STOP_WORDS[stop.code].says}
                      </p>
                      <PutRight box={box} stop={stop} />
                    </li>
                  ))}
                </ul>
              </div>
            )}
          </div>
        </section>
      )}
    </>
  );
}

/**
 * The word of a competent person that a hazard is put right; it stays in the record, and a later reading can
 * bring the stop back.
 */
function PutRight({ box, stop }: { box: Box; stop: Stop }) {
  const { applyAndSay } = useJob();
  const [note, setNote] = useState<string | null>(null);
  if (note === null)
    return (
      <Button kind="quiet" className="self-start px-0 underline" onClick={() => setNote('')}>
        It has been put right
      </Button>
    );
  const record = () => {
    const id = newId();
    applyAndSay(
      [
        putPart('event', id, {
          id,
          kind: 'cleared',
          boxId: box.id,
          hazard: stop.code,
          note: note.trim(),
          at: instant(),
        }),
      ],
      `Put right: ${STOP_WORDS[stop.code].name.toLowerCase()} (${box.name})`,
      'Recorded. The box has to be proved dead again.',
    );
  };
  return (
    <div className="mt-1 flex flex-wrap items-end gap-2">
      <TextField
        label="Who put it right, and how"
        value={note}
        onText={setNote}
        maxLength={300}
        boxClass="min-w-48 flex-1"
        autoFocus
      />
      <Button disabled={note.trim() === ''} onClick={record}>
        Record
      </Button>
      <Button kind="quiet" onClick={() => setNote(null)}>
        Not yet
      </Button>
    </div>
  );
}

/** A breaker that was found behind a live conductor belongs to the box. */
function FoundSource({ box }: { box: Box }) {
  const { known, applyAndSay } = useJob();
  const power = useBoxPower(box.id);
  const found = [
    ...new Set(
      power?.hinders.flatMap(({ code, circuitId }) =>
        code === 'live-reading' && circuitId ? [circuitId] : [],
      ),
    ),
  ];
  return found.map((id) => {
    const name = known.circuits.get(id)?.breaker ?? id;
    const add = () => {
      const traced = tracedEvent(box.id, id, { id: newId(), at: instant() });
      applyAndSay(
        [
          ...setParts('box', box.id, box, { circuitIds: [...box.circuitIds, id] }),
          putPart('event', traced.id, traced),
        ],
        `${box.name} is on breaker ${name} too`,
        `Breaker ${name} is a circuit of this box now.`,
      );
    };
    return (
      <section
        key={id}
        aria-label="Breaker found"
        className="flex flex-wrap items-center gap-3 rounded-lg border-2 border-ink bg-sheet p-3"
      >
        <Unplug aria-hidden className="size-7 shrink-0" />
        <p className="min-w-48 flex-1">
          <strong>Breaker {name} feeds this box too.</strong> It was found by switching it off. Prove the box
          dead again before it is touched.
        </p>
        <Button kind="main" onClick={add}>
          Add breaker {name} to the box
        </Button>
      </section>
    );
  });
}
