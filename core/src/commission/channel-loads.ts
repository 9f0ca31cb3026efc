import type { JobLookup } from '../job/lookup.js';
import { placeKey } from '../job/lookup.js';
import type { Load } from '../job/schema/job.js';
import type { ChosenChannel } from '../job/targets.js';

/**
 * The loads a channel works, as the record has them: what the selection says, else the position's loads in
 * order, one a channel, and all of them for a single channel. (Which channel a load had best be wired to is
 * asked before that, of the ratings.)
 */
export function loadsOfChannel(
  known: JobLookup,
  { box, position, device, channel }: Pick<ChosenChannel, 'box' | 'position' | 'device' | 'channel'>,
): Load[] {
  const said = known.selections.get(placeKey(box.id, position.index))?.channels;
  const ids = said
    ? [said[String(channel.id)]]
    : device.channels.length === 1
      ? position.loadIds
      : [position.loadIds[device.channels.indexOf(channel)]];
  return ids.flatMap((id) => known.loads.get(id ?? '') ?? []);
}
