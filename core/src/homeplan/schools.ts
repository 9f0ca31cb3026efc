import type { Device } from '../job/schema/catalogue.js';
import type { Option, School } from './vocabulary.js';

/** What a school admits, hub sets apart: `one-mesh-hub` further asks that all be on the same hub. */
export function admits(school: School, option: Option, meshHub?: string): boolean {
  const only = (radio: string) =>
    [...option.radios].every((entry) => entry === radio || (radio === 'maker' && entry === 'maker alone'));
  switch (school) {
    case 'no-hub':
      return option.onHub.size === 0;
    case 'one-mesh-hub':
      return only('mesh') && [...option.onHub.keys()].every((hub) => hub === meshHub);
    case 'makers-hub':
      return only('maker');
    default:
      return true;
  }
}

/** The same of one device, its hub left open. */
export function admitsDevice(school: School, device: Device): boolean {
  switch (school) {
    case 'no-hub':
      return device.hubId === undefined;
    case 'one-mesh-hub':
      return device.radio === 'none' || (device.radio === 'mesh' && device.hubId !== undefined);
    case 'makers-hub':
      return device.radio === 'none' || device.radio === 'maker';
    default:
      return true;
  }
}
