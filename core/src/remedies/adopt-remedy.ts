import type { EditPart } from '../job/edit/edit.js';
import { putPart, setParts } from '../job/edit/parts.js';
import { placeKey } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import { standardBoxes } from '../practice/standard-boxes.js';
import type { Remedy } from './remedies.js';

/**
 * The edit that carries a remedy out: the device is planned, or the box is as it will be once it has been
 * changed. Empty where nothing of the job says so yet.
 */
export function adoptRemedy(remedy: Remedy, box: Box, job: Job): EditPart[] {
  if (remedy.place) {
    const { position, strategy } = remedy.place;
    const named = remedy.also.flatMap((effect) => (effect.code === 'parts' ? effect.facts.parts : []));
    const parts = job.catalogue.parts.filter(({ name }) => named.includes(name)).map(({ id }) => id);
    const selection = { boxId: box.id, position, deviceId: remedy.id, strategy, with: parts };
    return [putPart('selection', placeKey(box.id, position), selection)];
  }
  if (remedy.kind === 'ring') {
    const ring = job.catalogue.parts.find(({ id }) => id === remedy.id);
    const { depth = 0, mL, in3 } = ring ?? {};
    const volume = in3 === undefined ? { mL: mL ?? 0 } : { in3 };
    const rings = [...(box.enclosure.rings ?? []), { depth, ...volume }];
    return setParts('box', box.id, box, { enclosure: { ...box.enclosure, rings } });
  }
  return remedy.kind === 'deeper-box' ? largerBox(remedy, box, job) : [];
}

/** A box out of the practice's table comes into the catalogue with it. Rings of the old box are left. */
function largerBox(remedy: Remedy, box: Box, job: Job): EditPart[] {
  const listed = job.catalogue.enclosures.find(({ id }) => id === remedy.id);
  const made = listed ?? standardBoxes(profileOf(job)).find(({ id }) => id === remedy.id);
  if (!made) return [];
  const { rings, ...rest } = box.enclosure;
  const enclosure = {
    ...rest,
    capacity: { from: 'standard' as const, enclosureId: made.id },
    depth: made.depth ?? rest.depth,
    material: made.material ?? rest.material,
  };
  return [
    ...(listed ? [] : [putPart('enclosure', made.id, made)]),
    ...setParts('box', box.id, box, { enclosure }),
  ];
}
