import {
  type Box,
  DEAD_VOLTS,
  putPart,
  type Reading,
  readingWords,
  type Stop,
  sourceLooks,
} from '@inventario/core';
import { useState } from 'react';
import { instant, newId } from '../data/ids.js';
import { useJob } from '../data/job-context.js';
import { useBoxPower, useJobPower } from '../data/power.js';
import { Button } from '../ui/button.js';
import { useSay } from '../ui/say.js';
import { MeterPad } from './meter-pad.js';
import { PowerShape } from './power-shape.js';

/**
 * What feeds a conductor that is live with its breakers off: one breaker more off, look again the same way,
 * until it goes.
 */
export function SourceSearch({ box, stop }: { box: Box; stop: Stop }) {
  const { job, known, apply } = useJob();
  const power = useBoxPower(box.id);
  const { circuits } = useJobPower();
  const say = useSay();
  const [trying, setTrying] = useState<string | null>(null);
  const open = (power?.hinders ?? []).flatMap(({ code, circuitId, readingId }) =>
    code === 'live-reading' && circuitId === null
      ? (box.readings.find(({ id }) => id === readingId) ?? [])
      : [],
  );
  const last = open.at(-1);
  if (!last) return null;
  const name = (id: string) => known.circuits.get(id)?.breaker ?? id;
  const stateOf = (id: string) => circuits.find((circuit) => circuit.circuitId === id)?.state ?? 'unknown';

  const switchOff = (circuitId: string) => {
    const id = newId();
    apply(
      [putPart('event', id, { id, kind: 'switched', circuitId, state: 'off', at: instant() })],
      `Breaker ${name(circuitId)} switched off`,
    );
    setTrying(circuitId);
  };
  const answer = (value: Reading['value']) => {
    if (trying === null) return;
    const dead = value === 'quiet' || value === 'dark' || (typeof value === 'number' && value < DEAD_VOLTS);
    // What is dead now settles every open look at these points; what is alive still is one more fact.
    const same = open.filter(
      ({ tool, points }) => tool === last.tool && points.join() === last.points.join(),
    );
    const looks = sourceLooks(
      box,
      dead ? same : [last],
      trying,
      () => value,
      () => ({ id: newId(), at: instant() }),
    );
    const recorded = apply(
      [
        {
          kind: 'box',
          id: box.id,
          base: null,
          append: { readings: looks as unknown as Record<string, unknown>[] },
        },
      ],
      `${dead ? 'Gone' : 'Still live'} with breaker ${name(trying)} off (${box.name})`,
    );
    if (recorded)
      say(
        dead
          ? `Breaker ${name(trying)} feeds it.`
          : `Not breaker ${name(trying)}: leave it off and try the next.`,
      );
    setTrying(null);
  };

  return (
    <div className="flex flex-col gap-2 rounded-md border border-rule p-3">
      <h3 className="font-bold">Which breaker feeds it?</h3>
      <p className="text-sm text-soft">
        Stand clear. Switch one breaker more off, touch it here, and look the same way again:{' '}
        {readingWords(box, known, { ...last, breakers: {} })}.
      </p>
      {trying === null ? (
        <div className="grid grid-cols-2 gap-2">
          {stop.circuitIds.map((id) => (
            <Button
              key={id}
              className={stateOf(id) === 'on' ? 'text-live' : ''}
              onClick={() => switchOff(id)}
            >
              <PowerShape state={stateOf(id)} />
              {name(id)} is off now
            </Button>
          ))}
          {stop.circuitIds.length === 0 && (
            <p className="col-span-2">
              Every breaker of this file is off. Look for a second panel, an inverter, a generator, or a
              breaker not recorded yet; if none is found, call an electrician.
            </p>
          )}
        </div>
      ) : (
        <LookAgain last={last} breaker={name(trying)} onAnswer={answer} onAnother={() => setTrying(null)} />
      )}
      {job.circuits.length === 0 && <p>No breaker is recorded yet: add them under House.</p>}
    </div>
  );
}

/** The same look as before, with one breaker more off. */
function LookAgain({
  last,
  breaker,
  onAnswer,
  onAnother,
}: {
  last: Reading;
  breaker: string;
  onAnswer: (value: Reading['value']) => void;
  onAnother: () => void;
}) {
  const gone = last.tool === 'lamp' ? 'dark' : 'quiet';
  return (
    <div className="flex flex-col gap-2">
      <p className="font-semibold">Breaker {breaker} is off. Look again:</p>
      {last.tool === 'volts' || last.tool === 'volts-low-z' ? (
        <MeterPad label="Voltage" tool={last.tool} onValue={onAnswer} />
      ) : (
        <div className="grid grid-cols-2 gap-2">
          <Button className="min-h-16 text-lg" onClick={() => onAnswer(last.value)}>
            Still live
          </Button>
          <Button className="min-h-16 text-lg" onClick={() => onAnswer(gone)}>
            No longer live
          </Button>
        </div>
      )}
      <Button kind="quiet" onClick={onAnother}>
        Another breaker
      </Button>
    </div>
  );
}
