import {
  type Box,
  type BoxPower,
  conductorWords,
  DEAD_VOLTS,
  hinderText,
  LEAST_SOURCE_VOLTS,
  type ProvingPair,
  provedEvent,
  provingHinders,
  provingRound,
  putPart,
  type Reading,
  sourceDoubtText,
  sourceShown,
} from '@inventario/core';
import { useState } from 'react';
import { instant, newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { useBoxPower } from '../../../data/power.js';
import { MeterPad } from '../../../parts/meter-pad.js';
import { timeOf } from '../../../parts/times.js';
import { Button } from '../../../ui/button.js';
import { PickOne } from '../../../ui/choice.js';
import { NumberField } from '../../../ui/field.js';
import { useSay } from '../../../ui/say.js';

/** Is it dead? What stands, what hinders, and the stage of the proof that comes next. */
export function ProofForm({ box }: { box: Box }) {
  const { job } = useJob();
  const power = useBoxPower(box.id);
  if (!power) return null;
  const hindered = provingHinders(power);
  const stage = power.dead === 'none' ? 'face' : 'device-out';
  return (
    <div className="flex flex-col gap-2">
      <ProofStands power={power} box={box} />
      {hindered.length > 0 && (
        <div>
          <p className="font-semibold">Before it can be proved:</p>
          <ul className="list-disc pl-5">
            {hindered.map((hinder) => (
              <li key={`${hinder.code}${hinder.circuitId}${hinder.readingId}`}>
                {hinderText(hinder, box, job)}
              </li>
            ))}
          </ul>
        </div>
      )}
      {power.dead !== 'device-out' && hindered.length === 0 && box.circuitIds.length > 0 && (
        <Stage key={stage} box={box} power={power} stage={stage} />
      )}
    </div>
  );
}

function ProofStands({ power, box }: { power: BoxPower; box: Box }) {
  const { job } = useJob();
  if (power.dead === 'device-out')
    return <p className="font-semibold">Proved dead with the device out, {timeOf(power.since ?? '')}.</p>;
  if (power.dead === 'face')
    return (
      <p className="font-semibold">
        Proved dead at the face, {timeOf(power.since ?? '')}. Once more with the device out.
      </p>
    );
  const ended = power.hinders.filter(({ code }) => ENDED.has(code));
  return (
    <>
      <p className="font-semibold">Not proved dead.</p>
      {ended.map((hinder) => (
        <p key={`${hinder.code}${hinder.circuitId}${hinder.readingId}`} className="text-sm">
          {hinderText(hinder, box, job)}
        </p>
      ))}
    </>
  );
}

/** What ended an earlier proof, or leaves a box without any. */
const ENDED: ReadonlySet<string> = new Set([
  'on-unknown-to-prover',
  'corrected',
  'closed',
  'old',
  'not-proved',
]);

/**
 * One stage: the tester on a known source, every pair, the known source again. Nothing is taken on trust but
 * by one touch that says so.
 */
function Stage({ box, power, stage }: { box: Box; power: BoxPower; stage: 'face' | 'device-out' }) {
  const { job, apply } = useJob();
  const say = useSay();
  const [volts, setVolts] = useState(0);
  const [after, setAfter] = useState(0);
  // A number out of range stays in its field, but the one taken before it must not stand for it.
  const [taken, setTaken] = useState({ volts: false, after: false });
  const [under, setUnder] = useState(false);
  const [odd, setOdd] = useState<string | null>(null);
  const round = provingRound(box);
  const pairs = [...round.earth, ...round.neutral, ...round.lines];
  const bothTaken = taken.volts && taken.after;
  const shown = bothTaken && sourceShown(volts, after);

  const record = () => {
    const made = { id: newId(), at: instant(), stage, volts, voltsAfter: after, under5: pairs };
    const event = provedEvent(box, job, power, made);
    if (event)
      apply(
        [putPart('event', made.id, event)],
        `${box.name} proved dead ${stage === 'face' ? 'at the face' : 'with the device out'}`,
      );
    else say('That cannot be recorded: the record changed while you measured. Look at what hinders.');
  };
  const recordOdd = (pair: ProvingPair, value: Reading['value']) => {
    setOdd(null);
    if (typeof value === 'number' && value < DEAD_VOLTS) return;
    const reading: Reading = {
      id: newId(),
      at: instant(),
      tool: 'volts-low-z',
      method: 'probed',
      arrangement: stage === 'face' ? 'in-place' : 'device-out',
      ...(stage === 'device-out' && box.positions[0] ? { position: box.positions[0].index } : {}),
      breakers: Object.fromEntries(power.circle.map((id) => [id, 'off' as const])),
      points: [...pair],
      value,
    };
    apply(
      [
        {
          kind: 'box',
          id: box.id,
          base: null,
          append: { readings: [reading as unknown as Record<string, unknown>] },
        },
      ],
      `Not dead: ${value} V (${box.name})`,
    );
    setUnder(false);
    say(`${value} V: the box is not dead.`);
  };
  const oddPair = pairs.find((pair) => pair.join() === odd);
  const words = (point: string) => (point === 'reference' ? 'earth' : conductorWords(box, point));
  return (
    <fieldset className="flex flex-col gap-3 rounded-md border border-rule p-3">
      <legend className="px-1 font-bold">
        {stage === 'face' ? 'First at the face' : 'Again, with the device out'}
      </legend>
      <NumberField
        label="1. Tester on a known source"
        unit="V"
        min={LEAST_SOURCE_VOLTS}
        max={500}
        zeroIsEmpty
        value={volts}
        onNumber={setVolts}
        onTaken={(ok) => setTaken((before) => ({ ...before, volts: ok }))}
      />
      <div className="flex flex-col gap-2">
        <p className="text-sm font-semibold text-soft">2. Every conductor of the box</p>
        <ul className="list-disc pl-5 text-sm">
          <li>each to earth: {round.earth.length}</li>
          {round.neutral.length > 0 && <li>each to neutral: {round.neutral.length}</li>}
          {round.lines.length > 0 && <li>each to each other: {round.lines.length}</li>}
        </ul>
        <div className="grid grid-cols-1 gap-2 sm:grid-cols-2">
          <Button
            aria-pressed={under}
            className={under ? 'border-ink font-semibold' : ''}
            disabled={!taken.volts}
            onClick={() => setUnder(!under)}
          >
            {under ? '✓ ' : ''}All {pairs.length} under 5 V
          </Button>
          <PickOne
            label="All but one"
            hideLabel
            value={odd}
            placeholder="One is not …"
            options={pairs.map((pair) => ({
              value: pair.join(),
              label: `${words(pair[0])} to ${words(pair[1])}`,
            }))}
            onChoice={setOdd}
          />
        </div>
        {oddPair && (
          <MeterPad
            label={`Volts, ${words(oddPair[0])} to ${words(oddPair[1])}`}
            tool="volts-low-z"
            onValue={(value) => recordOdd(oddPair, value)}
          />
        )}
      </div>
      <NumberField
        label="3. The known source again"
        unit="V"
        min={LEAST_SOURCE_VOLTS}
        max={500}
        zeroIsEmpty
        value={after}
        onNumber={setAfter}
        onTaken={(ok) => setTaken((before) => ({ ...before, after: ok }))}
      />
      {bothTaken && !shown && (
        <p role="alert" className="text-stop">
          {sourceDoubtText(volts, after)}
        </p>
      )}
      <Button kind="main" disabled={!shown || !under} onClick={record}>
        {stage === 'face' ? 'Proved dead at the face' : 'Proved dead, device out'}
      </Button>
    </fieldset>
  );
}
