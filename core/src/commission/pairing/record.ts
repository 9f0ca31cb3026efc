import type { Pairing } from '../../job/schema/commissioning.js';
import type { Job } from '../../job/schema/job.js';
import type { ChosenChannel } from '../../job/targets.js';

/** What was recorded of one channel of the device that is chosen for its place now. */
export function pairingOf(
  job: Job,
  { box, position, device, channel }: Pick<ChosenChannel, 'box' | 'position' | 'device' | 'channel'>,
): Pairing | undefined {
  return job.pairings.findLast(
    (pairing) =>
      pairing.boxId === box.id &&
      pairing.position === position.index &&
      pairing.channel === channel.id &&
      pairing.deviceId === device.id,
  );
}
