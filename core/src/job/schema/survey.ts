import { z } from 'zod';
import * as trade from '../../terms/trade.js';
import {
  Colour,
  Count,
  Id,
  Instant,
  Measure,
  Name,
  oneVolume,
  open,
  Role,
  Text,
  volume,
  WireSize,
} from './primitives.js';

/** Where a loose end is: in a joint, on a terminal, on the box's screw, or capped alone. */
export const At = open({
  joint: Id.optional(),
  position: z.number().int().min(1).optional(),
  terminal: Id.optional(),
  boxScrew: z.literal(true).optional(),
  capped: z.literal(true).optional(),
}).superRefine((at, context) => {
  const forms = [at.joint !== undefined, at.position !== undefined, at.boxScrew === true, at.capped === true];
  if (forms.filter(Boolean).length !== 1) {
    context.addIssue({
      code: 'custom',
      message: 'must say exactly one place: a joint, a position with its terminal, boxScrew or capped',
    });
  } else if (at.position !== undefined && at.terminal === undefined) {
    context.addIssue({
      code: 'custom',
      path: ['terminal'],
      message: 'is missing: a position is given with its terminal',
    });
  }
});

const Capacity = z.discriminatedUnion('from', [
  open({ from: z.literal('marked'), ...volume }).superRefine(oneVolume),
  open({ from: z.literal('standard'), enclosureId: Id }),
  open({ from: z.literal('measured'), width: Measure, height: Measure, depth: Measure }),
]);

export const BoxEnclosure = open({
  gangs: z.number().int().min(1).max(24),
  material: z.enum(['metal', 'plastic']),
  grounded: z.boolean(),
  /** A marked volume or a depth of 0 means: not read yet. */
  capacity: Capacity,
  depth: Measure,
  rings: z.array(open({ ...volume, depth: Measure }).superRefine(oneVolume)).optional(),
  setBack: Measure.optional(),
  internalClamps: z.boolean(),
  supportFittings: Count,
  plate: z.enum(['plastic', 'metal', 'glass']).optional(),
});

export const Conductor = open({
  id: Id,
  cableId: Id.optional(),
  size: WireSize,
  colour: Colour,
  marking: Name.optional(),
  stripe: Name.optional(),
  material: z.enum(['copper', 'aluminium', 'copper-clad', 'unknown']).optional(),
  insulation: z.enum(['plastic', 'rubber', 'cloth']).optional(),
  /** Fine strands, which a terminal made for solid wire may not hold. Absent: solid, or nobody looked. */
  stranded: z.boolean().optional(),
  unbroken: z.boolean().optional(),
  throughCableId: Id.optional(),
  looped: z.boolean().optional(),
  isolatedGround: z.boolean().optional(),
  freeLength: Measure.optional(),
  at: At.optional(),
  ends: z.array(At).length(2, 'must name two ends').optional(),
}).superRefine((conductor, context) => {
  const wrong = (path: string, message: string) =>
    context.addIssue({ code: 'custom', path: [path], message });
  if (conductor.cableId === undefined) {
    if (conductor.ends === undefined)
      wrong('ends', 'is missing: a conductor without a cable is a pigtail or jumper with two ends');
    if (conductor.at !== undefined) wrong('at', 'stands beside ends: a pigtail or jumper has ends only');
  } else {
    if (conductor.ends !== undefined)
      wrong('ends', 'belongs to pigtails and jumpers, not to a conductor of a cable');
    if (conductor.unbroken === true && conductor.at !== undefined)
      wrong('at', 'must be absent: the conductor passes through unbroken');
    if (conductor.unbroken !== true && conductor.at === undefined)
      wrong('at', 'is missing: a conductor of a cable ends somewhere');
  }
});

export const Joint = open({
  id: Id,
  connector: z.enum(['twist-on', 'lever', 'terminal-block', 'crimp', 'other', 'unknown']),
  assembly: Name.optional(),
});

export const ExistingDevice = z.enum(trade.EXISTING_DEVICES);

export const Need = open({
  smart: z.boolean().optional(),
  dim: z.enum(['must', 'nice', 'no']).optional(),
  fanSpeed: z.boolean().optional(),
  scenes: z.boolean().optional(),
  senses: z.array(z.enum(['motion', 'humidity', 'daylight'])).optional(),
  constantPower: z.boolean().optional(),
  /** Light in colours: a matter of bulbs, not of switches. */
  colour: z.boolean().optional(),
  connected: z.boolean().optional(),
  /** The client wants the old switch kept: what makes the light smart goes elsewhere. */
  keepSwitch: z.boolean().optional(),
});

export const Position = open({
  index: z.number().int().min(1),
  gang: z.number().int().min(1).optional(),
  width: z.number().int().min(1).optional(),
  yoke: z.number().int().min(1).optional(),
  existing: ExistingDevice,
  deviceId: Id.optional(),
  breakOff: z.enum(['hot', 'both']).optional(),
  leads: z
    .array(open({ terminal: Id, size: WireSize.optional(), length: Measure.optional(), at: At }))
    .optional(),
  replaces: open({ name: Name, hub: Name.optional(), removed: z.boolean().optional() }).optional(),
  loadIds: z.array(Id),
  need: Need.optional(),
});

const OnOff = z.enum(['on', 'off']);
/** How a box is opened: not at all, one device out, all apart, single conductors lifted. */
export const Arrangement = z.enum(['in-place', 'device-out', 'parted', 'lifted']);
export const Reading = open({
  id: Id,
  at: Instant,
  tool: z.enum(trade.TOOLS),
  arrangement: Arrangement,
  position: z.number().int().min(1).optional(),
  lifted: z.array(Id).optional(),
  joined: z.array(Id).optional(),
  method: z.enum(['non-contact', 'clipped', 'probed', 'observed']).optional(),
  breakers: z.record(z.string(), OnOff).optional(),
  switches: z.record(z.string(), z.enum(['on', 'off', 'up', 'down'])).optional(),
  boxes: z.record(z.string(), z.string()).optional(),
  loads: z.record(z.string(), z.string()).optional(),
  points: z.array(z.string()).min(1).max(2),
  value: z.union([z.number(), z.enum(['alert', 'quiet', 'open', 'lit', 'dim', 'dark', 'held', 'tripped'])]),
});

export const Label = open({
  conductorId: Id,
  role: Role,
  loadIds: z.array(Id).optional(),
  circuitId: Id.optional(),
  groupId: Id.optional(),
  traveler: z.number().int().min(1).optional(),
  /** Taken from its looks, in one touch with others; nobody measured or traced it for this label. */
  byEye: z.boolean().optional(),
});

/** What a conductor was in another box like this one: a guess here, until somebody takes it. */
const Guess = open({
  conductorId: Id,
  role: Role,
  traveler: z.number().int().min(1).optional(),
});

/** What may be ticked at a box; each is a stop. */
export const Hazard = z.enum([
  'aluminium',
  'cloth',
  'crumbling',
  'scorch',
  'water',
  'shared-neutral',
  'neutral-ground-joined',
  'reverse-polarity',
  'unbonded-metal',
  'low-voltage-mixed',
]);

export const Box = open({
  id: Id,
  roomId: Id,
  name: Name,
  order: z.number(),
  circuitIds: z.array(Id),
  enclosure: BoxEnclosure,
  signal: z
    .union([open({ rssi: z.number().min(-120).max(0) }), open({ bars: z.number().int().min(0).max(4) })], {
      error: 'must be {"rssi": dBm} from -120 to 0 or {"bars": 0 to 4}',
    })
    .optional(),
  condition: z
    .array(
      z.enum([
        'loose',
        'set-back',
        'broken-ear',
        'no-earth-terminal',
        'painted',
        'awkward',
        'short-conductors',
      ]),
    )
    .optional(),
  hazards: z.array(Hazard).optional(),
  /** Whether the screws a device is mounted with stand upright, so that it can be set straight. */
  screws: z.enum(['straight', 'tilted', 'worn']).optional(),
  /** The plate beside it that a new one has to go with. */
  neighbour: open({
    opening: Name.optional(),
    shade: Name.optional(),
    material: z.enum(['plastic', 'metal', 'glass']).optional(),
  }).optional(),
  notes: Text.optional(),
  cables: z.array(open({ id: Id, label: Name.optional(), entry: Name.optional() })).max(60),
  conductors: z.array(Conductor).max(300),
  joints: z.array(Joint).max(150),
  positions: z.array(Position).max(24),
  readings: z.array(Reading).max(5000),
  labels: z.array(Label).max(300),
  guesses: z.array(Guess).max(300).optional(),
});

export type At = z.infer<typeof At>;
export type BoxEnclosure = z.infer<typeof BoxEnclosure>;
export type Conductor = z.infer<typeof Conductor>;
export type Joint = z.infer<typeof Joint>;
export type ExistingDevice = trade.ExistingDevice;
export type Need = z.infer<typeof Need>;
export type Position = z.infer<typeof Position>;
export type Reading = z.infer<typeof Reading>;
export type Hazard = z.infer<typeof Hazard>;
export type Label = z.infer<typeof Label>;
export type Box = z.infer<typeof Box>;
