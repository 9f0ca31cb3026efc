import { settledBox } from '../identify/settled.js';
import { untoldCores } from '../job/conductors.js';
import { type JobLookup, labelsOf, lookup, placeKey } from '../job/lookup.js';
import type { Box, Label } from '../job/schema/survey.js';

/**
 * A device that takes line and load either way is wired before anybody knows which is which. For the model
 * one of them is the line and the other the load, whichever: it behaves the same. What is labelled stays so.
 */
export function withEitherWayAssumed(
  { boxId, position }: { boxId: string; position: number },
  known: JobLookup,
): JobLookup {
  const box = known.boxes.get(boxId);
  const device = known.devices.get(known.selections.get(placeKey(boxId, position))?.deviceId ?? '');
  const labels = box && device?.interchangeableLineLoad ? assumedLabels(box, position, known) : [];
  if (!box || labels.length === 0) return known;
  const told = new Set(labels.map(({ conductorId }) => conductorId));
  const assumed: Box = {
    ...box,
    labels: [...box.labels.filter(({ conductorId }) => !told.has(conductorId)), ...labels],
  };
  return lookup({ ...known.job, boxes: known.job.boxes.map((other) => (other === box ? assumed : other)) });
}

function assumedLabels(box: Box, index: number, known: JobLookup): Label[] {
  const [circuitId, ...others] = box.circuitIds;
  const loadIds = box.positions.find((position) => position.index === index)?.loadIds ?? [];
  const settled = settledBox(box, known).box;
  const here = settled.conductors.filter(
    ({ at, ends }) => at?.position === index || ends?.some((end) => end.position === index),
  );
  const unknown = untoldCores(settled).filter((core) => here.some(({ id }) => id === core.id));
  if (circuitId === undefined || others.length > 0 || loadIds.length === 0) return [];
  const roles = new Set(here.map(({ id }) => labelsOf(settled).get(id)?.role));
  const line = (conductorId: string): Label => ({ conductorId, role: 'line', circuitId });
  const load = (conductorId: string): Label => ({ conductorId, role: 'load', loadIds });
  const [one, other] = unknown;
  if (unknown.length === 2 && one && other) return [line(one.id), load(other.id)];
  if (unknown.length !== 1 || !one) return [];
  if (roles.has('load')) return [line(one.id)];
  return roles.has('line') ? [load(one.id)] : [];
}
