import type { EditPart } from '../job/edit/edit.js';
import { putPart, removePart, setParts } from '../job/edit/parts.js';
import { placeKey } from '../job/lookup.js';
import type { Group, Job } from '../job/schema/job.js';
import type { Box, Position } from '../job/schema/survey.js';

interface Place {
  boxId: string;
  position: number;
}

/** Other places that work a load of this position: they may work it together. */
export function placesOfSameLoad(job: Job, box: Box, position: Position): Place[] {
  const own = placeKey(box.id, position.index);
  return job.boxes.flatMap((other) =>
    other.positions
      .filter(
        ({ index, loadIds }) =>
          placeKey(other.id, index) !== own && loadIds.some((id) => position.loadIds.includes(id)),
      )
      .map(({ index }) => ({ boxId: other.id, position: index })),
  );
}

/** The edit by which a position works its loads together with others: in their group, or in a new one. */
export function joinGroupParts(
  job: Job,
  here: Place & { loadIds: string[] },
  others: readonly Place[],
  newId: () => string,
): EditPart[] {
  const own = { boxId: here.boxId, position: here.position };
  const keys = new Set(others.map(({ boxId, position }) => placeKey(boxId, position)));
  const group = job.groups.find(({ places }) =>
    places.some(({ boxId, position }) => keys.has(placeKey(boxId, position))),
  );
  if (group) return setParts('group', group.id, group, { places: [...group.places, own] });
  const id = newId();
  return [putPart('group', id, { id, loadIds: here.loadIds, places: [own, ...others] })];
}

/** The edit by which a place leaves its group; with one left the group ends, and labels lose its name. */
export function leaveGroupParts(job: Job, group: Group, here: Place): EditPart[] {
  const own = placeKey(here.boxId, here.position);
  const places = group.places.filter(({ boxId, position }) => placeKey(boxId, position) !== own);
  if (places.length >= 2) return setParts('group', group.id, group, { places });
  return [
    removePart('group', group.id),
    ...job.boxes.flatMap((box) =>
      setParts('box', box.id, box, {
        labels: box.labels.map((label) => {
          if (label.groupId !== group.id) return label;
          const { groupId, ...rest } = label;
          return rest;
        }),
      }),
    ),
  ];
}
