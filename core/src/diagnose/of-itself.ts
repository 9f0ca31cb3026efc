import { LAMP_KINDS } from '../loads/lamp-kinds.js';
import { deviceKey, type Slip } from './copper.js';
import type { Scene } from './scene.js';
import type { FaultCause, Shows } from './vocabulary.js';

/** A fault that is not of the wiring: of the device, its settings, its lamps, or what is felt. */
interface OfItself {
  cause: FaultCause;
  position: number | null;
  /** What it comes to on the model, where it does. */
  slip?: Slip;
  /** What it shows otherwise, over what a sound box shows. */
  shows?: (healthy: Shows) => Shows;
}

/** Faults that lie in a device, its settings or its lamps, as far as this place can have them. */
export function ofItself(scene: Scene): OfItself[] {
  const { own, known } = scene;
  const { position, device } = own;
  const key = deviceKey(own);
  const loads = own.channels.flatMap(({ loadIds }) => loadIds.flatMap((id) => known.loads.get(id) ?? []));
  const lamps = loads.filter(({ kind }) => LAMP_KINDS.has(kind));
  const kinds = new Set(device.channels.map(({ kind }) => kind));
  const works = own.channels.length > 0;
  const dims = kinds.has('dimmer') && lamps.length > 0;
  const least = device.channels.some(({ minWatts = 0 }) => minWatts > 0);
  const bypass = device.channels.some(({ bypassPartId }) => bypassPartId !== undefined);
  const faults: (OfItself | false)[] = [
    { cause: 'cut-out-pulled', position, slip: { dead: { key, contacts: 'open' } } },
    { cause: 'device-dead', position, slip: { dead: { key, contacts: 'open' } } },
    works && { cause: 'device-dead', position, slip: { dead: { key, contacts: 'shut' } } },
    works && kinds.has('relay') && { cause: 'relay-welded', position, slip: { welded: key } },
    works && {
      cause: 'power-on-state',
      position,
      shows: (healthy) => ({ ...healthy, control: ['ok'], load: ['follows', 'on', 'off'] }),
    },
    lamps.length > 0 &&
      lamps.length === loads.length && {
        cause: 'lamp-out',
        position,
        slip: { lampsOut: lamps.map(({ id }) => id) },
      },
    ...(dims ? dimmedWrong(position) : []),
    works &&
      (own.twoWire || least) && {
        cause: 'below-minimum',
        position,
        shows: (healthy) => ({
          ...healthy,
          indicator: ['on', 'blink'],
          load: ['flicker', 'glow', 'follows'],
          restarts: ['yes', 'no'],
        }),
      },
    works &&
      (own.twoWire || bypass) && {
        cause: 'bypass-missing',
        position,
        shows: (healthy) => ({ ...healthy, load: ['glow', 'flicker'], restarts: ['yes', 'no'] }),
      },
    { cause: 'behind-device', position, shows: (healthy) => ({ ...healthy, feel: ['tilted'] }) },
    { cause: 'danger', position: null, shows: () => NOTHING_BUT_DANGER },
  ];
  return faults.filter((fault): fault is OfItself => fault !== false);
}

/** What comes of lamps and settings that do not suit a dimmer. */
function dimmedWrong(position: number): OfItself[] {
  const unsteady: OfItself['shows'] = (healthy) => ({ ...healthy, load: ['flicker', 'dim', 'glow'] });
  return [
    { cause: 'lamp-not-dimmable', position, shows: unsteady },
    { cause: 'bulb-type-wrong', position, shows: unsteady },
    {
      cause: 'low-end-too-low',
      position,
      shows: (healthy) => ({ ...healthy, load: ['flicker', 'off'] }),
    },
  ];
}

const NOTHING_BUT_DANGER: Shows = {
  indicator: null,
  control: null,
  load: null,
  neighbour: null,
  breaker: null,
  far: null,
  feel: ['heat', 'crackle', 'tingle'],
  restarts: null,
};
