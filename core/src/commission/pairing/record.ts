import type { EditPart } from '../../job/edit/edit.js';
import { putPart, setParts } from '../../job/edit/parts.js';
import type { Pairing, PairingAttempt, PairingMark } from '../../job/schema/commissioning.js';
import type { Job } from '../../job/schema/job.js';
import type { ChosenChannel } from '../../job/targets.js';

type Which = Pick<ChosenChannel, 'box' | 'position' | 'device' | 'channel'>;

/** What was recorded of one channel of the device that is chosen for its place now. */
export function pairingOf(job: Job, { box, position, device, channel }: Which): Pairing | undefined {
  return job.pairings.findLast(
    (pairing) =>
      pairing.boxId === box.id &&
      pairing.position === position.index &&
      pairing.channel === channel.id &&
      pairing.deviceId === device.id,
  );
}

/** What is added to the record of a channel. The lists are appended to and never rewritten. */
export interface Addition {
  attempts?: PairingAttempt[];
  marks?: PairingMark[];
  reached?: NonNullable<Pairing['reached']>;
  tried?: NonNullable<Pairing['tried']>;
  settings?: NonNullable<Pairing['settings']>;
  trim?: NonNullable<Pairing['trim']>;
}

/**
 * The parts that add to the record of a channel; the first addition makes the record.
 * @param newId makes the id of a record that is new
 */
export function additionParts(
  at: Which & { record: Pairing | undefined },
  addition: Addition,
  newId: () => string,
): EditPart[] {
  const state = stateAfter(addition);
  if (!at.record) {
    const id = newId();
    const record: Pairing = {
      id,
      boxId: at.box.id,
      position: at.position.index,
      deviceId: at.device.id,
      channel: at.channel.id,
      state: state ?? 'waiting',
      attempts: [],
      ...addition,
    };
    return [putPart('pairing', id, record)];
  }
  const { record } = at;
  return [
    { kind: 'pairing', id: record.id, base: null, append: { ...addition } as EditPart['append'] & object },
    ...(state ? setParts('pairing', record.id, record, { state }) : []),
  ];
}

/** What other programs are told by the one word of `state`. */
function stateAfter({ attempts, marks }: Addition): Pairing['state'] | null {
  const attempt = attempts?.at(-1);
  if (attempt) return attempt.outcome;
  const mark = marks?.at(-1)?.what;
  if (mark === 'parked') return 'parked';
  return mark === 'resumed' || mark === 'reset' ? 'waiting' : null;
}

/** The parts that name a channel; an empty name takes it away. */
export function namingParts(
  at: Which & { record: Pairing | undefined },
  change: Pick<Pairing, 'name' | 'names'>,
  newId: () => string,
): EditPart[] {
  if (at.record) return setParts('pairing', at.record.id, at.record, change);
  const id = newId();
  return [
    putPart('pairing', id, {
      id,
      boxId: at.box.id,
      position: at.position.index,
      deviceId: at.device.id,
      channel: at.channel.id,
      state: 'waiting',
      attempts: [],
      ...change,
    }),
  ];
}
