import {
  capital,
  causeEvent,
  HANDS_OFF_STEPS,
  isAtWires,
  listed,
  putPart,
  type Reading,
  testedEvent,
  triedEvent,
} from '@inventario/core';
import { useNavigate } from 'react-router';
import { felt } from '../../data/felt.js';
import { instant, newId, thisDevice } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { useBoxPower } from '../../data/power.js';
import { MeterKeys } from '../../parts/meter-pad.js';
import { paths } from '../../parts/paths.js';
import { ProofKeys } from '../../parts/proof/proof-keys.js';
import { Button } from '../../ui/button.js';
import { Fold } from '../../ui/fold.js';
import { PickKeys } from '../../ui/pick-keys.js';
import { causeKey, type Doubt } from './doubt.js';

/** The test that splits the leaders while there is one and no cause is looked at; else what is put right. */
export function doubtTitle({ answer, picked }: Doubt): string {
  if (picked === null && answer.next) return 'Best next test';
  const cause = answer.causes.find((entry) => causeKey(entry) === picked) ?? answer.causes[0];
  return cause ? cause.name : 'No cause is known';
}

export function DoubtKeys({ doubt }: { doubt: Doubt }) {
  const { answer, picked } = doubt;
  if (picked === null && answer.next) return <NextTest doubt={doubt} />;
  return <PutRight doubt={doubt} />;
}

const WORDS: Partial<Record<Reading['tool'], readonly [Reading['value'], string][]>> = {
  indicator: [
    ['alert', 'Alert'],
    ['quiet', 'Quiet'],
  ],
  lamp: [
    ['lit', 'Lit'],
    ['dim', 'Dim'],
    ['dark', 'Dark'],
  ],
};

/** A reading of the box as it is wired: how the box stands for it, and its result in one touch. */
function NextTest({ doubt }: { doubt: Doubt }) {
  const { apply } = useJob();
  const { box, position, answer } = doubt;
  const power = useBoxPower(box.id);
  const { next } = answer;
  if (!next || !power) return null;
  const isDead = Object.values(next.breakers ?? {}).every((state) => state === 'off');
  const isOpen = isDead ? power.gates.ohms : isOnForTheLook(next, power.hinders);
  const record = (value: Reading['value']) => {
    felt();
    const id = newId();
    const at = instant();
    const { says: _, because: __, gain: ___, minutes: ____, ...asked } = next;
    const reading = { ...asked, id, at, value } as Reading;
    apply(
      [
        ...tellSeen(doubt),
        putPart('event', id, testedEvent({ boxId: box.id, position }, reading, { id, at })),
      ],
      `A test at ${box.name}`,
    );
  };
  const words = WORDS[next.tool];
  return (
    <div className="flex flex-col gap-2">
      <p className="leading-snug">
        <strong>{capital(next.says)}.</strong> {next.because}
      </p>
      {!isDead && (
        <Fold title="Hands off" says="fitted dead, read with everyone clear">
          <ol className="list-decimal pl-5">
            {HANDS_OFF_STEPS.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
        </Fold>
      )}
      {isOpen && words && (
        <PickKeys
          label="Result"
          columns={words.length}
          keys={words.map(([value, label]) => ({
            key: String(value),
            label,
            onPick: () => record(value),
          }))}
        />
      )}
      {isOpen && !words && <MeterKeys label="Result" tool={next.tool} onValue={record} />}
      {!isOpen && !isDead && power.gates.energise && <SwitchOn next={next} />}
      {!isOpen && (isDead || !power.gates.energise) && (
        <>
          <p role="status" className="rounded-md border-2 border-ink p-2 font-semibold">
            Not yet: first the box is dead, and proved with the device out.
          </p>
          <ProofKeys box={box} power={power} stage={power.dead === 'none' ? 'face' : 'device-out'} />
        </>
      )}
    </div>
  );
}

/** Hinders that say the box was never opened dead for this look, or may not be. */
const NOT_OPENED: ReadonlySet<string> = new Set(['not-proved', 'face-only', 'closed', 'old', 'hazard']);

/** Leads were fitted dead, and its breakers are on for the look. */
function isOnForTheLook(
  next: NonNullable<Doubt['answer']['next']>,
  hinders: readonly { code: string; circuitId: string | null }[],
): boolean {
  const on = new Set(hinders.flatMap(({ code, circuitId }) => (code === 'circuit-on' ? [circuitId] : [])));
  const all = Object.keys(next.breakers ?? {}).every((id) => on.has(id));
  return all && !hinders.some(({ code }) => NOT_OPENED.has(code));
}

/** Dead, proved and fitted: on for the look, by whoever stands clear. */
function SwitchOn({ next }: { next: NonNullable<Doubt['answer']['next']> }) {
  const { known, apply } = useJob();
  const ids = Object.keys(next.breakers ?? {});
  const names = listed(
    ids.map((id) => `${known.circuits.get(id)?.breaker} ${known.circuits.get(id)?.label}`),
  );
  const record = () => {
    felt();
    const at = instant();
    apply(
      ids.map((circuitId) => {
        const id = newId();
        return putPart('event', id, { id, kind: 'switched', circuitId, state: 'on', at, by: thisDevice() });
      }),
      `Switched on: ${names}`,
    );
  };
  return (
    <>
      <p>Leads fitted, box guarded, everyone clear: then on, for the look alone.</p>
      <Button kind="main" className="min-h-14 text-lg" onClick={record}>
        Record: switched on, {names}
      </Button>
    </>
  );
}

/** What was seen is kept with the first thing that is recorded of it. */
function tellSeen({ box, position, seen, readings }: Doubt) {
  if (readings.length > 0) return [];
  const id = newId();
  return [putPart('event', id, triedEvent({ boxId: box.id, position }, seen, { id, at: instant() }))];
}

/** What is done about the cause that is looked at, and the touch that says it was this. */
function PutRight({ doubt }: { doubt: Doubt }) {
  const { job, apply } = useJob();
  const navigate = useNavigate();
  const { box, position, answer, picked, pick } = doubt;
  const power = useBoxPower(box.id);
  const cause = answer.causes.find((entry) => causeKey(entry) === picked) ?? answer.causes[0];
  if (!cause) return null;
  const itWas = () => {
    felt();
    const id = newId();
    const event = causeEvent({ boxId: box.id, position }, cause.cause, { id, at: instant() });
    apply([...tellSeen(doubt), putPart('event', id, event)], `${box.name}: ${cause.name}`);
    navigate(paths.install(job.id));
  };
  return (
    <div className="flex flex-col gap-2">
      <ol className="list-decimal pl-5 leading-snug">
        {cause.steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      {power && isAtWires(cause.cause) && !power.gates.open && (
        <Fold title="Not yet dead and proved" says="before a hand goes in">
          <ProofKeys box={box} power={power} stage={power.dead === 'none' ? 'face' : 'device-out'} />
        </Fold>
      )}
      <Button kind="main" className="min-h-14 text-lg" onClick={itWas}>
        It was this, and is put right
      </Button>
      {answer.next && <Button onClick={() => pick(null)}>Back to the next test</Button>}
    </div>
  );
}
