import type { JobLookup } from '../../job/lookup.js';
import type { Stretch } from '../../runsheet/batch-steps.js';
import { listed } from './stops.js';

/** What goes before a switching of a batch, by the stretch that it begins. */
export const BEFORE_SWITCHING: Readonly<Record<Stretch, string>> = {
  wire: 'Off, locked and tagged; then each box is proved dead before a hand goes in.',
  test: 'Everyone clear, every box guarded, joints closed, grounds joined. Then on, for the look alone.',
  close: 'Off again, and every box proved anew, before anything is folded.',
  after: 'Every box is closed: on, and each device is tried.',
};

/** Boxes outside the batch that come alive with it, although somebody has them open. */
export function openElsewhereText(boxIds: readonly string[], known: JobLookup): string {
  const names = listed(boxIds.map((id) => known.boxes.get(id)?.name ?? id));
  const [verb, them] = boxIds.length > 1 ? ['are', 'they are'] : ['is', 'it is'];
  return `${names} ${verb} open on these breakers too: not on before ${them} closed, or capped and guarded, and everyone there is told.`;
}
