import type { Job } from '../../job/schema/job.js';
import type { Box } from '../../job/schema/survey.js';
import type { LabelClash, RefutedLabel } from '../../power/label-clashes.js';
import { profileOf } from '../../practice/profiles.js';
import { conductorWords } from '../../survey/conductor-names.js';
import { listed } from './stops.js';

/**
 * `the white of feed (neutral) and the white of onward (line on) are joined, and cannot all be what their
 * labels say`
 */
export function clashText({ code, conductorIds, circuitIds }: LabelClash, box: Box, job: Job): string {
  const who = listed(conductorIds.map((id) => `${conductorWords(box, id, job)} (${roleText(box, id, job)})`));
  const breakers = listed(
    circuitIds.map((id) => job.circuits.find((circuit) => circuit.id === id)?.breaker ?? id),
  );
  return {
    contradiction: `${who} are joined, and cannot all be what their labels say`,
    'borrowed-neutral': `${who} are joined: neutrals of breakers ${breakers}, which share none`,
    'neutral-ground-joined': `${who} are joined: a neutral meets the ground only at the service`,
  }[code];
}

export function refutedText({ conductorId, label, confirmed }: RefutedLabel, box: Box, job: Job): string {
  const { roles } = profileOf(job).words;
  return `${conductorWords(box, conductorId, job)} is labelled ${roles[label.role]}; the readings confirm it as ${roles[confirmed.role]}`;
}

function roleText(box: Box, conductorId: string, job: Job): string {
  const words = profileOf(job).words;
  const label = box.labels.findLast((entry) => entry.conductorId === conductorId);
  return label && label.role !== 'unknown' ? words.roles[label.role] : words.ground;
}
