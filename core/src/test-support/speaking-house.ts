import type { Automation, Target } from '../job/schema/commissioning.js';
import { DAYS } from '../job/schema/commissioning.js';
import type { Job } from '../job/schema/job.js';
import { channelId } from '../job/targets.js';
import type { Random } from './random.js';

/** Words that are alike, reserved, usual, foreign or nothing at all. */
const WORDS = (
  'lamp lump light Lights porch birch routine mode snug Snüg den plug 2 ２ 12 fan two hall haul hallway ' +
  'hallways café cafe ☼ - лампа лампы 𐐨𐐩𐐪𐐫𐐬𐐭 𐐨𐐩𐐪𐐫𐐬𐐮 table ﬁnch finch whole house dining-room'
).split(' ');

/**
 * The worked house of names and rules (`long-room`, a copy of its own) with places, names, apps and old
 * devices drawn anew: many copies of its three boxes, so that names meet.
 */
export function speakingHouse(job: Job, random: Random, copies = 3): Job {
  const [boxes, selections] = [job.boxes, job.selections];
  const name = () => Array.from({ length: random.int(1, 3) }, () => random.pick(WORDS)).join(' ');
  const at = (id: string, copy: number) => `${id}-${copy}`;
  job.boxes = Array.from({ length: copies }).flatMap((_, copy) =>
    boxes.map((box) => ({
      ...box,
      id: at(box.id, copy),
      roomId: random.pick(job.rooms).id,
      name: random.chance(0.7) ? box.name : name(),
      positions: box.positions.map(({ replaces: _old, ...position }) => ({
        ...position,
        ...(random.chance(0.4) ? { replaces: { name: name(), removed: random.chance(0.5) } } : {}),
      })),
    })),
  );
  job.selections = Array.from({ length: copies }).flatMap((_, copy) =>
    selections.map((selection) => ({ ...selection, boxId: at(selection.boxId, copy) })),
  );
  for (const load of job.loads) if (random.chance(0.3)) load.name = name();
  for (const room of job.rooms) if (random.chance(0.3)) room.name = name();
  const platforms = job.catalogue.platforms.map((platform) => platform.name);
  job.pairings = job.selections.flatMap(({ boxId, position, deviceId }) => {
    const device = job.catalogue.devices.find(({ id }) => id === deviceId);
    const old = job.boxes.find(({ id }) => id === boxId)?.positions[0]?.replaces?.name ?? '';
    return (device?.channels ?? []).map((channel) => ({
      id: `p-${boxId}-${channel.id}`,
      boxId,
      position,
      deviceId: deviceId ?? '',
      channel: channel.id,
      ...(random.chance(0.85) ? { name: random.chance(0.2) ? old : name() } : {}),
      ...(random.chance(0.4) ? { names: { [random.pick(platforms)]: name() } } : {}),
      reached: Array.from({ length: random.int(0, 2) }, (_, nth) => ({
        platform: random.pick(platforms),
        at: `2026-03-20T11:0${random.int(0, 2)}:0${nth}Z`,
        outcome: random.chance(0.5) ? ('found' as const) : ('missing' as const),
      })),
    }));
  });
  for (const thing of job.things ?? []) if (random.chance(0.5)) thing.name = name();
  job.automations = [];
  job.opposites = [];
  return job;
}

/** Rules drawn at random over the house's channels, things and rooms, many of them meeting. */
export function withRules(job: Job, random: Random, count: number): Job {
  const channels: Target[] = job.selections.flatMap(({ boxId, position, deviceId }) =>
    (job.catalogue.devices.find(({ id }) => id === deviceId)?.channels ?? []).map((channel) => ({
      boxId,
      position,
      channel: channel.id,
    })),
  );
  const single = [...channels, ...(job.things ?? []).map(({ id }) => ({ thingId: id }))];
  const any = [...single, ...job.rooms.map(({ id }) => ({ roomId: id }))];
  const time = () => `${String(random.int(0, 23)).padStart(2, '0')}:${random.pick(['00', '02', '20', '30'])}`;
  const rule = (id: string): Automation => ({
    id,
    name: id,
    lives: random.pick(['Orrery', 'Hearthside', 'the maker’s app']),
    ...(random.chance(0.1) ? { enabled: false } : {}),
    ...(random.chance(0.3) ? { days: DAYS.filter(() => random.chance(0.6)) } : {}),
    when: random.pick([
      () => ({ at: time() }),
      () => ({ at: time() }),
      () => ({
        sun: random.pick(['sunrise', 'sunset'] as const),
        ...(random.chance(0.7) ? { offset: random.int(-700, 700) } : {}),
      }),
      () => ({ countdown: 10, of: random.pick(any) }),
      () => ({ motion: random.pick(single) }),
    ])(),
    ...(random.chance(0.3)
      ? { if: random.chance(0.6) ? { from: time(), to: time() } : { dark: true as const } }
      : {}),
    then: Array.from({ length: random.int(1, 3) }, () => ({
      target: random.pick(any),
      ...random.pick([
        { do: 'on' as const },
        { do: 'off' as const },
        { do: 'toggle' as const },
        { do: 'level' as const, value: random.pick([0, 40]) },
      ]),
    })),
  });
  const automations = Array.from({ length: count }, (_, at) => rule(`rule-${at}`)).map((entry) =>
    entry.days?.length === 0 ? { ...entry, days: ['mon' as const] } : entry,
  );
  const two = [random.pick(single), random.pick(single)] as const;
  const opposites =
    JSON.stringify(two[0]) === JSON.stringify(two[1]) ? [] : [{ id: 'turn', a: two[0], b: two[1] }];
  return { ...job, automations, opposites };
}

/** `BOX/POSITION/CHANNEL` or an id. */
export const idOf = (target: Target) =>
  target.thingId ?? target.roomId ?? channelId(target.boxId ?? '', target.position ?? 0, target.channel ?? 0);
