import type { JobLookup } from '../../job/lookup.js';
import { radioChannels } from '../../job/targets.js';
import { pairingOf } from '../pairing/record.js';
import { folded, heard } from './fold.js';
import type { NameGround } from './vocabulary.js';

/** The names of a job, gathered once for all that is asked of them. */
export function nameGround(known: JobLookup): NameGround {
  const { job } = known;
  const platforms = (job.brief?.platforms ?? []).flatMap(
    ({ name }) => job.catalogue.platforms.find((platform) => platform.name === name) ?? [],
  );
  const channels = radioChannels(known).map((chosen) => {
    const pairing = pairingOf(job, chosen);
    const said = heard(pairing?.name ?? '');
    const named = said.folded === '' ? null : said;
    return {
      ...chosen,
      pairing,
      name: named ? (pairing?.name ?? null) : null,
      heard: named,
      platforms: platforms.filter(({ name }) => chosen.device.platforms.includes(name)),
      first: chosen.device.channels[0] === chosen.channel,
    };
  });
  const rooms = new Map<string, string[]>();
  for (const room of job.rooms) {
    const name = folded(room.name);
    if (name !== '') rooms.set(name, [...(rooms.get(name) ?? []), room.id]);
  }
  const things = (job.things ?? [])
    .map((thing) => ({ id: thing.id, heard: heard(thing.name) }))
    .filter((thing) => thing.heard.folded !== '');
  return { known, channels, things, rooms };
}
