import {
  type Box,
  boxCapacity,
  lengthText,
  plural,
  profileOf,
  unreadFigures,
  volumeText,
} from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { useUnits } from '../../../data/preferences.js';
import { Fold } from '../../../ui/fold.js';
import type { ChangeBox } from '../change-box.js';
import { BoxPanel } from './box-panel.js';

/**
 * The enclosure on one line above the conductors; it opens at a touch and closes when its figures are read.
 */
export function EnclosureLine({ box, change }: { box: Box; change: ChangeBox }) {
  const { job } = useJob();
  const units = useUnits(job);
  const { enclosure } = box;
  const { ml } = boxCapacity(box, job);
  const unread = unreadFigures(box, job);
  const says = [
    plural(enclosure.gangs, profileOf(job).words.gang),
    ml === null ? null : volumeText(ml, units),
    unread.depth ? 'depth not measured' : `${lengthText(enclosure.depth, units)} deep`,
    enclosure.material,
  ].filter(Boolean);
  return (
    <Fold title="Enclosure" says={says.join(', ')} isComplete={!unread.volume && !unread.depth}>
      <BoxPanel box={box} change={change} />
    </Fold>
  );
}
