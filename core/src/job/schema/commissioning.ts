import { z } from 'zod';
import { Id, Instant, Measure, Name, open, Text, WallTime } from './primitives.js';

/** One try at joining a device to its network. Kept for good. */
export const PairingAttempt = open({
  id: Id,
  at: Instant,
  outcome: z.enum(['joined', 'failed']),
  reason: Name.optional(),
  band: Name.optional(),
  rssi: z.number().optional(),
  seconds: Measure.optional(),
  /** Over the site, or by the installer's own hand and word. */
  by: z.enum(['site', 'hand']).optional(),
  /** How it was put into pairing mode. */
  mode: z.enum(['usual', 'alternate']).optional(),
  /** What its light showed, by the list of its record or in the installer's words. */
  light: Name.optional(),
  /** What was changed since the attempt before. */
  changed: z.array(Name).optional(),
  /** Whether the router's list of clients, or the hub's of devices, named it afterwards. */
  listed: z.boolean().optional(),
});

/** What was seen or done on the way of a device, apart from its tries at joining. Kept for good. */
export const PairingMark = open({
  id: Id,
  at: Instant,
  /** `changed` and `cannot`: what was, or could not be, put right before the next try. */
  what: z.enum([
    'ready',
    'updated',
    'update-stuck',
    'parked',
    'resumed',
    'reset',
    'looked',
    'changed',
    'cannot',
  ]),
  /** Why it was parked; what was looked at, changed or could not be changed. */
  reason: Name.optional(),
  /** Of a look: something was wrong. */
  bad: z.boolean().optional(),
  note: Text.optional(),
  light: Name.optional(),
});

/**
 * The pairing of one channel of the device at one place: what was recorded, appended and never rewritten.
 * Where it stands is derived from that.
 */
export const Pairing = open({
  id: Id,
  boxId: Id,
  position: z.number().int().min(1),
  deviceId: Id,
  channel: z.number().int().min(1),
  /** What other programs read; it counts here only while there is no attempt. */
  state: z.enum(['waiting', 'joined', 'failed', 'parked']).optional(),
  name: Name.optional(),
  attempts: z.array(PairingAttempt).optional(),
  marks: z.array(PairingMark).optional(),
  names: z.record(z.string(), Name).optional(),
  reached: z
    .array(
      open({
        platform: Name,
        at: Instant,
        outcome: z.enum(['found', 'missing']),
        route: z.enum(['direct', 'maker', 'hub']).optional(),
        room: Name.optional(),
      }),
    )
    .optional(),
  tried: z
    .array(
      open({
        path: z.enum(['wall', 'app', 'voice', 'remote', 'automation']),
        platform: Name.optional(),
        at: Instant,
        ok: z.boolean(),
        ms: Measure.optional(),
      }),
    )
    .optional(),
  settings: z
    .array(
      open({
        name: Name,
        value: z.union([Text, z.number(), z.boolean()]),
        at: Instant.optional(),
        /** Who asked for it. */
        for: Name.optional(),
      }),
    )
    .optional(),
  trim: z
    .array(open({ level: z.number().min(0).max(100), steady: z.boolean(), at: Instant.optional() }))
    .optional(),
});

/** A platform linked to a hub or to a maker's account. */
const Link = open({
  platform: Name,
  at: Instant,
  outcome: z.enum(['linked', 'failed']),
  reason: Name.optional(),
});

/** A hub as it stands in the house, and how far it is. */
export const HubOnSite = open({
  id: Id,
  hubId: Id,
  roomId: Id.optional(),
  placed: Instant.optional(),
  online: Instant.optional(),
  updated: Instant.optional(),
  links: z.array(Link).optional(),
});

/** Whose account with a maker; a password is nowhere. */
export const Account = open({
  id: Id,
  maker: Name,
  holder: z.enum(['client', 'installer']).optional(),
  links: z.array(Link).optional(),
});

/** Something outside the boxes that takes part in schedules and rules. */
export const Thing = open({
  id: Id,
  name: Name,
  roomId: Id,
  kind: z.enum(['plug', 'bulb', 'sensor', 'shade', 'speaker', 'other']),
  platforms: z.array(Name),
});

const TARGET_FORMS = 'must name a boxId with position and channel, a thingId, or a roomId';

/** What a rule acts on or hears: a channel of a chosen device, a thing, or all of a room. */
export const Target = open({
  boxId: Id.optional(),
  position: z.number().int().min(1).optional(),
  channel: z.number().int().min(1).optional(),
  thingId: Id.optional(),
  roomId: Id.optional(),
}).superRefine((target, context) => {
  const forms = [target.boxId, target.thingId, target.roomId].filter((id) => id !== undefined).length;
  if (forms !== 1) return context.addIssue({ code: 'custom', path: [], message: TARGET_FORMS });
  for (const field of ['position', 'channel'] as const)
    if (target.boxId !== undefined && target[field] === undefined)
      context.addIssue({ code: 'custom', path: [field], message: 'is missing: a boxId stands with both' });
});

const STARTERS = ['at', 'sun', 'motion', 'humidity', 'tap', 'presence', 'countdown'] as const;

const When = open({
  at: WallTime.optional(),
  sun: z.enum(['sunrise', 'sunset']).optional(),
  /** Minutes; a year at most. */
  offset: z.number().min(-525_600).max(525_600).optional(),
  motion: Target.optional(),
  humidity: Target.optional(),
  above: z.number().min(0).max(100).optional(),
  tap: Target.optional(),
  times: z.number().int().min(1).optional(),
  presence: z.enum(['arrive', 'leave']).optional(),
  /** Minutes. */
  countdown: z.number().gt(0, 'must be above 0').optional(),
  of: Target.optional(),
}).superRefine((when, context) => {
  const starters = STARTERS.filter((starter) => when[starter] !== undefined);
  if (starters.length !== 1)
    context.addIssue({
      code: 'custom',
      path: [],
      message: `must name one of ${STARTERS.join(', ')}`,
    });
  else if (when.countdown !== undefined && when.of === undefined)
    context.addIssue({ code: 'custom', path: ['of'], message: 'is missing: a countdown is of a target' });
});

export const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;

const Condition = open({
  from: WallTime.optional(),
  to: WallTime.optional(),
  dark: z.literal(true).optional(),
}).superRefine((condition, context) => {
  for (const [one, other] of [
    ['from', 'to'],
    ['to', 'from'],
  ] as const)
    if (condition[one] !== undefined && condition[other] === undefined)
      context.addIssue({ code: 'custom', path: [other], message: `is missing: it stands with ${one}` });
});

const Action = open({
  target: Target,
  do: z.enum(['on', 'off', 'toggle', 'level', 'speed']),
  value: z.number().min(0).optional(),
}).superRefine((action, context) => {
  if ((action.do === 'level' || action.do === 'speed') && action.value === undefined)
    context.addIssue({ code: 'custom', path: ['value'], message: `is missing: a ${action.do} has one` });
});

/** A rule or a schedule, wherever it runs. */
export const Automation = open({
  id: Id,
  name: Name,
  lives: Name,
  enabled: z.boolean().optional(),
  seen: Instant.optional(),
  when: When,
  days: z.array(z.enum(DAYS)).min(1, 'must name a day, or be left out for every day').optional(),
  if: Condition.optional(),
  then: z.array(Action).optional(),
}).superRefine((automation, context) => {
  if (automation.then === undefined && automation.when.countdown === undefined)
    context.addIssue({ code: 'custom', path: ['then'], message: 'is missing: only a countdown needs none' });
});

/** Two that are meant to be lit in turn. */
export const Opposites = open({ id: Id, a: Target, b: Target });

export type PairingAttempt = z.infer<typeof PairingAttempt>;
export type PairingMark = z.infer<typeof PairingMark>;
export type Pairing = z.infer<typeof Pairing>;
export type HubOnSite = z.infer<typeof HubOnSite>;
export type Account = z.infer<typeof Account>;
export type Thing = z.infer<typeof Thing>;
export type Target = z.infer<typeof Target>;
export type Automation = z.infer<typeof Automation>;
export type Opposites = z.infer<typeof Opposites>;
