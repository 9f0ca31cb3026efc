import { confirmedRoles } from '../identify/confirmed.js';
import { lookup } from '../job/lookup.js';
import { pointer } from '../job/pointer.js';
import type { Problem } from '../job/problem.js';
import type { Job } from '../job/schema/job.js';
import { labelClashes, refutedLabels } from '../power/label-clashes.js';
import { conductorWords } from '../survey/conductor-names.js';
import { clashText, refutedText } from './words/labels.js';

/**
 * Labels that cannot be true, in a file that reads well: members of one joint labelled as different nets (an
 * error, the only one that stops no other command), neutrals of two circuits or neutral and ground in one
 * joint, two labels of one conductor, and labels against a confirmed reading.
 */
export function labelProblems(job: Job): Problem[] {
  const known = lookup(job);
  return job.boxes.flatMap((box, index) => {
    const at = (conductorId: string | undefined) => {
      const label = box.labels.findLastIndex((entry) => entry.conductorId === conductorId);
      return pointer(['boxes', index, 'labels', ...(label < 0 ? [] : [label])]);
    };
    const clashes = labelClashes(box, job).map((clash): Problem => {
      const last = clash.conductorIds.findLast((id) => box.labels.some((label) => label.conductorId === id));
      return {
        path: at(last),
        message: clashText(clash, box, job),
        severity: clash.code === 'contradiction' ? 'error' : 'warning',
      };
    });
    const twice = box.labels.flatMap((label, which): Problem[] =>
      box.labels.findIndex((other) => other.conductorId === label.conductorId) < which
        ? [
            {
              path: pointer(['boxes', index, 'labels', which]),
              message:
                `labels ${conductorWords(box, label.conductorId, job)} a second time; only the last label ` +
                'counts',
              severity: 'warning',
            },
          ]
        : [],
    );
    const refuted = refutedLabels(box, job, confirmedRoles(box, known)).map(
      (label): Problem => ({
        path: at(label.conductorId),
        message: refutedText(label, box, job),
        severity: 'warning',
      }),
    );
    return [...clashes, ...twice, ...refuted];
  });
}
