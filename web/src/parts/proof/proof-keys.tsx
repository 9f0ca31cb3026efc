import {
  type Box,
  type BoxPower,
  conductorWords,
  DEAD_VOLTS,
  LEAST_SOURCE_VOLTS,
  lastSourceVolts,
  type ProvingPair,
  profileOf,
  provedEvent,
  provingHinders,
  provingRound,
  putPart,
  type Reading,
  sourceDoubtText,
  sourceShown,
  standsNow,
} from '@inventario/core';
import { type ReactNode, useState } from 'react';
import { felt } from '../../data/felt.js';
import { instant, newId, thisDevice } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';
import { PickOne } from '../../ui/choice.js';
import { PickKeys } from '../../ui/pick-keys.js';
import { useSay } from '../../ui/say.js';
import { MeterPad } from '../meter-pad.js';
import { ProofHinders } from './proof-hinders.js';

/** A tester that showed its source so lately, ms, is known to the hand that holds it. */
const LATELY = 20 * 60_000;

/**
 * One stage of the proof, prove, test, prove: the tester on a known source, every pair under 5 V, the known
 * source again. Where the same source was read at this box minutes ago, one touch says all three.
 */
export function ProofKeys({
  box,
  power,
  stage,
  onLater,
}: {
  box: Box;
  power: BoxPower;
  stage: 'face' | 'device-out';
  /** Where the proof is one step of several, and can be put off. */
  onLater?: () => void;
}) {
  const { job } = useJob();
  const later = onLater && <Button onClick={onLater}>Later</Button>;
  const last = lastSourceVolts(job, box.id, Date.parse(instant()) - LATELY);
  const [source, setSource] = useState<number | null>(last.ofBox);
  const [ask, setAsk] = useState<'source' | 'odd' | 'after' | null>(null);
  const { record, recordOdd, pairs, round } = useProof(box, power, stage);
  const [doubt, setDoubt] = useState<string | null>(null);
  if (provingHinders(power).length > 0 || box.circuitIds.length === 0)
    return (
      <div className="flex items-start gap-2">
        <div className="min-w-0 flex-1">
          <ProofHinders box={box} power={power} />
        </div>
        {later}
      </div>
    );
  const after = (volts: number) => {
    if (source === null || record(source, volts)) return;
    setDoubt(sourceDoubtText(source, volts));
    setAsk(null);
  };
  if (source === null || ask === 'source')
    return (
      <SourceKeys
        likely={last.ofJob}
        later={later}
        onVolts={(volts) => {
          setSource(volts);
          setAsk(null);
          setDoubt(null);
        }}
      />
    );
  const counts = [
    `each to earth ${round.earth.length}`,
    round.neutral.length > 0 && `to neutral ${round.neutral.length}`,
    round.lines.length > 0 && `to each other ${round.lines.length}`,
  ].filter(Boolean);
  const all = pairs.length > 0 ? `all ${pairs.length} under 5 V` : 'every terminal under 5 V';
  return (
    <div className="flex flex-col gap-2">
      <div className="flex items-start gap-2">
        <p className="min-w-0 flex-1 leading-tight">
          Source {source} V; then every conductor{pairs.length > 0 && ` (${counts.join(', ')})`}; then the
          source again.
        </p>
        {later}
      </div>
      {doubt && (
        <p role="alert" className="text-stop">
          {doubt}
        </p>
      )}
      {ask === 'after' && (
        <MeterPad label="The known source again" tool="volts-low-z" onValue={(v) => after(Number(v))} />
      )}
      {ask === 'odd' && <OddPair box={box} pairs={pairs} onValue={recordOdd} />}
      <Button kind="main" className="min-h-14 text-lg" onClick={() => after(source)}>
        {source} V, {all}, {source} V again
      </Button>
      <div className="grid grid-cols-3 gap-1.5">
        {pairs.length > 0 && <Button onClick={() => setAsk('odd')}>One is not</Button>}
        <Button onClick={() => setAsk('after')}>Source differs after</Button>
        <Button onClick={() => setAsk('source')}>Other source</Button>
      </div>
    </div>
  );
}

/**
 * What the tester shows on a source that is known to be live: the likely readings as keys, any other typed.
 */
function SourceKeys({
  likely,
  later,
  onVolts,
}: {
  likely: number | null;
  later: ReactNode;
  onVolts: (volts: number) => void;
}) {
  const { job } = useJob();
  const [typing, setTyping] = useState(false);
  const middle = Math.round(likely ?? profileOf(job).supply.nominal);
  const keys = [0, -1, 1, -2, 2].map((step) => middle + step).sort((a, b) => a - b);
  if (typing)
    return (
      <MeterPad
        label="Tester on a known source"
        tool="volts-low-z"
        least={LEAST_SOURCE_VOLTS}
        onValue={(value) => typeof value === 'number' && value >= LEAST_SOURCE_VOLTS && onVolts(value)}
      />
    );
  return (
    <div className="flex flex-col gap-1.5">
      <div className="flex items-center gap-2">
        <p className="min-w-0 flex-1 leading-tight">First the tester on a known source. It shows:</p>
        {later}
      </div>
      <PickKeys
        label="The known source shows"
        columns={3}
        keys={[
          ...keys.map((volts) => ({ key: String(volts), label: `${volts} V`, onPick: () => onVolts(volts) })),
          { key: 'other', label: 'another', onPick: () => setTyping(true) },
        ]}
      />
    </div>
  );
}

function OddPair({
  box,
  pairs,
  onValue,
}: {
  box: Box;
  pairs: readonly ProvingPair[];
  onValue: (pair: ProvingPair, value: Reading['value']) => void;
}) {
  const { job } = useJob();
  const [odd, setOdd] = useState<string | null>(null);
  const pair = pairs.find((entry) => entry.join() === odd);
  const words = (point: string) => (point === 'reference' ? 'earth' : conductorWords(box, point, job));
  return (
    <>
      <PickOne
        label="Which pair is not under 5 V"
        value={odd}
        options={pairs.map((entry) => ({
          value: entry.join(),
          label: `${words(entry[0])} to ${words(entry[1])}`,
        }))}
        onChoice={setOdd}
      />
      {pair && (
        <MeterPad
          label={`Volts, ${words(pair[0])} to ${words(pair[1])}`}
          tool="volts-low-z"
          onValue={(value) => onValue(pair, value)}
        />
      )}
    </>
  );
}

/** Records a proof, or the pair that keeps the box from being proved. */
function useProof(box: Box, power: BoxPower, stage: 'face' | 'device-out') {
  const { job, apply } = useJob();
  const say = useSay();
  const round = provingRound(box);
  const pairs = [...round.earth, ...round.neutral, ...round.lines];
  /** @returns false where the tester did not show its source as before */
  const record = (volts: number, voltsAfter: number): boolean => {
    if (!sourceShown(volts, voltsAfter)) return false;
    felt();
    const made = { id: newId(), at: instant(), by: thisDevice(), stage, volts, voltsAfter, under5: pairs };
    const event = provedEvent(box, job, power, made);
    if (event)
      apply(
        [putPart('event', made.id, event)],
        `${box.name} proved dead ${stage === 'face' ? 'at the face' : 'with the device out'}`,
      );
    else say('That cannot be recorded: the record changed while you measured. Look at what hinders.');
    return true;
  };
  const recordOdd = (pair: ProvingPair, value: Reading['value']) => {
    if (typeof value === 'number' && value < DEAD_VOLTS) return;
    const out = standsNow(box, job).position ?? box.positions[0]?.index;
    const reading: Reading = {
      id: newId(),
      at: instant(),
      tool: 'volts-low-z',
      method: 'probed',
      arrangement: stage === 'face' ? 'in-place' : 'device-out',
      ...(stage === 'device-out' && out !== undefined ? { position: out } : {}),
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
    say(`${value} V: the box is not dead.`);
  };
  return { round, pairs, record, recordOdd };
}
