import { standardBoxes } from '../practice/standard-boxes.js';
import { PRACTICES } from '../practice/words.js';
import type { Catalogue } from './schema/catalogue.js';
import { FORMAT, type Job, VERSION } from './schema/job.js';
import type { PracticeId } from './schema/primitives.js';

/** A job nobody has walked yet. The catalogue goes into it whole, with the standard boxes of its practice. */
export function newJob(
  id: string,
  name: string,
  practice: PracticeId,
  edition: Job['edition'],
  catalogue: Catalogue,
): Job {
  const others = new Set(PRACTICES.flatMap((other) => standardBoxes(other).map((box) => box.id)));
  return {
    format: FORMAT,
    version: VERSION,
    id,
    name,
    practice,
    ...(practice === 'us' ? { edition: edition ?? '2023' } : {}),
    brief: {
      platforms: [],
      connectors:
        practice === 'us' || practice === 'ca' ? ['twist-on', 'lever'] : ['lever', 'terminal-block'],
    },
    circuits: [],
    rooms: [],
    loads: [],
    boxes: [],
    groups: [],
    selections: [],
    pairings: [],
    hubs: [],
    accounts: [],
    automations: [],
    events: [],
    photos: [],
    catalogue: {
      ...catalogue,
      enclosures: [
        ...standardBoxes(practice),
        ...catalogue.enclosures.filter(
          (enclosure) => enclosure.practice === practice && !others.has(enclosure.id),
        ),
      ],
    },
  };
}
