import { type NextStep, stepWords } from '@inventario/core';
import type { ReactNode } from 'react';
import { useHand } from '../hand/use-hand.js';
import { Contradictions } from '../reading/contradictions.js';
import { EndKeys, endTitle } from './end-keys.js';
import { CircuitKeys, ControlsKeys, EnclosureKeys, SignalKeys } from './fact-keys.js';
import { FreeReading } from './free-reading.js';
import { HeldTitle } from './held-title.js';
import { LabelKeys, MarksKeys, SetKeys } from './label-keys.js';
import { OnwardKeys } from './onward-keys.js';
import {
  BreakerKeys,
  FlagKeys,
  LampKeys,
  LoadKeys,
  ProveKeys,
  ReadKeys,
  StandsKeys,
  SweepKeys,
  SwitchKeys,
} from './test-keys.js';

type Keys = { [Kind in NextStep['kind']]?: (step: Extract<NextStep, { kind: Kind }>) => ReactNode };

/** What stands under the words of each step. */
const KEYS: Keys = {
  circuit: (step) => <CircuitKeys step={step} />,
  controls: (step) => <ControlsKeys key={step.position} step={step} />,
  signal: () => <SignalKeys />,
  lamp: (step) => <LampKeys step={step} />,
  breaker: (step) => <BreakerKeys step={step} />,
  prove: (step) => <ProveKeys key={step.stage} step={step} />,
  stands: (step) => <StandsKeys step={step} />,
  load: (step) => <LoadKeys step={step} />,
  switch: (step) => <SwitchKeys step={step} />,
  enclosure: (step) => <EnclosureKeys step={step} />,
  sweep: (step) => <SweepKeys step={step} />,
  read: (step) => <ReadKeys key={step.test.points.join()} step={step} />,
  flag: (step) => <FlagKeys step={step} />,
  marks: (step) => <MarksKeys step={step} />,
  label: (step) => <LabelKeys conductorId={step.conductorId} />,
  set: (step) => <SetKeys step={step} />,
  stop: () => <OnwardKeys />,
  clash: () => <OnwardKeys />,
  contents: () => <OnwardKeys />,
  onward: () => <OnwardKeys />,
  done: () => <OnwardKeys />,
};

/** The line of the bar: the one next step, or what is in hand. */
export function StepHead() {
  const { box, known, step, bench } = useHand();
  if (bench.mode === 'ends') return <Title does={endTitle(box, bench, known.job)} />;
  if (bench.held) return <HeldTitle conductorId={bench.held} />;
  if (!step) return <Title does="The readings are being weighed …" />;
  return <Title {...stepWords(step, box, known)} />;
}

function Title({ does, how }: { does: string; how?: string }) {
  return (
    <p role="status" className="leading-tight">
      <span className="block text-lg leading-tight font-bold">{does}</span>
      {how && <span className="block text-sm text-soft">{how}</span>}
    </p>
  );
}

/** The keys of the bar: each records its result and steps on. */
export function StepKeys() {
  const { said, step, bench } = useHand();
  if (bench.mode === 'ends') return <EndKeys />;
  if (bench.held)
    return bench.mode === 'label' ? <LabelKeys conductorId={bench.held} /> : <FreeReading key={bench.held} />;
  if (!step) return null;
  const keys = KEYS[step.kind] as ((step: NextStep) => ReactNode) | undefined;
  return (
    <>
      <div className="flex flex-col gap-2 empty:hidden lg:hidden">
        <Contradictions folded conflicts={said?.conflicts.filter(({ open }) => open) ?? []} />
      </div>
      {keys?.(step)}
    </>
  );
}
