import { pointer } from '../../job/pointer.js';
import type { KnownIds, Path } from './known-ids.js';

/** An id stands once in the whole file, the name of a platform once in the catalogue. */
export function checkUniqueIds(known: KnownIds): void {
  const { job } = known;
  const seen = new Map<string, string>();
  const claim = (id: string | undefined, path: Path) => {
    if (id === undefined) return;
    const first = seen.get(id);
    if (first === undefined) seen.set(id, pointer(path));
    else known.error(path, `uses the id "${id}" a second time; it stands at ${first} already`);
  };
  claim(job.id, ['id']);
  const claimAll = (path: Path, records: readonly { id?: string }[] | undefined) =>
    records?.forEach((record, index) => {
      claim(record.id, [...path, index, 'id']);
    });
  claimAll(['circuits'], job.circuits);
  claimAll(['rooms'], job.rooms);
  claimAll(['loads'], job.loads);
  job.boxes.forEach((box, index) => {
    claim(box.id, ['boxes', index, 'id']);
    for (const part of ['cables', 'conductors', 'joints', 'readings'] as const)
      claimAll(['boxes', index, part], box[part]);
  });
  for (const part of [
    'runs',
    'groups',
    'controlPoints',
    'things',
    'pairings',
    'hubs',
    'accounts',
    'automations',
    'events',
    'photos',
    'opposites',
  ] as const)
    claimAll([part], job[part]);
  job.pairings.forEach((pairing, index) => {
    for (const part of ['attempts', 'marks'] as const) claimAll(['pairings', index, part], pairing[part]);
  });
  for (const part of ['devices', 'hubs', 'parts', 'connectors', 'enclosures'] as const)
    claimAll(['catalogue', part], job.catalogue[part]);
  const names = new Set<string>();
  job.catalogue.platforms.forEach((platform, index) => {
    if (names.has(platform.name))
      known.error(
        ['catalogue', 'platforms', index, 'name'],
        `names the platform "${platform.name}" a second time`,
      );
    names.add(platform.name);
  });
}
