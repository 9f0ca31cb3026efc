import { labelsOf } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';

/**
 * Positions whose device carries a neutral: two neutral ends land on its terminals, by their labels; without
 * one, on a terminal made for the neutral, or as the readings have it. Taking that device out opens the
 * neutral for whatever hangs on it.
 *
 *     white in  ── [neutral  ]
 *                  [receptacle]        out with it, and the return of what is further on is open
 *     white on  ── [neutral2 ]
 *
 * @param isNeutral what else tells of a conductor without a label
 */
export function neutralCarriers(
  box: Box,
  job: Pick<Job, 'catalogue'>,
  isNeutral: (conductorId: string) => boolean = () => false,
): number[] {
  const labels = labelsOf(box);
  return box.positions.flatMap((position) => {
    const ends = box.conductors.flatMap((conductor) =>
      (conductor.ends ?? (conductor.at ? [conductor.at] : []))
        .filter((at) => at.position === position.index)
        .map((at) => ({ conductor, at })),
    );
    if (ends.length < 2) return [];
    const neutrals = ends.filter(({ conductor, at }) => {
      const label = labels.get(conductor.id);
      if (label && label.role !== 'unknown') return label.role === 'neutral';
      return isNeutralTerminal(position, at.terminal, job) || isNeutral(conductor.id);
    });
    return neutrals.length >= 2 ? [position.index] : [];
  });
}

function isNeutralTerminal(
  position: Box['positions'][number],
  terminal: string | undefined,
  job: Pick<Job, 'catalogue'>,
): boolean {
  if (position.existing === 'receptacle') return terminal === 'neutral' || terminal === 'neutral2';
  const device = job.catalogue.devices.find(({ id }) => id === position.deviceId);
  return (
    position.existing === 'smart' && device?.terminals.find(({ id }) => id === terminal)?.role === 'neutral'
  );
}
