import { boxCapacity } from '../enclosure/as-found.js';
import type { Job } from '../job/schema/job.js';
import type { Box, BoxEnclosure } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import { cubicInches, millilitres, rounded } from '../units/volume.js';

/** A box as an answer to "how large is it": one touch takes both figures. */
export interface EnclosureChip {
  /** The box of the job it was read in, or the standard box. */
  from: { boxName: string } | { standard: string };
  capacity: BoxEnclosure['capacity'];
  /** mm */
  depth: number;
  /** mL */
  ml: number;
}

/**
 * What a box of so many gangs is likely to be: first what was read in this job, the most usual first; then
 * the standard list.
 */
export function enclosureChips(box: Box, job: Job): EnclosureChip[] {
  const { gangs, material } = box.enclosure;
  const seen = new Map<string, { chip: EnclosureChip; times: number }>();
  for (const other of job.boxes) {
    const { enclosure } = other;
    const { ml } = boxCapacity({ ...other, enclosure: { ...enclosure, rings: [] } }, job);
    if (other.id === box.id || enclosure.gangs !== gangs || ml === null || enclosure.depth === 0) continue;
    const key = `${Math.round(ml)}/${Math.round(enclosure.depth)}`;
    const chip = { from: { boxName: other.name }, capacity: enclosure.capacity, depth: enclosure.depth, ml };
    const before = seen.get(key);
    seen.set(key, { chip: before?.chip ?? chip, times: (before?.times ?? 0) + 1 });
  }
  const standard = job.catalogue.enclosures
    .filter((entry) => entry.practice === job.practice && entry.gangs === gangs && entry.forDevices !== false)
    .map(
      (entry): EnclosureChip => ({
        from: { standard: entry.name },
        capacity: { from: 'standard', enclosureId: entry.id },
        depth: entry.depth ?? 0,
        ml: millilitres(entry) ?? 0,
      }),
    );
  return [
    ...[...seen.values()].sort((a, b) => b.times - a.times).map(({ chip }) => chip),
    // A plastic box is none of the standard list, which is of metal ones.
    ...(material === 'metal' ? standard : []),
  ];
}

/**
 * Standard boxes of this volume are all of other depths: one of the two figures is probably misread. The list
 * is of metal boxes; a plastic one has whatever its maker gave it.
 */
export function isOddDepth(box: Box, job: Job): boolean {
  const { ml } = boxCapacity({ ...box, enclosure: { ...box.enclosure, rings: [] } }, job);
  const { depth } = box.enclosure;
  if (ml === null || depth === 0 || box.enclosure.material !== 'metal') return false;
  const alike = job.catalogue.enclosures.filter(
    (entry) =>
      entry.practice === job.practice &&
      entry.gangs === box.enclosure.gangs &&
      entry.depth !== undefined &&
      Math.abs((millilitres(entry) ?? 0) - ml) <= VOLUME_STEP,
  );
  return alike.length > 0 && alike.every((entry) => Math.abs((entry.depth ?? 0) - depth) > DEPTH_STEP);
}

/** Volumes this near are one marking, mL; depths this near are one measure, mm. */
const VOLUME_STEP = 1;
const DEPTH_STEP = 6;

/**
 * Volumes usually marked in a box of so many gangs, in the unit of its practice; none where no count applies.
 */
export function usualVolumes(box: Box, job: Job): number[] {
  const { count, volumesIn, usualBoxes } = profileOf(job);
  if (count === null) return [];
  const own = enclosureChips(box, job).map(({ ml }) =>
    rounded(volumesIn === 'in3' ? cubicInches(ml) : ml, volumesIn === 'in3' ? 1 : 0),
  );
  return unique([...own, ...(usualBoxes.volumes[box.enclosure.gangs] ?? [])]);
}

/** Depths a box may have, mm: those of this job's boxes first. */
export function usualDepths(box: Box, job: Job): number[] {
  const own = enclosureChips(box, job).map(({ depth }) => depth);
  return unique([...own, ...profileOf(job).usualBoxes.depths]);
}

const unique = (values: readonly number[]) => [...new Set(values)];
