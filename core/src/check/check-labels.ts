import { conductorWords } from '../findings/identify-sentences.js';
import { listed } from '../findings/stop-sentences.js';
import { confirmedRoles } from '../identify/confirmed.js';
import { lookup } from '../job/lookup.js';
import { pointer } from '../job/pointer.js';
import type { Problem } from '../job/problem.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { labelClashes, refutedLabels } from '../power/label-clashes.js';
import { WORDS } from '../practice/words.js';

/**
 * Labels that cannot be true, in a file that reads well: members of one joint labelled as different nets (an error, the only one that
 * stops no other command), neutrals of two circuits or neutral and ground in one joint, two labels of one conductor, and labels against
 * a confirmed reading.
 */
export function labelProblems(job: Job): Problem[] {
  const known = lookup(job);
  return job.boxes.flatMap((box, index) => {
    const at = (conductorId: string | undefined) => {
      const label = box.labels.findLastIndex((entry) => entry.conductorId === conductorId);
      return pointer(['boxes', index, 'labels', ...(label < 0 ? [] : [label])]);
    };
    const clashes = labelClashes(box, job).map(({ code, conductorIds, circuitIds }): Problem => {
      const who = listed(conductorIds.map((id) => `${conductorWords(box, id)} (${roleOf(box, id, job)})`));
      const breakers = listed(circuitIds.map((id) => known.circuits.get(id)?.breaker ?? id));
      const message = {
        contradiction: `${who} are joined, and cannot all be what their labels say`,
        'borrowed-neutral': `${who} are joined: neutrals of breakers ${breakers}, which share none`,
        'neutral-ground-joined': `${who} are joined: a neutral meets the ground only at the service`,
      }[code];
      const last = conductorIds.findLast((id) => box.labels.some((label) => label.conductorId === id));
      return { path: at(last), message, severity: code === 'contradiction' ? 'error' : 'warning' };
    });
    const twice = box.labels.flatMap((label, which): Problem[] =>
      box.labels.findIndex((other) => other.conductorId === label.conductorId) < which
        ? [
            {
              path: pointer(['boxes', index, 'labels', which]),
              message: `labels ${conductorWords(box, label.conductorId)} a second time; only the last label counts`,
              severity: 'warning',
            },
          ]
        : [],
    );
    const refuted = refutedLabels(box, job, confirmedRoles(box, known)).map(
      ({ conductorId, label, confirmed }): Problem => ({
        path: at(conductorId),
        message: `says ${WORDS[job.practice].roles[label.role]} of ${conductorWords(box, conductorId)}; the readings confirm it as ${
          WORDS[job.practice].roles[confirmed.role]
        }`,
        severity: 'warning',
      }),
    );
    return [...clashes, ...twice, ...refuted];
  });
}

function roleOf(box: Box, conductorId: string, job: Job): string {
  const words = WORDS[job.practice];
  const label = box.labels.findLast((entry) => entry.conductorId === conductorId);
  return label && label.role !== 'unknown' ? words.roles[label.role] : words.ground;
}
