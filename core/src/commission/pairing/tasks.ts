import type { EditPart } from '../../job/edit/edit.js';
import { type JobLookup, placeKey, wantsSmart } from '../../job/lookup.js';
import type { Device } from '../../job/schema/catalogue.js';
import type { Pairing, PairingAttempt } from '../../job/schema/commissioning.js';
import type { Box, Position } from '../../job/schema/survey.js';
import { circuitPower } from '../../power/power.js';

/** One channel of one device to be paired. */
export interface PairingTask {
  box: Box;
  position: Position;
  device: Device;
  channel: number;
  channelName: string;
  record: Pairing | undefined;
  state: NonNullable<Pairing['state']>;
}

/**
 * Every channel the chosen devices have to pair, in the order of boxes and positions. Devices without a radio
 * have none.
 */
export function pairingTasks(boxes: readonly Box[], known: JobLookup): PairingTask[] {
  return boxes.flatMap((box) =>
    box.positions.filter(wantsSmart).flatMap((position) => {
      const deviceId = known.selections.get(placeKey(box.id, position.index))?.deviceId;
      const device = deviceId ? known.devices.get(deviceId) : undefined;
      if (!device || device.radio === 'none') return [];
      const channels = device.channels.length > 0 ? device.channels : [{ id: 1, name: 'Controls' }];
      return channels.map((channel): PairingTask => {
        const record = known.job.pairings.find(
          (pairing) =>
            pairing.boxId === box.id &&
            pairing.position === position.index &&
            pairing.channel === channel.id &&
            pairing.deviceId === device.id,
        );
        return {
          box,
          position,
          device,
          channel: channel.id,
          channelName: channel.name ?? `Channel ${channel.id}`,
          record,
          state: record?.state ?? 'waiting',
        };
      });
    }),
  );
}

/** Why pairing cannot be tried now; null when it can. */
export function pairingHindrance(box: Box, known: JobLookup): 'circuit-off' | 'circuit-unknown' | null {
  const states = circuitPower(known.job).filter((entry) => box.circuitIds.includes(entry.circuitId));
  if (states.some((entry) => entry.state === 'off')) return 'circuit-off';
  return states.length === 0 || states.some((entry) => entry.state === 'unknown') ? 'circuit-unknown' : null;
}

/**
 * The parts that record an attempt. The first attempt of a channel makes its record; later ones are added to
 * it, none is lost.
 * @param newId id for a new record
 */
export function recordAttempt(task: PairingTask, attempt: PairingAttempt, newId: () => string): EditPart[] {
  const state = attempt.outcome;
  if (!task.record) {
    const id = newId();
    const put: Pairing = {
      id,
      boxId: task.box.id,
      position: task.position.index,
      deviceId: task.device.id,
      channel: task.channel,
      state,
      attempts: [attempt],
    };
    return [{ kind: 'pairing', id, base: null, put }];
  }
  const { id } = task.record;
  return [
    { kind: 'pairing', id, base: null, append: { attempts: [attempt] } },
    ...(task.record.state === state
      ? []
      : [
          {
            kind: 'pairing' as const,
            id,
            base: null,
            set: { state: { was: task.record.state, now: state } },
          },
        ]),
  ];
}
