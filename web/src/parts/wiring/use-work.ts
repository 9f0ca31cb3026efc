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
import { useEffect, useMemo, useRef, useState } from 'react';
import type { WiringAnswer } from '../../data/engines.worker.js';
import { felt } from '../../data/felt.js';
import { instant, newId, thisDevice } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import type { Lit } from '../../drawings/wiring/wiring-drawing.js';

/** Forward to what is planned, or back to what was found. */
export type Way = 'planned' | 'found';

/** The wiring in hand: its steps, how far they are, which is looked at, what of the drawing is lit. */
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
  const { job } = useJob();
  const [looked, setLooked] = useState<string | null>(null);
  const [light, setLight] = useState<Lit>(null);
  const isMounted = eventRecord(job).latest('mounted', box.id) !== undefined;
  const sheet = way === 'planned' && answer?.planned ? answer.planned : answer?.found;
  const now: BoxNow | null = useMemo(() => (power ? { job, power, circuits } : null), [job, power, circuits]);
  const progress = useMemo(() => (sheet && now ? wireProgress(sheet.steps, now) : null), [sheet, now]);
  const record = useRecord(box, way);
  const count = progress?.done.size ?? 0;
  const before = useRef(count);
  // What was looked at and is done now, by a proof too, gives way to what comes next.
  useEffect(() => {
    if (count > before.current) setLooked(null);
    before.current = count;
  }, [count]);
  if (!answer || !sheet || !progress || !now) return null;
  const { steps } = sheet;
  const ready = way === 'found' || answer.planned?.wiring.ready === true;
  const step = ready ? (steps.find(({ key }) => key === looked) ?? progress.next) : null;
  const look = (key: string | null) => {
    setLooked(key);
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
    look,
    light: setLight,
    done: (other, note) => {
      record.done(other, note);
      look(null);
    },
    notDone: (other) => {
      record.notDone(progress.done.get(other.key)?.eventId);
      look(other.key);
    },
  };
}

/** Steps as they are done, and taken back. The last one of what was planned closes the box. */
function useRecord(box: Box, way: Way) {
  const { apply } = useJob();
  const event = (kind: string, more: object) => {
    const id = newId();
    return putPart('event', id, { id, kind, at: instant(), by: thisDevice(), ...more });
  };
  return {
    done: (step: WireStep, note: string | undefined) => {
      felt();
      const id = newId();
      const made = { id, at: instant(), by: thisDevice(), ...(note ? { note } : {}) };
      const closes = step.kind === 'plate' && way === 'planned';
      apply(
        [
          putPart('event', id, wiredEvent(box.id, step, made)),
          ...(closes ? [event('mounted', { boxId: box.id })] : []),
        ],
        closes ? `${box.name} wired and mounted` : `A step of wiring ${box.name}`,
      );
    },
    notDone: (of: string | undefined) => {
      if (of) apply([event('correction', { of })], 'A step is not done');
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
