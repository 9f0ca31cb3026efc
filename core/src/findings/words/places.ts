import type { ChosenChannel } from '../../job/targets.js';

/** A place by its box, and by its number where the box has several: `Kitchen, 2`. */
export const placeText = ({ box, position }: Pick<ChosenChannel, 'box' | 'position'>): string =>
  box.positions.length > 1 ? `${box.name}, ${position.index}` : box.name;

/** A channel by its place, and by what it is where the device has several: `Kitchen, 2, left key`. */
export const channelText = (at: Pick<ChosenChannel, 'box' | 'position' | 'device' | 'channel'>): string =>
  at.device.channels.length > 1
    ? `${placeText(at)}, ${at.channel.name ?? `channel ${at.channel.id}`}`
    : placeText(at);
