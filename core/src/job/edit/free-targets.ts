import type { Automation } from '../schema/commissioning.js';
import type { Job } from '../schema/job.js';
import { dangling, type TargetGround, targetGround, targetsOf } from '../targets.js';
import type { EditPart } from './edit.js';
import { putPart, removePart, setParts } from './parts.js';
import { reduce } from './reduce.js';

/** Kinds of records whose change can leave a rule without what it acts on. */
const CARRIERS: ReadonlySet<string> = new Set(['selection', 'box', 'room', 'thing', 'device']);

/**
 * The same edit with what follows from it for the rules: one loses the actions on a channel, thing or room
 * that goes, and goes itself when nothing of it is left or what it hears is gone; opposites, and things and
 * hubs of a room that goes, likewise. Another device with the channels of the old one takes nothing.
 */
export function withTargetsFreed(job: Job, parts: readonly EditPart[]): EditPart[] {
  if (!parts.some(({ kind }) => CARRIERS.has(kind))) return [...parts];
  const after = reduce(job, { parts: [...parts] });
  if (!after.ok) return [...parts];
  const freed = freeingParts(after.job);
  // What a thing leaves behind is told of the job without it.
  const things = freed.filter(({ kind, remove }) => kind === 'thing' && remove);
  const second = things.length > 0 ? reduce(after.job, { parts: freed }) : null;
  return [...parts, ...freed, ...(second?.ok ? freeingParts(second.job) : [])];
}

function freeingParts(job: Job): EditPart[] {
  const ground = targetGround(job);
  const opposites = job.opposites?.filter(({ a, b }) => !dangling(a, ground) && !dangling(b, ground));
  return [
    ...(job.things ?? [])
      .filter(({ roomId }) => !ground.rooms.has(roomId))
      .map(({ id }) => removePart('thing', id)),
    ...job.hubs.flatMap((hub) => {
      if (hub.roomId === undefined || ground.rooms.has(hub.roomId)) return [];
      return setParts('hubSetup', hub.id, hub, { roomId: undefined } as Partial<typeof hub>);
    }),
    ...job.automations.flatMap((automation) => freedRule(automation, ground)),
    ...setParts('job', job.id, job, opposites ? { opposites } : {}),
  ];
}

function freedRule(automation: Automation, ground: TargetGround): EditPart[] {
  const gone = targetsOf(automation).filter(({ target }) => dangling(target, ground) !== null);
  if (gone.length === 0) return [];
  const kept = automation.then?.filter(({ target }) => dangling(target, ground) === null) ?? [];
  if (gone.some(({ path }) => path[0] === 'when') || kept.length === 0)
    return [removePart('automation', automation.id)];
  return [putPart('automation', automation.id, { ...automation, then: kept })];
}
