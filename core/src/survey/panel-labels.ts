import { eventRecord } from '../job/events.js';
import { roomsInOrder } from '../job/lookup.js';
import type { Circuit, Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';

/** What a breaker is said to feed, and what it was proved to. */
export interface PanelLabel {
  /** As it stands in the panel. */
  asFound: string;
  /** Boxes traced to this breaker, or whose line is labelled as its. */
  proved: Box[];
  /** Boxes that are only said to be on it. */
  supposed: Box[];
  /** Rooms wholly on this breaker by proof, then single boxes; null: nothing was proved. */
  asProved: string | null;
}

/** The record that a box was found to go dead with a breaker alone. */
export function tracedEvent(boxId: string, circuitId: string, made: { id: string; at: string }) {
  return { kind: 'traced', boxId, circuitId, ...made };
}

export function panelLabel(circuit: Circuit, job: Job): PanelLabel {
  const record = eventRecord(job);
  const isTraced = (box: Box) =>
    record.standing('traced', box.id).some(({ event }) => event.circuitId === circuit.id);
  const isProved = (box: Box) =>
    isTraced(box) || box.labels.some((label) => label.role === 'line' && label.circuitId === circuit.id);
  const on = job.boxes.filter((box) => box.circuitIds.includes(circuit.id));
  const proved = on.filter(isProved);
  const names = roomsInOrder(job).flatMap((room) => {
    const own = proved.filter((box) => box.roomId === room.id);
    const whole =
      own.length > 0 &&
      job.boxes.every(
        (box) => box.roomId !== room.id || (proved.includes(box) && box.circuitIds.length === 1),
      );
    return whole ? [room.name] : own.map((box) => box.name);
  });
  return {
    asFound: circuit.label,
    proved,
    supposed: on.filter((box) => !proved.includes(box)),
    asProved: names.length > 0 ? names.join('; ') : null,
  };
}
