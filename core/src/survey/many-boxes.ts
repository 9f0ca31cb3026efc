import type { EditPart } from '../job/edit/edit.js';
import { setParts } from '../job/edit/parts.js';
import type { Box, BoxEnclosure } from '../job/schema/survey.js';

/** What is set in several boxes at once; what is absent stays as it is in each. */
export interface ManyBoxes {
  roomId?: string;
  circuitId?: string;
  material?: 'plastic' | 'bonded' | 'unbonded';
  size?: Pick<BoxEnclosure, 'capacity' | 'depth'>;
  plate?: NonNullable<BoxEnclosure['plate']>;
}

/** One edit for all of them; boxes that are so already take no part in it. */
export function manyBoxesParts(boxes: readonly Box[], set: ManyBoxes): EditPart[] {
  return boxes.flatMap((box) => {
    const enclosure: BoxEnclosure = {
      ...box.enclosure,
      ...(set.material
        ? {
            material: set.material === 'plastic' ? ('plastic' as const) : ('metal' as const),
            grounded: set.material === 'bonded',
          }
        : {}),
      ...set.size,
      ...(set.plate ? { plate: set.plate } : {}),
    };
    return setParts('box', box.id, box, {
      enclosure,
      ...(set.roomId ? { roomId: set.roomId } : {}),
      ...(set.circuitId ? { circuitIds: [set.circuitId] } : {}),
    });
  });
}
