import type { Job } from '../schema/job.js';
import type { Box } from '../schema/survey.js';
import type { EditPart } from './edit.js';
import { putPart, removePart, setParts } from './parts.js';

/**
 * The parts of one edit that takes a record out together with what hangs on it: a room with its boxes and
 * loads, a box with its selections, pairings, cable runs and events, a circuit or a load out of everything
 * that names it.
 */
export function removalOf(job: Job, kind: 'room' | 'box' | 'circuit' | 'load', id: string): EditPart[] {
  const boxes = new Set(
    kind === 'box'
      ? [id]
      : kind === 'room'
        ? job.boxes.filter((box) => box.roomId === id).map((box) => box.id)
        : [],
  );
  const loads = new Set(
    kind === 'load'
      ? [id]
      : kind === 'room'
        ? job.loads.filter((load) => load.roomId === id).map((load) => load.id)
        : [],
  );
  const circuits = new Set(kind === 'circuit' ? [id] : []);
  return [
    ...removedPlaces(job, boxes),
    ...freedSelections(job, boxes, loads),
    ...freedBrief(job, { boxes, circuits, roomId: kind === 'room' ? id : undefined }),
    ...freedControls(job, boxes, loads, kind === 'room' ? id : undefined),
    ...freedBoxes(job, boxes, loads, circuits),
    ...groups(job, boxes, loads),
    ...job.circuits
      .filter(
        (circuit) =>
          circuit.sharesNeutralWith?.some((other) => circuits.has(other)) && !circuits.has(circuit.id),
      )
      .map((circuit) =>
        putPart('circuit', circuit.id, {
          ...circuit,
          sharesNeutralWith: circuit.sharesNeutralWith?.filter((other) => !circuits.has(other)),
        }),
      ),
    ...(job.runs ?? [])
      .filter((run) =>
        run.ends.some(
          (end) =>
            loads.has(end.loadId ?? '') || circuits.has(end.circuitId ?? '') || boxes.has(end.boxId ?? ''),
        ),
      )
      .map((run) => removePart('run', run.id)),
    ...[...boxes].map((box) => removePart('box', box)),
    ...[...loads].map((load) => removePart('load', load)),
    ...[...circuits].map((circuit) => removePart('circuit', circuit)),
    // After what they speak of, which is when the reducer lets events go.
    ...job.events
      .filter(
        (event) =>
          event.id !== undefined && (boxes.has(event.boxId ?? '') || circuits.has(event.circuitId ?? '')),
      )
      .map((event) => removePart('event', event.id as string)),
    ...(kind === 'room' ? [removePart('room', id)] : []),
  ];
}

function removedPlaces(job: Job, boxes: ReadonlySet<string>): EditPart[] {
  return [
    ...job.selections
      .filter((selection) => boxes.has(selection.boxId))
      .map((selection) => removePart('selection', `${selection.boxId}/${selection.position}`)),
    ...job.pairings
      .filter((pairing) => boxes.has(pairing.boxId))
      .map((pairing) => removePart('pairing', pairing.id)),
    ...job.photos
      .filter((photo) => photo.id !== undefined && boxes.has(photo.boxId ?? ''))
      .map((photo) => removePart('photo', photo.id as string)),
  ];
}

/** Choices that stay but say which channel feeds a load that goes. */
function freedSelections(job: Job, boxes: ReadonlySet<string>, loads: ReadonlySet<string>): EditPart[] {
  return job.selections.flatMap((selection) => {
    const { channels = {}, ...rest } = selection;
    const left = Object.entries(channels).filter(([, load]) => !loads.has(load));
    if (boxes.has(selection.boxId) || left.length === Object.keys(channels).length) return [];
    const now = left.length > 0 ? { ...rest, channels: Object.fromEntries(left) } : rest;
    return [putPart('selection', `${selection.boxId}/${selection.position}`, now)];
  });
}

/** What the brief says of places and rooms that go. */
function freedBrief(
  job: Job,
  gone: { boxes: ReadonlySet<string>; circuits: ReadonlySet<string>; roomId: string | undefined },
): EditPart[] {
  const { boxes, circuits, roomId } = gone;
  const { brief } = job;
  if (!brief) return [];
  const now = { ...brief };
  if (brief.hubRooms)
    now.hubRooms = Object.fromEntries(Object.entries(brief.hubRooms).filter(([, room]) => room !== roomId));
  if (roomId !== undefined && brief.wifi?.routerRoom === roomId) {
    const { routerRoom: _, ...wifi } = brief.wifi;
    now.wifi = wifi;
  }
  if (circuits.has(brief.wifi?.routerCircuit ?? '')) {
    const { routerCircuit: _, ...wifi } = now.wifi ?? {};
    now.wifi = wifi;
  }
  if (brief.pins) now.pins = brief.pins.filter((pin) => !boxes.has(pin.boxId));
  if (brief.bans) now.bans = brief.bans.filter((ban) => !boxes.has(ban.boxId ?? ''));
  return setParts('job', job.id, job, { brief: now });
}

/** Controls in a room that goes go with it; others lose what they worked there. */
function freedControls(
  job: Job,
  boxes: ReadonlySet<string>,
  loads: ReadonlySet<string>,
  roomId: string | undefined,
): EditPart[] {
  return (job.controlPoints ?? []).flatMap((point) => {
    if (point.roomId === roomId) return [removePart('controlPoint', point.id)];
    const targets = point.targets.filter(
      (target) => !boxes.has(target.boxId ?? '') && !loads.has(target.loadId ?? ''),
    );
    return targets.length === point.targets.length
      ? []
      : [putPart('controlPoint', point.id, { ...point, targets })];
  });
}

/**
 * Boxes that stay but name something that goes. Readings taken with it go too: they would speak of nothing.
 */
function freedBoxes(
  job: Job,
  boxes: ReadonlySet<string>,
  loads: ReadonlySet<string>,
  circuits: ReadonlySet<string>,
): EditPart[] {
  const names = (record: Record<string, unknown> | undefined, gone: ReadonlySet<string>) =>
    Object.keys(record ?? {}).some((key) => gone.has(key));
  const parts: EditPart[] = [];
  for (const box of job.boxes) {
    if (boxes.has(box.id)) continue;
    const next: Box = {
      ...box,
      circuitIds: box.circuitIds.filter((id) => !circuits.has(id)),
      positions: box.positions.map((position) => ({
        ...position,
        loadIds: position.loadIds.filter((id) => !loads.has(id)),
      })),
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
          !reading.points.some(
            (point) => loads.has(point) || circuits.has(point) || boxes.has(point.split('/')[0] ?? ''),
          ),
      ),
    };
    if (JSON.stringify(next) !== JSON.stringify(box)) parts.push(putPart('box', next.id, next));
  }
  return parts;
}

function groups(job: Job, boxes: ReadonlySet<string>, loads: ReadonlySet<string>): EditPart[] {
  return job.groups
    .filter(
      (group) =>
        group.places.some((place) => boxes.has(place.boxId)) || group.loadIds.some((id) => loads.has(id)),
    )
    .map((group) => ({
      ...group,
      places: group.places.filter((place) => !boxes.has(place.boxId)),
      loadIds: group.loadIds.filter((id) => !loads.has(id)),
    }))
    .map((group) => putPart('group', group.id, group));
}
