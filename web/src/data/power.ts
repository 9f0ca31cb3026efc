import {
  type BoxPower,
  type ConfirmedRole,
  type Job,
  type JobPower,
  KeptWhile,
  powerOf,
  powerOfBox,
  sameEntries,
} from '@inventario/core';
import { useSyncExternalStore } from 'react';
import { useConfirmed, useJob } from './job-context.js';

/** Ages of proofs are looked at once a minute. */
const MINUTE = 60_000;
const minute = () => Math.floor(Date.now() / MINUTE) * MINUTE;
const everyMinute = (tell: () => void) => {
  const timer = setInterval(tell, MINUTE);
  return () => clearInterval(timer);
};

interface Kept {
  at: number;
  confirmed: ConfirmedBoxes;
  whole: JobPower | null;
  boxes: Map<string, BoxPower>;
}
type ConfirmedBoxes = ReadonlyMap<string, ReadonlyMap<string, ConfirmedRole>>;

const kept = new KeptWhile<Job, Kept>(sameEntries);

function keptFor(job: Job, at: number, confirmed: ConfirmedBoxes): Kept {
  return kept.of(job, [at, confirmed], () => ({ at, confirmed, whole: null, boxes: new Map() }));
}

const NONE: ReadonlyMap<string, ConfirmedRole> = new Map();
const options = ({ at, confirmed }: Kept) => ({
  now: at,
  confirmedOf: (box: { id: string }) => confirmed.get(box.id) ?? NONE,
});

/** What is on, proved, hindered and open at one box now; one answer for all who ask. */
export function useBoxPower(boxId: string | undefined): BoxPower | null {
  const { job, known } = useJob();
  const entry = keptFor(job, useSyncExternalStore(everyMinute, minute), useConfirmed());
  const box = known.boxes.get(boxId ?? '');
  if (!box) return null;
  let power = entry.whole?.boxes.find((other) => other.boxId === box.id) ?? entry.boxes.get(box.id);
  if (!power) {
    power = powerOfBox(job, box, options(entry));
    entry.boxes.set(box.id, power);
  }
  return power;
}

/** The same for the whole job. */
export function useJobPower(): JobPower {
  const { job } = useJob();
  const entry = keptFor(job, useSyncExternalStore(everyMinute, minute), useConfirmed());
  entry.whole ??= powerOf(job, options(entry));
  return entry.whole;
}
