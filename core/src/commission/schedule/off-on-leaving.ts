import type { JobLookup } from '../../job/lookup.js';
import { placeKey } from '../../job/lookup.js';
import type { Automation, Target } from '../../job/schema/commissioning.js';
import { radioChannels } from '../../job/targets.js';
import { loadsOfChannel } from '../channel-loads.js';

/**
 * "Everything off on leaving", built from the house: every channel and every plug and bulb that the platform
 * has. Switches that feed smart bulbs stay on, or their bulbs would be lost, and what has to run on by itself
 * (a fan that dries a bath) is left alone.
 * @param lives the platform it is to run on
 */
export function offOnLeaving(known: JobLookup, lives: string, newId: () => string): Automation {
  const channels = radioChannels(known)
    .filter((at) => at.device.platforms.includes(lives))
    .filter((at) => {
      const strategy = known.selections.get(placeKey(at.box.id, at.position.index))?.strategy;
      const loads = loadsOfChannel(known, at);
      if (loads.some(({ kind }) => kind === 'exhaust-fan')) return false;
      return strategy === 'bulb-controller' || !loads.some(({ kind }) => kind === 'smart-bulb');
    })
    .map(
      ({ box, position, channel }): Target => ({
        boxId: box.id,
        position: position.index,
        channel: channel.id,
      }),
    );
  const things = (known.job.things ?? [])
    .filter(({ kind, platforms }) => (kind === 'plug' || kind === 'bulb') && platforms.includes(lives))
    .map(({ id }): Target => ({ thingId: id }));
  return {
    id: newId(),
    name: 'Everything off on leaving',
    lives,
    when: { presence: 'leave' },
    then: [...channels, ...things].map((target) => ({ target, do: 'off' as const })),
  };
}
