import type { Job } from '../../job/schema/job.js';
import { profileOf } from '../../practice/profiles.js';
import type { KnownIds } from './known-ids.js';

/** What the records of the job, apart from its boxes and its catalogue, name of each other. */
export function checkRecords(known: KnownIds): void {
  const { job } = known;
  if (job.edition !== undefined && !profileOf(job).editions)
    known.warning(['edition'], `is not used: the practice "${job.practice}" has one edition`);
  checkBrief(known, job.brief);
  job.circuits.forEach((circuit, index) => {
    known.mustAll(
      known.circuits,
      circuit.sharesNeutralWith,
      ['circuits', index, 'sharesNeutralWith'],
      'circuit',
    );
  });
  job.loads.forEach((load, index) => {
    known.must(known.rooms, load.roomId, ['loads', index, 'roomId'], 'room');
    known.mustAll(known.parts, load.fitted, ['loads', index, 'fitted'], 'part');
  });
  checkRuns(known);
  checkGroupsAndPoints(known);
  checkSelections(known);
  job.events.forEach((event, index) => {
    known.must(known.boxes, event.boxId, ['events', index, 'boxId'], 'box');
    known.must(known.circuits, event.circuitId, ['events', index, 'circuitId'], 'circuit');
  });
}

function checkBrief(known: KnownIds, brief: Job['brief']): void {
  brief?.platforms?.forEach((platform, index) => {
    known.must(known.platforms, platform.name, ['brief', 'platforms', index, 'name'], 'platform');
  });
  known.mustAll(known.hubs, brief?.hubsOwned, ['brief', 'hubsOwned'], 'hub');
  for (const [hub, room] of Object.entries(brief?.hubRooms ?? {})) {
    known.must(known.hubs, hub, ['brief', 'hubRooms', hub], 'hub');
    known.must(known.rooms, room, ['brief', 'hubRooms', hub], 'room');
  }
  known.must(known.circuits, brief?.wifi?.routerCircuit, ['brief', 'wifi', 'routerCircuit'], 'circuit');
  known.must(known.rooms, brief?.wifi?.routerRoom, ['brief', 'wifi', 'routerRoom'], 'room');
  for (const list of ['pins', 'bans'] as const)
    brief?.[list]?.forEach((entry, index) => {
      known.mustPlace(entry, ['brief', list, index]);
      known.must(known.devices, entry.deviceId, ['brief', list, index, 'deviceId'], 'device');
    });
}

function checkRuns(known: KnownIds): void {
  known.job.runs?.forEach((run, index) => {
    run.ends.forEach((end, which) => {
      const path = ['runs', index, 'ends', which];
      known.must(known.boxes, end.boxId, [...path, 'boxId'], 'box');
      known.must(known.loads, end.loadId, [...path, 'loadId'], 'load');
      known.must(known.circuits, end.circuitId, [...path, 'circuitId'], 'circuit');
      const box = known.boxes.get(end.boxId ?? '');
      if (box)
        known.must(new Set(box.cables.map((cable) => cable.id)), end.cableId, [...path, 'cableId'], 'cable');
    });
    const [from, to] = run.ends.map(
      (end) => new Set(known.boxes.get(end.boxId ?? '')?.conductors.map((conductor) => conductor.id)),
    );
    run.pairs?.forEach((pair, which) => {
      if (from && run.ends[0]?.boxId)
        known.must(from, pair[0], ['runs', index, 'pairs', which, 0], 'conductor');
      if (to && run.ends[1]?.boxId) known.must(to, pair[1], ['runs', index, 'pairs', which, 1], 'conductor');
    });
  });
}

function checkGroupsAndPoints(known: KnownIds): void {
  known.job.groups.forEach((group, index) => {
    known.mustAll(known.loads, group.loadIds, ['groups', index, 'loadIds'], 'load');
    group.places.forEach((place, which) => {
      known.mustPlace(place, ['groups', index, 'places', which]);
    });
  });
  known.job.controlPoints?.forEach((point, index) => {
    known.must(known.rooms, point.roomId, ['controlPoints', index, 'roomId'], 'room');
    known.must(known.devices, point.deviceId, ['controlPoints', index, 'deviceId'], 'device');
    point.targets.forEach((target, which) => {
      known.mustPlace(target, ['controlPoints', index, 'targets', which]);
      known.must(known.loads, target.loadId, ['controlPoints', index, 'targets', which, 'loadId'], 'load');
    });
  });
}

function checkSelections(known: KnownIds): void {
  const chosen = new Set<string>();
  known.job.selections.forEach((selection, index) => {
    const path = ['selections', index];
    known.mustPlace(selection, path);
    known.must(known.devices, selection.deviceId, [...path, 'deviceId'], 'device');
    known.mustAll(known.parts, selection.with, [...path, 'with'], 'part');
    for (const [channel, load] of Object.entries(selection.channels ?? {}))
      known.must(known.loads, load, [...path, 'channels', channel], 'load');
    const key = `${selection.boxId}/${selection.position}`;
    if (chosen.has(key))
      known.error(
        path,
        `chooses for position ${selection.position} of the box "${selection.boxId}" a second time`,
      );
    chosen.add(key);
  });
}
