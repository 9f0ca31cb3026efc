import { HANDS_OFF_STEPS, type NextStep, readingGate } from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { MeterKeys } from '../../../parts/meter-pad.js';
import { ProofKeys } from '../../../parts/proof/proof-keys.js';
import { Button } from '../../../ui/button.js';
import { PickKeys } from '../../../ui/pick-keys.js';
import { type Entered, sweptReadings } from '../hand/bench-state.js';
import { flagProved } from '../hand/flag-proved.js';
import { useHand } from '../hand/use-hand.js';
import { GateNote } from '../reading/gate-note.js';
import { StateLine } from './state-line.js';

type StepOf<Kind extends NextStep['kind']> = { step: Extract<NextStep, { kind: Kind }> };

/** The one thing a step asks for, recorded by one touch; what can be put off has a second key. */
function DoneKey({
  children,
  onDone,
  canWait = true,
}: {
  children: string;
  onDone: () => void;
  canWait?: boolean;
}) {
  const { skip } = useHand();
  return (
    <div className="flex gap-1.5">
      <Button kind="main" className="min-h-14 flex-1 text-lg" onClick={onDone}>
        {children}
      </Button>
      {canWait && <Button onClick={skip}>Later</Button>}
    </div>
  );
}

type Seen = 'lit' | 'dim' | 'dark';

/** The switch was worked and the lamp watched: what it did in each state is told at once. */
export function LampKeys({ step: { loadId, position, far } }: StepOf<'lamp'>) {
  const { record, skip, onBench } = useHand();
  const one = (value: Seen, switches: NonNullable<Entered['switches']>): Entered => ({
    tool: 'lamp',
    points: [loadId],
    value,
    switches,
  });
  const plain = (on: Seen, off: Seen) => () =>
    record(one(on, { [position]: 'on' }), one(off, { [position]: 'off' }));
  const pair = (up: Seen, other: Seen) => () => {
    const at = (here: 'up' | 'down', there: 'up' | 'down') => ({ [position]: here, [far ?? '']: there });
    record(
      one(up, at('up', 'up')),
      one(other, at('down', 'up')),
      one(up, at('down', 'down')),
      one(other, at('up', 'down')),
    );
    onBench({ switches: at('up', 'down') });
  };
  const later = { key: 'later', label: 'Later', hint: 'not watched', onPick: skip };
  const keys =
    far === null
      ? [
          { key: 'follows', label: 'follows it', hint: 'lit, then dark', onPick: plain('lit', 'dark') },
          { key: 'dim', label: 'follows, dim', hint: 'dim, then dark', onPick: plain('dim', 'dark') },
          { key: 'dark', label: 'stays dark', onPick: plain('dark', 'dark') },
          { key: 'lit', label: 'stays lit', onPick: plain('lit', 'lit') },
          later,
        ]
      : [
          { key: 'lit', label: 'lit, changes with each', hint: 'both up: lit', onPick: pair('lit', 'dark') },
          {
            key: 'dark',
            label: 'dark, changes with each',
            hint: 'both up: dark',
            onPick: pair('dark', 'lit'),
          },
          later,
        ];
  return <PickKeys label="The lamp" columns={3} keys={keys} />;
}

export function BreakerKeys({ step: { circuitId, to, handsOff, clips } }: StepOf<'breaker'>) {
  const { known, switched, onBench } = useHand();
  const breaker = known.circuits.get(circuitId)?.breaker ?? circuitId;
  const done = () => {
    if (to === 'on')
      onBench({ ...(handsOff ? { stoodClear: true } : {}), ...(clips.length > 0 ? { clips } : {}) });
    switched(circuitId, to);
  };
  return (
    <>
      {handsOff && (
        <ol className="list-decimal rounded-md border-2 border-live py-1 pr-2 pl-7 leading-tight">
          {HANDS_OFF_STEPS.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ol>
      )}
      <DoneKey onDone={done}>
        {to === 'off' ? `Breaker ${breaker} is off, locked` : onWords(breaker, handsOff, clips.length > 0)}
      </DoneKey>
    </>
  );
}

/** `All clear, clipped, breaker 7 is on`: what the touch says was done. */
function onWords(breaker: string, clear: boolean, clipped: boolean): string {
  const words = [clear && 'all clear', clipped && 'clipped', `breaker ${breaker} is on`]
    .filter(Boolean)
    .join(', ');
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
}

export function ProveKeys({ step: { stage, boxId } }: StepOf<'prove'>) {
  const { box: own, known, powerOfBoxes, skip } = useHand();
  const box = known.boxes.get(boxId ?? own.id);
  const power = powerOfBoxes.find((entry) => entry.boxId === box?.id);
  if (!box || !power) return null;
  return (
    <ProofKeys key={`${box.id}${stage}${power.since}`} box={box} power={power} stage={stage} onLater={skip} />
  );
}

export function StandsKeys({ step: { to, boxId } }: StepOf<'stands'>) {
  const { standsSo } = useHand();
  const done = {
    'in-place': 'It is back in place',
    'device-out': 'Device out, conductors capped',
    parted: 'All apart and capped',
    lifted: 'Lifted and capped',
  }[to.arrangement];
  return <DoneKey onDone={() => standsSo(to, boxId)}>{done}</DoneKey>;
}

export function LoadKeys({ step: { loadId, out: isOut } }: StepOf<'load'>) {
  const { out, onBench } = useHand();
  return (
    <DoneKey onDone={() => onBench({ out: isOut ? [...out, loadId] : out.filter((id) => id !== loadId) })}>
      {isOut ? 'Lamps are out' : 'Lamps are back'}
    </DoneKey>
  );
}

export function SwitchKeys({ step: { key, to } }: StepOf<'switch'>) {
  const { bench, onBench } = useHand();
  return (
    <DoneKey onDone={() => onBench({ switches: { ...bench.switches, [key]: to } })}>{`It is ${to}`}</DoneKey>
  );
}

/** The indicator over all: the conductor that alerts is touched in the drawing, and the rest was quiet. */
export function SweepKeys({ step: { points } }: StepOf<'sweep'>) {
  const { bench, record, onBench, skip } = useHand();
  const { alerted } = bench;
  const told = (alive: readonly string[]) => {
    onBench({ alerted: null });
    record(...sweptReadings(points, alive));
  };
  return (
    <>
      <StateLine />
      {alerted === null ? (
        <div className="grid grid-cols-[1fr_1fr_auto] gap-1.5">
          <Button className="min-h-14" onClick={() => told([])}>
            All {points.length} quiet
          </Button>
          <Button className="min-h-14" onClick={() => onBench({ alerted: [] })}>
            Several alert
          </Button>
          <Button onClick={skip}>Later</Button>
        </div>
      ) : (
        <div className="grid grid-cols-[1fr_auto] gap-1.5">
          <Button
            kind="main"
            className="min-h-14"
            disabled={alerted.length === 0}
            onClick={() => told(alerted)}
          >
            {alerted.length} alert, the other {points.length - alerted.length} quiet
          </Button>
          <Button onClick={() => onBench({ alerted: null })}>Only one</Button>
        </div>
      )}
    </>
  );
}

/** The result of the test that was set up. */
export function ReadKeys({ step: { test } }: StepOf<'read'>) {
  const { box, power, circuits, said, isCurrent, stands, record, skip, bench } = useHand();
  const { job } = useJob();
  const setUp = {
    tool: test.tool,
    arrangement: stands.arrangement,
    ...(stands.position === null ? {} : { position: stands.position }),
    ...(test.lifted.length > 0 ? { lifted: test.lifted } : {}),
  };
  const roleOf = (id: string) => said?.conductors.find((conductor) => conductor.id === id)?.role;
  const gate = readingGate({ box, job, power, circuits }, setUp, roleOf);
  if (gate.kind !== 'open' && !(gate.kind === 'stand-clear' && bench.stoodClear))
    return <GateNote box={box} gate={gate} />;
  const told = (value: Parameters<typeof record>[0]['value']) =>
    record({ tool: test.tool, points: test.points, value, lifted: test.lifted });
  const words = WORD_VALUES[test.tool];
  return (
    <>
      <StateLine />
      <div className="grid grid-cols-[1fr_auto] items-start gap-1.5">
        {words ? (
          <PickKeys
            label="Result"
            columns={words.length}
            disabled={!isCurrent}
            keys={words.map((value) => ({ key: value, label: value, onPick: () => told(value) }))}
          />
        ) : (
          <MeterKeys
            label={test.tool === 'ohms' ? 'Resistance' : 'Voltage'}
            tool={test.tool}
            disabled={!isCurrent}
            onValue={told}
          />
        )}
        <Button className="min-h-13" onClick={skip}>
          Later
        </Button>
      </div>
    </>
  );
}

const WORD_VALUES: Partial<
  Record<string, readonly ('alert' | 'quiet' | 'lit' | 'dim' | 'dark' | 'held' | 'tripped')[]>
> = {
  indicator: ['alert', 'quiet'],
  lamp: ['lit', 'dim', 'dark'],
  breaker: ['held', 'tripped'],
};

/** What the readings prove becomes the installer's labels in one touch. */
export function FlagKeys({ step: { conductorIds } }: StepOf<'flag'>) {
  const { box, known, said, change } = useHand();
  const flag = () =>
    said &&
    change(
      { labels: flagProved(box, known, said.conductors, conductorIds) },
      `Label ${conductorIds.length} proved`,
    );
  return <DoneKey onDone={flag}>{`Label the ${conductorIds.length} proved`}</DoneKey>;
}
