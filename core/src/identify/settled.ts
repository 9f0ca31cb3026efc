import { withGroups } from '../electrics/found-nets.js';
import { type JobLookup, labelsOf } from '../job/lookup.js';
import type { Box, Label } from '../job/schema/survey.js';
import type { ConfirmedRole } from '../power/instant.js';
import { labelClashes, refutedLabels } from '../power/label-clashes.js';
import { KeptWhile, sameEntries } from '../units/kept.js';
import { confirmedRoles } from './confirmed.js';

/** Why a label is no finding: the readings that confirm another role, or the labels it is joined with. */
export interface Doubt {
  conductorId: string;
  label: Label;
  /** Readings that contradict it; empty where other labels do. */
  readingIds: readonly string[];
  against: 'reading' | 'label';
}

/** A box as its findings stand: labels, and where a conductor has none the role its readings confirm. */
export interface Settled {
  /** With the labels that are findings. */
  box: Box;
  /** With every label there is, trusted or not: what would be found if the doubtful ones held. */
  asLabelled: Box;
  doubts: readonly Doubt[];
}

const kept = new KeptWhile<Box, Settled>(sameEntries);

/**
 * What the findings of a box are. A label that a confirmed reading contradicts, or that cannot stand beside
 * those it is joined with, is none; what needs it is stopped until it is settled.
 */
export function settledBox(box: Box, known: JobLookup): Settled {
  const own = withGroups(box, known);
  const confirmed = confirmedRoles(box, known);
  return kept.of(own, [confirmed, known.job.circuits], () => settle(own, known, confirmed));
}

function settle(box: Box, known: JobLookup, confirmed: ReadonlyMap<string, ConfirmedRole>): Settled {
  const labels = labelsOf(box);
  const doubts = new Map<string, Doubt>();
  for (const { code, conductorIds } of labelClashes(box, known.job))
    for (const conductorId of code === 'contradiction' ? conductorIds : []) {
      const label = labels.get(conductorId);
      if (label) doubts.set(conductorId, { conductorId, label, readingIds: [], against: 'label' });
    }
  for (const { conductorId, label, confirmed: role } of refutedLabels(box, known.job, confirmed))
    doubts.set(conductorId, { conductorId, label, readingIds: role.because, against: 'reading' });
  const told = (conductorId: string) =>
    labels.has(conductorId) && labels.get(conductorId)?.role !== 'unknown';
  const added = [...confirmed].filter(([id]) => !told(id)).map(([id, role]) => labelOf(id, role));
  if (doubts.size === 0 && added.length === 0) return { box, asLabelled: box, doubts: [] };
  const all = [...box.labels.filter(({ conductorId }) => told(conductorId)), ...added];
  const asLabelled = withGroups({ ...box, labels: all }, known);
  const trusted = asLabelled.labels.filter(({ conductorId }) => !doubts.has(conductorId));
  return {
    box: doubts.size === 0 ? asLabelled : { ...asLabelled, labels: trusted },
    asLabelled,
    doubts: [...doubts.values()],
  };
}

function labelOf(conductorId: string, { role, circuitId, loadIds }: ConfirmedRole): Label {
  return {
    conductorId,
    role,
    ...(circuitId === null ? {} : { circuitId }),
    ...(loadIds.length > 0 ? { loadIds: [...loadIds] } : {}),
  };
}
