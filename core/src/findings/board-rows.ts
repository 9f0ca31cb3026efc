import { deviceName } from '../catalogue/device-name.js';
import { type JobLookup, placeKey } from '../job/lookup.js';
import type { BoxProgress } from '../progress/progress.js';
import { STAGES } from '../progress/stages.js';
import { blockerText } from './words/progress.js';

/**
 * The board as a table for a spreadsheet: one row a box, in walking order, its stages and what blocks each.
 */
export function boardRows(known: JobLookup, boxes: readonly BoxProgress[]): Record<string, string>[] {
  return boxes.map((progress) => {
    const box = known.boxes.get(progress.boxId);
    const devices = (box?.positions ?? []).flatMap((position) => {
      const id = known.selections.get(placeKey(progress.boxId, position.index))?.deviceId;
      const device = id ? known.devices.get(id) : undefined;
      return device ? [`${position.index}: ${deviceName(device)}`] : [];
    });
    return {
      room: known.rooms.get(progress.roomId)?.name ?? '',
      box: box?.name ?? '',
      circuits: (box?.circuitIds ?? []).map((id) => known.circuits.get(id)?.breaker ?? id).join(', '),
      gangs: String(box?.enclosure.gangs ?? ''),
      ...Object.fromEntries(
        STAGES.map((stage) => [
          stage,
          progress.stages[stage] === 'not-wanted' ? 'not wanted' : progress.stages[stage],
        ]),
      ),
      devices: devices.join('; '),
      blockers: progress.blockers.map(blockerText).join('; '),
    };
  });
}
