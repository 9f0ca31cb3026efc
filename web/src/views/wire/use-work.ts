import {
  type Box,
  type BoxNow,
  type BoxPower,
  eventRecord,
  putPart,
  stepHinders,
  type WireProgress,
  type WireStep,
  type WiringPicture,
  type WiringToDo,
  wiredEvent,
  wireProgress,
} from '@inventario/core';
import { useMemo, useState } from 'react';
import type { WiringAnswer } from '../../data/engines.worker.js';
import { felt } from '../../data/felt.js';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import type { Lit } from '../../drawings/wiring/wiring-drawing.js';

/** Forward to what is planned, or back to what was found. */
export type Way = 'planned' | 'found';

/** The wiring in hand: its steps, how far they are, which one is looked at, and what of the drawing is lit. */
export interface Work {
  way: Way;
  wiring: WiringToDo;
  picture: WiringPicture;
  steps: readonly WireStep[];
  progress: WireProgress;
  /** The step in hand; null: none is left, or the plan is not ready. */
  step: WireStep | null;
  /** Its number from 1, and how many there are. */
  number: number;
  /** What keeps a hand from it; null: nothing. */
  hinders: ReturnType<typeof stepHinders>;
  lit: Lit;
  /** Ready or not, in a few words. */
  verdict: string;
  isMounted: boolean;
  look: (key: string | null) => void;
  light: (lit: Lit) => void;
  done: (step: WireStep, note?: string) => void;
  notDone: (step: WireStep) => void;
}

export function useWork(
  box: Box,
  answer: WiringAnswer | null,
  { power, circuits, way }: { power: BoxPower | null; circuits: BoxNow['circuits']; way: Way },
): Work | null {
  const { job, apply } = useJob();
  const [looked, setLooked] = useState<string | null>(null);
  const [light, setLight] = useState<Lit>(null);
  const isMounted = eventRecord(job).latest('mounted', box.id) !== undefined;
  const sheet = way === 'planned' && answer?.planned ? answer.planned : answer?.found;
  const now: BoxNow | null = useMemo(() => (power ? { job, power, circuits } : null), [job, power, circuits]);
  const progress = useMemo(() => (sheet && now ? wireProgress(sheet.steps, now) : null), [sheet, now]);
  if (!answer || !sheet || !progress || !now) return null;
  const { steps } = sheet;
  const ready = way === 'found' || answer.planned?.wiring.ready === true;
  const step = ready ? (steps.find(({ key }) => key === looked) ?? progress.next) : null;
  const record = (done: WireStep, note?: string) => {
    felt();
    const id = newId();
    const at = instant();
    const event = wiredEvent(box.id, done, { id, at, ...(note ? { note } : {}) });
    const closes = done.kind === 'plate' && way === 'planned';
    const mounted = newId();
    apply(
      [
        putPart('event', id, event),
        ...(closes
          ? [putPart('event', mounted, { id: mounted, kind: 'mounted', boxId: box.id, at: instant() })]
          : []),
      ],
      closes ? `${box.name} wired and mounted` : `A step of wiring ${box.name}`,
    );
    setLooked(null);
    setLight(null);
  };
  return {
    way,
    wiring: sheet.wiring,
    picture: sheet.picture,
    steps,
    progress,
    step,
    number: step ? steps.indexOf(step) + 1 : 0,
    hinders: step ? stepHinders(step, now) : null,
    lit: light ?? (step ? litBy(step) : null),
    verdict: verdictOf(answer, way, isMounted),
    isMounted,
    look: (key) => {
      setLooked(key);
      setLight(null);
    },
    light: setLight,
    done: record,
    notDone: (other) => {
      const of = progress.done.get(other.key)?.eventId;
      const id = newId();
      if (of)
        apply([putPart('event', id, { id, kind: 'correction', of, at: instant() })], 'A step is not done');
      setLooked(other.key);
    },
  };
}

/** What a step is about; a step of the whole box lights all of it. */
function litBy({ ends, jointId, position }: WireStep): Lit {
  const names = [...ends, ...(jointId === null ? [] : [`joint:${jointId}`])];
  if (names.length > 0) return new Set(names);
  return position === null ? null : new Set([`position-${position}`]);
}

function verdictOf({ planned }: WiringAnswer, way: Way, isMounted: boolean): string {
  if (isMounted) return 'Mounted';
  if (way === 'found') return 'Back as it was found';
  if (!planned) return 'Nothing is chosen for this box';
  if (planned.wiring.ready) return 'Ready: proved in every state';
  return planned.wiring.ok ? 'Proved, and not ready' : 'Not ready';
}
