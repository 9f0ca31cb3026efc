import type { Device } from '../job/schema/catalogue.js';

/**
 * What a device is called wherever it is named.
 * @example deviceName({ maker: 'Pellworth', model: 'D2' }) // 'Pellworth D2'
 */
export function deviceName(
  device: Pick<Device, 'maker' | 'model'> | undefined,
  otherwise = 'a device',
): string {
  return device ? `${device.maker} ${device.model}`.trim() : otherwise;
}
