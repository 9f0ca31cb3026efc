import type { Job, Load } from '../job/schema/job.js';
import type { LoadKind } from '../job/schema/primitives.js';
import { LOAD_WORDS } from '../practice/words.js';

/** What one of a kind usually draws, W. */
const USUAL_WATTS: Partial<Record<LoadKind, number>> = {
  led: 9,
  resistive: 60,
  heater: 1500,
  fluorescent: 36,
  magnetic: 50,
  electronic: 50,
  'smart-bulb': 9,
  receptacle: 0,
};
const OTHER_WATTS = 40;

/** A load nobody has named yet: after its room and kind, told from others of the same name by a number. */
export function newLoad(
  job: Pick<Job, 'loads' | 'rooms'>,
  { id, roomId, kind }: Pick<Load, 'id' | 'roomId' | 'kind'>,
): Load {
  const room = job.rooms.find((entry) => entry.id === roomId)?.name ?? '';
  const name = [room, LOAD_WORDS[kind]].filter(Boolean).join(' ');
  const taken = new Set(job.loads.map((load) => load.name));
  let number = 1;
  while (taken.has(number === 1 ? name : `${name} ${number}`)) number += 1;
  return {
    id,
    name: number === 1 ? name : `${name} ${number}`,
    roomId,
    kind,
    count: 1,
    wattsEach: USUAL_WATTS[kind] ?? OTHER_WATTS,
  };
}

/** Loads a switch of a room may control, the likely first: of the room and controlled by nothing yet. */
export function loadsToControl(job: Pick<Job, 'loads' | 'boxes'>, roomId: string): Load[] {
  const controlled = new Set(
    job.boxes.flatMap(({ positions }) => positions.flatMap(({ loadIds }) => loadIds)),
  );
  const rank = (load: Load) => (load.roomId === roomId ? 0 : 2) + (controlled.has(load.id) ? 1 : 0);
  return [...job.loads].sort((a, b) => rank(a) - rank(b));
}
