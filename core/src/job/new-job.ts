import { PROFILES, profileOf } from '../practice/profiles.js';
import { standardBoxes } from '../practice/standard-boxes.js';
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
  const profile = profileOf({ practice });
  const others = new Set(
    Object.values(PROFILES)
      .flatMap(standardBoxes)
      .map((box) => box.id),
  );
  return {
    format: FORMAT,
    version: VERSION,
    id,
    name,
    practice,
    ...(profile.editions ? { edition: edition ?? profile.editions.usual } : {}),
    brief: {
      platforms: [],
      connectors: [...profile.connectors.preferred],
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
        ...standardBoxes(profile),
        ...catalogue.enclosures.filter(
          (enclosure) => enclosure.practice === practice && !others.has(enclosure.id),
        ),
      ],
    },
  };
}
