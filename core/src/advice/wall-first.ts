import { plannedPlaces } from '../homeplan/units.js';
import { lookup, placeKey } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import { matchPlace } from '../match/match.js';

/**
 * The job with modules at the fitting ruled out wherever something at the wall goes: nobody climbs to a
 * ceiling for what is done at the switch. They stay where nothing else goes, where the client wants the old
 * switch kept, and where somebody pinned one.
 */
export function wallFirst(job: Job): Job {
  const known = lookup(job);
  const modules = new Set(
    job.catalogue.devices.filter(({ mount }) => mount === 'fitting').map(({ id }) => id),
  );
  if (modules.size === 0) return job;
  const pinned = new Set(
    (job.brief?.pins ?? []).map(
      ({ boxId, position, deviceId }) => `${placeKey(boxId, position)}/${deviceId}`,
    ),
  );
  const bans = [...plannedPlaces(known)].flatMap((key) => {
    const at = key.lastIndexOf('/');
    const [boxId, index] = [key.slice(0, at), Number(key.slice(at + 1))];
    const box = known.boxes.get(boxId);
    const position = box?.positions.find((entry) => entry.index === index);
    if (!box || !position || position.need?.keepSwitch) return [];
    const fits = matchPlace(box, position, known).filter(
      ({ verdict }) => verdict === 'fits' || verdict === 'fits-with',
    );
    if (!fits.some(({ deviceId }) => !modules.has(deviceId))) return [];
    return fits
      .filter(({ deviceId }) => modules.has(deviceId) && !pinned.has(`${key}/${deviceId}`))
      .map(({ deviceId }) => ({ deviceId, boxId, position: index }));
  });
  return bans.length === 0
    ? job
    : { ...job, brief: { ...job.brief, bans: [...(job.brief?.bans ?? []), ...bans] } };
}
