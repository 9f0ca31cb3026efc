import {
  type Box,
  type BoxInHand,
  boxProgress,
  type EditPart,
  type JobEvent,
  type NextStep,
  nextStep,
  putPart,
  type Reading,
  type Stance,
  showsLife,
  skipKey,
  standsEvent,
  standsNow,
} from '@inventario/core';
import { createContext, useContext, useMemo } from 'react';
import { felt } from '../../../data/felt.js';
import { instant, newId } from '../../../data/ids.js';
import { type LatestIdentified, useHouse, useIdentifiedNow, useJob } from '../../../data/job-context.js';
import { useBoxPower, useJobPower } from '../../../data/power.js';
import { useSay } from '../../../ui/say.js';
import type { ChangeBox } from '../change-box.js';
import { type BenchState, breakersOf, type Entered, readingOf } from './bench-state.js';

/** The box in hand: what is known of it, what is next, and how each thing is recorded. */
export interface Hand extends Omit<BoxInHand, 'said' | 'by'> {
  said: LatestIdentified['identified'];
  /** What the readings say is of the record as it is now. */
  isCurrent: boolean;
  step: NextStep | null;
  bench: BenchState;
  onBench: (more: Partial<BenchState>) => void;
  change: ChangeBox;
  record: (...entered: Entered[]) => void;
  switched: (circuitId: string, state: 'on' | 'off') => void;
  /** @param boxId another box than the one in hand */
  standsSo: (stance: Stance, boxId?: string | null) => void;
  skip: () => void;
}

export function useHandOf(
  box: Box,
  bench: BenchState,
  setBench: (bench: BenchState) => void,
  change: ChangeBox,
): Hand | null {
  const { job, known, apply } = useJob();
  const say = useSay();
  const power = useBoxPower(box.id);
  const { circuits, boxes: powerOfBoxes } = useJobPower();
  const { identified, isCurrent } = useIdentifiedNow(box.id);
  const reckoned = useHouse()?.get(box.id)?.progress;
  const stands = useMemo(() => standsNow(box, job), [box, job]);
  const progress = useMemo(() => reckoned ?? boxProgress(box, known), [reckoned, box, known]);
  const { switches, out, clips, stoodClear, skipped } = bench;
  const by = bench.mode === 'test' ? 'test' : 'eye';
  const inHand = useMemo(
    (): BoxInHand | null =>
      power && {
        box,
        known,
        power,
        circuits,
        powerOfBoxes,
        progress,
        said: isCurrent ? identified : null,
        stands,
        switches,
        out,
        clips,
        stoodClear,
        by,
        skipped,
      },
    [
      box,
      known,
      power,
      circuits,
      powerOfBoxes,
      progress,
      isCurrent,
      identified,
      stands,
      switches,
      out,
      clips,
      stoodClear,
      by,
      skipped,
    ],
  );
  const step = useMemo(() => inHand && nextStep(inHand), [inHand]);
  if (!inHand) return null;
  const onBench = (more: Partial<BenchState>) => setBench({ ...bench, ...more });
  const put = (parts: EditPart[], label: string, of = box) => {
    felt();
    return apply(parts, `${label} (${of.name})`);
  };
  const event = (entry: JobEvent & { id: string }) => putPart('event', entry.id, entry);
  return {
    ...inHand,
    said: identified,
    isCurrent,
    step,
    bench,
    onBench,
    change,
    record: (...entered) => {
      const breakers = breakersOf(job, circuits);
      const at = instant();
      const readings = entered.map((what) =>
        readingOf(box, stands, bench, breakers, { ...what, id: newId(), at }),
      );
      put([appended(box.id, readings)], `Reading: ${saidOf(entered)}`);
      const grown = { ...box, readings: [...box.readings, ...readings] };
      if (readings.some((reading) => showsLife(grown, reading, job)))
        say('Recorded. It is live with its breakers off: stop.');
    },
    switched: (circuitId, state) => {
      const breaker = known.circuits.get(circuitId)?.breaker ?? circuitId;
      put(
        [event({ id: newId(), at: instant(), kind: 'switched', circuitId, state })],
        `Breaker ${breaker} switched ${state}`,
      );
    },
    standsSo: (stance, boxId = null) => {
      const made = { id: newId(), at: instant() };
      const of = known.boxes.get(boxId ?? box.id) ?? box;
      put([event(standsEvent(of.id, stance, made))], STANDS[stance.arrangement], of);
      if (boxId === null) onBench({ clips: [], stoodClear: false });
    },
    skip: () => step && onBench({ skipped: new Set([...skipped, skipKey(inHand, step)]) }),
  };
}

const STANDS: Record<Stance['arrangement'], string> = {
  'in-place': 'Device back in place',
  'device-out': 'Device out',
  parted: 'All joints open',
  lifted: 'A conductor lifted',
};

function appended(boxId: string, readings: readonly Reading[]): EditPart {
  return {
    kind: 'box',
    id: boxId,
    base: null,
    append: { readings: readings as unknown as Record<string, unknown>[] },
  };
}

function saidOf(entered: readonly Entered[]): string {
  const [first] = entered;
  return entered.length === 1 && first ? String(first.value) : `${entered.length} readings`;
}

const HandContext = createContext<Hand | null>(null);
export const HandProvider = HandContext.Provider;

/** The box in hand, for whatever stands around it. */
export function useHand(): Hand {
  const hand = useContext(HandContext);
  if (!hand) throw new Error('useHand is called outside a box: wrap the screen in a HandProvider');
  return hand;
}
