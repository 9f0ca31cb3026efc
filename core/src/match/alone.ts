import type { Device } from '../job/schema/catalogue.js';
import type { Strategy } from '../job/schema/primitives.js';
import { type TerminalNeeds, terminalNeeds } from '../loads/terminal-needs.js';
import type { Reason } from './reason.js';

/**
 * A wireless controller of bulbs needs their line and load to be joined in the box, and so both to be known.
 */
export function needsAlone(device: Device, strategy: Strategy): TerminalNeeds {
  const joins = strategy === 'bulb-controller' && device.bulbController && device.terminals.length === 0;
  return joins ? { line: true, load: true, neutral: false, travelers: 0 } : terminalNeeds(device);
}

const block = (rule: Reason['rule'], code: string): readonly Reason[] => [
  { rule, outcome: 'block', code, facts: {} },
];
const OTHER_WAY = {
  notAController: block('bulb-family', 'bulb-family.not-a-controller'),
  notAModule: block('body', 'body.not-a-module'),
  atTheFitting: block('body', 'body.at-the-fitting'),
  surface: block('body', 'body.surface'),
};

/**
 * Outside a group: a device in a box cannot be a module at the fitting, and only some can keep bulbs on
 * constant power.
 */
export function stoppedAlone(device: Device, strategy: Strategy): readonly Reason[] | undefined {
  if (
    strategy === 'bulb-controller' &&
    !device.bulbController &&
    !device.channels.some((channel) => channel.alwaysOnMode && channel.kind !== 'dimmer')
  )
    return OTHER_WAY.notAController;
  if (strategy === 'module' && device.mount !== 'fitting') return OTHER_WAY.notAModule;
  if (strategy === 'single' && device.mount === 'fitting') return OTHER_WAY.atTheFitting;
  if (strategy === 'single' && device.mount === 'surface') return OTHER_WAY.surface;
  return undefined;
}
