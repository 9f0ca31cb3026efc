import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';

/** Boxes that groups with choices bind to this one, directly or through others; the box itself first. */
export function boundTogether(box: Box, known: JobLookup): Box[] {
  const bound = new Map([[box.id, box]]);
  for (const entry of bound.values())
    for (const { index } of entry.positions) {
      const group = known.groups.get(placeKey(entry.id, index));
      const chosen = group?.places.some(({ boxId, position }) => {
        const selection = known.selections.get(placeKey(boxId, position));
        return selection !== undefined && selection.strategy !== 'single';
      });
      for (const { boxId } of chosen ? (group?.places ?? []) : []) {
        const other = known.boxes.get(boxId);
        if (other && !bound.has(boxId)) bound.set(boxId, other);
      }
    }
  return [...bound.values()];
}
