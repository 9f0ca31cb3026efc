import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { PlanChoice } from './vocabulary.js';

export const OUTAGES = ['internet', 'server', 'hub', 'router'] as const;
/** `server`: the maker's, with the internet there. */
export type Outage = (typeof OUTAGES)[number];

/** Places of a plan by what is left of them while something is out. */
export interface OutageReport {
  outage: Outage;
  /** Wall and app, in the house. */
  full: number;
  /** From the wall as ever, and nothing else. */
  wallOnly: number;
  /** A wall control here reaches nothing. */
  dead: { boxId: string; position: number }[];
}

/** What still works without the internet, the maker's server, the hub, the router. */
export function outagesOf(choices: readonly PlanChoice[], known: JobLookup): OutageReport[] {
  return OUTAGES.map((outage) => {
    const report: OutageReport = { outage, full: 0, wallOnly: 0, dead: [] };
    for (const choice of choices) {
      const device = known.devices.get(choice.deviceId ?? '');
      if (!device) continue;
      const left = leftOf(device, choice, outage, known);
      if (left === 'full') report.full += 1;
      else if (left === 'wall') report.wallOnly += 1;
      else report.dead.push({ boxId: choice.boxId, position: choice.position });
    }
    return report;
  });
}

function leftOf(
  device: Device,
  choice: PlanChoice,
  outage: Outage,
  known: JobLookup,
): 'full' | 'wall' | 'none' {
  // A companion is an arm of its main device, over a wire.
  if (device.radio === 'none') return 'wall';
  const byRadioOnly = switchesNothing(device, choice, known);
  switch (outage) {
    case 'hub':
      return device.hubId === undefined ? 'full' : byRadioOnly ? 'none' : 'wall';
    case 'router':
      if (device.radio === 'wifi') return byRadioOnly ? 'none' : 'wall';
      return device.hubId === undefined ? 'full' : 'wall';
    default:
      return device.control === 'local' || device.control === 'both' ? 'full' : byRadioOnly ? 'none' : 'wall';
  }
}

/** What it does goes over the air alone: a controller of bulbs, or the far end of a linked pair. */
function switchesNothing(device: Device, choice: PlanChoice, known: JobLookup): boolean {
  if (!device.terminals.some((terminal) => terminal.role === 'load')) return true;
  if (choice.strategy !== 'linked') return false;
  const box = known.boxes.get(choice.boxId);
  const group = known.groups.get(placeKey(choice.boxId, choice.position));
  const loads = new Set(group?.loadIds);
  return !box?.labels.some((label) => label.role === 'load' && label.loadIds?.some((id) => loads.has(id)));
}
