import type { Target } from '../../job/schema/commissioning.js';
import { dangling, targetGround, targetsOf } from '../../job/targets.js';
import type { KnownIds, Path } from './known-ids.js';

/** What pairings, hubs, accounts, things and rules name of the rest of the job. */
export function checkCommissioning(known: KnownIds): void {
  checkPairings(known);
  checkOutside(known);
  const mustBeThere = targetCheck(known);
  known.job.automations.forEach((automation, index) => {
    for (const { target, path } of targetsOf(automation))
      mustBeThere(target, ['automations', index, ...path]);
  });
  known.job.opposites?.forEach((pair, index) => {
    for (const side of ['a', 'b'] as const) {
      const path = ['opposites', index, side];
      if (pair[side].roomId !== undefined)
        known.error([...path, 'roomId'], 'is a room: opposites are a channel or a thing each');
      else mustBeThere(pair[side], path);
    }
  });
}

function checkPairings(known: KnownIds): void {
  known.job.pairings.forEach((pairing, index) => {
    const path = ['pairings', index];
    known.mustPlace(pairing, path);
    known.must(known.devices, pairing.deviceId, [...path, 'deviceId'], 'device');
    for (const platform of Object.keys(pairing.names ?? {}))
      known.must(known.platforms, platform, [...path, 'names', platform], 'platform');
    for (const field of ['reached', 'tried'] as const)
      pairing[field]?.forEach(({ platform }, which) => {
        known.must(known.platforms, platform, [...path, field, which, 'platform'], 'platform');
      });
  });
}

function checkOutside(known: KnownIds): void {
  const { job } = known;
  job.hubs.forEach((hub, index) => {
    known.must(known.hubs, hub.hubId, ['hubs', index, 'hubId'], 'hub');
    known.must(known.rooms, hub.roomId, ['hubs', index, 'roomId'], 'room');
  });
  for (const list of ['hubs', 'accounts'] as const)
    job[list].forEach(({ links }, index) => {
      links?.forEach(({ platform }, which) => {
        known.must(known.platforms, platform, [list, index, 'links', which, 'platform'], 'platform');
      });
    });
  job.things?.forEach((thing, index) => {
    known.must(known.rooms, thing.roomId, ['things', index, 'roomId'], 'room');
    known.mustAll(known.platforms, thing.platforms, ['things', index, 'platforms'], 'platform');
  });
}

function targetCheck(known: KnownIds): (target: Target, path: Path) => void {
  const ground = targetGround(known.job);
  return (target, path) => {
    const field = dangling(target, ground);
    if (field === null) return;
    const place = `position ${target.position} of the box "${target.boxId}"`;
    const message = {
      roomId: `names the room "${target.roomId}", which is not in the file`,
      thingId: `names the thing "${target.thingId}", which is not in the file`,
      boxId: `names the box "${target.boxId}", which is not in the file`,
      position: `names ${place}, for which no device is chosen`,
      channel: `names channel ${target.channel}, which the device at ${place} does not have`,
    }[field];
    known.error([...path, field], message);
  };
}
