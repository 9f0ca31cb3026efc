import type { Job } from '../schema/job.js';
import type { Box } from '../schema/survey.js';
import type { EditPart } from './edit.js';
import { putPart, removePart } from './parts.js';

/**
 * The parts of one edit that takes a record out together with what hangs on it: a room with its boxes and loads, a box with its
 * selections, pairings, cable runs and events, a circuit or a load out of everything that names it.
 */
export function removalOf(job: Job, kind: 'room' | 'box' | 'circuit' | 'load', id: string): EditPart[] {
  const boxes = new Set(kind === 'box' ? [id] : kind === 'room' ? job.boxes.filter((box) => box.roomId === id).map((box) => box.id) : []);
  const loads = new Set(
    kind === 'load' ? [id] : kind === 'room' ? job.loads.filter((load) => load.roomId === id).map((load) => load.id) : [],
  );
  const circuits = new Set(kind === 'circuit' ? [id] : []);
  return [
    ...removedPlaces(job, boxes),
    ...freedBoxes(job, boxes, loads, circuits),
    ...groups(job, boxes, loads),
    ...job.circuits
      .filter((circuit) => circuit.sharesNeutralWith?.some((other) => circuits.has(other)) && !circuits.has(circuit.id))
      .map((circuit) =>
        putPart('circuit', circuit.id, {
          ...circuit,
          sharesNeutralWith: circuit.sharesNeutralWith?.filter((other) => !circuits.has(other)),
        }),
      ),
    ...(job.runs ?? [])
      .filter((run) =>
        run.ends.some((end) => loads.has(end.loadId ?? '') || circuits.has(end.circuitId ?? '') || boxes.has(end.boxId ?? '')),
      )
      .map((run) => removePart('run', run.id)),
    ...[...boxes].map((box) => removePart('box', box)),
    ...[...loads].map((load) => removePart('load', load)),
    ...[...circuits].map((circuit) => removePart('circuit', circuit)),
    // After what they speak of, which is when the reducer lets events go.
    ...job.events
      .filter((event) => event.id !== undefined && (boxes.has(event.boxId ?? '') || circuits.has(event.circuitId ?? '')))
      .map((event) => removePart('event', event.id as string)),
    ...(kind === 'room' ? [removePart('room', id)] : []),
  ];
}

function removedPlaces(job: Job, boxes: ReadonlySet<string>): EditPart[] {
  return [
    ...job.selections
      .filter((selection) => boxes.has(selection.boxId))
      .map((selection) => removePart('selection', `${selection.boxId}/${selection.position}`)),
    ...job.pairings.filter((pairing) => boxes.has(pairing.boxId)).map((pairing) => removePart('pairing', pairing.id)),
    ...job.photos
      .filter((photo) => photo.id !== undefined && boxes.has(photo.boxId ?? ''))
      .map((photo) => removePart('photo', photo.id as string)),
  ];
}

/** Boxes that stay but name something that goes. Readings taken with it go too: they would speak of nothing. */
function freedBoxes(job: Job, boxes: ReadonlySet<string>, loads: ReadonlySet<string>, circuits: ReadonlySet<string>): EditPart[] {
  const names = (record: Record<string, unknown> | undefined, gone: ReadonlySet<string>) =>
    Object.keys(record ?? {}).some((key) => gone.has(key));
  const parts: EditPart[] = [];
  for (const box of job.boxes) {
    if (boxes.has(box.id)) continue;
    const next: Box = {
      ...box,
      circuitIds: box.circuitIds.filter((id) => !circuits.has(id)),
      positions: box.positions.map((position) => ({ ...position, loadIds: position.loadIds.filter((id) => !loads.has(id)) })),
      labels: box.labels
        .filter((label) => !label.loadIds?.length || label.loadIds.some((id) => !loads.has(id)))
        .map((label) => {
          const { circuitId, ...rest } = label;
          return {
            ...rest,
            ...(circuitId === undefined || circuits.has(circuitId) ? {} : { circuitId }),
            ...(label.loadIds ? { loadIds: label.loadIds.filter((id) => !loads.has(id)) } : {}),
          };
        }),
      readings: box.readings.filter(
        (reading) =>
          !names(reading.loads, loads) &&
          !names(reading.breakers, circuits) &&
          !names(reading.boxes, boxes) &&
          !Object.keys(reading.switches ?? {}).some((key) => boxes.has(key.split('/')[0] ?? '')) &&
          !reading.points.some((point) => loads.has(point) || circuits.has(point) || boxes.has(point.split('/')[0] ?? '')),
      ),
    };
    if (JSON.stringify(next) !== JSON.stringify(box)) parts.push(putPart('box', next.id, next));
  }
  return parts;
}

function groups(job: Job, boxes: ReadonlySet<string>, loads: ReadonlySet<string>): EditPart[] {
  return job.groups
    .filter((group) => group.places.some((place) => boxes.has(place.boxId)) || group.loadIds.some((id) => loads.has(id)))
    .map((group) => ({
      ...group,
      places: group.places.filter((place) => !boxes.has(place.boxId)),
      loadIds: group.loadIds.filter((id) => !loads.has(id)),
    }))
    .map((group) => putPart('group', group.id, group));
}
