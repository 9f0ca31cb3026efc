import { z } from 'zod';
import { Id, Measure, Name, Radio } from './schema/primitives.js';

/** `BOX/POSITION`. */
const Place = z.string().regex(/^[A-Za-z0-9_-]{1,64}\/[1-9]\d{0,3}$/, 'must be a box and a position in it');
const Channel = z.number().int().min(1).max(99);

/** What the site is told of a device that tries to join. `rssi` is the signal at its box, in dBm. */
export const JoinRequest = z.object({
  deviceId: Id,
  place: Place,
  radio: Radio,
  /** Bands the device hears, and the band the phone is on. */
  deviceBands: z.array(z.string().max(10)).max(5),
  phoneBand: z.enum(['2.4', '5']),
  rssi: z.number().min(-120).max(0).nullable(),
  /** The hub it works through; null where it needs none. */
  hubId: Id.nullable(),
  /** Whether its circuit is recorded on. */
  powered: z.boolean(),
  /** Its channels with the watts they are to draw when on. */
  channels: z.array(z.object({ id: Channel, watts: Measure.max(100_000), dims: z.boolean() })).max(20),
});

/** How far a try is, and what it came to as the app says it. */
export const JoinState = z.object({
  id: z.string(),
  state: z.enum(['running', 'joined', 'failed']),
  /** 0 to 1. */
  progress: Measure.max(1),
  step: z.enum(['searching', 'found', 'keys', 'address', 'done']),
  reason: z.string().nullable(),
  /** Whether the list of clients names the device; null while it runs. */
  listed: z.boolean().nullable(),
  seconds: Measure,
});

/** The router and the hubs, as they tell of themselves. */
export const SiteState = z.object({
  name: z.string(),
  clients: z.number().int(),
  clientLimit: z.number().int(),
  bands: z.array(z.string()),
  hubs: z.array(
    z.object({
      hubId: z.string(),
      online: z.boolean(),
      joining: z.boolean(),
      devices: z.number().int(),
      deviceLimit: z.number().int(),
    }),
  ),
});

/** What the installer has done at a device; a made-up one takes it as done, a real one was there. */
export const DeedRequest = z.object({ place: Place, deed: Name });
/** What is to be looked at; what only eyes can see is answered by nobody. */
export const LookRequest = z.object({ place: Place, look: Name });
export const LookResult = z.object({ bad: z.boolean().nullable() });

export const UpdateRequest = z.object({ place: Place });
export const UpdateResult = z.object({ outcome: z.enum(['done', 'stuck']), version: z.string() });

/** An app is to look for a channel by the name and room it was given. */
export const FindRequest = z.object({
  place: Place,
  channel: Channel,
  platform: Name,
  name: Name,
  room: Name,
});
export const FindResult = z.object({
  /** One entry for each route it was found over; none where it is missing. */
  routes: z.array(z.enum(['direct', 'maker', 'hub'])),
  room: z.string().nullable(),
});

/** Words said to an assistant, and which channels answered. */
export const SayRequest = z.object({ platform: Name, words: Name });
export const SayResult = z.object({
  answers: z.array(z.object({ place: z.string(), channel: z.number().int() })),
  ms: Measure,
});

/** A channel is switched or dimmed; `from`: at the wall or by an app. */
export const CommandRequest = z.object({
  place: Place,
  channel: Channel,
  on: z.boolean(),
  level: z.number().min(0).max(100).optional(),
  from: z.enum(['wall', 'app']),
});

/** What a joined channel tells of itself. */
export const ChannelState = z.object({
  place: z.string(),
  channel: z.number().int(),
  on: z.boolean(),
  level: z.number().nullable(),
  watts: Measure,
  at: z.string(),
});

export type JoinRequest = z.infer<typeof JoinRequest>;
export type JoinState = z.infer<typeof JoinState>;
export type SiteState = z.infer<typeof SiteState>;
export type DeedRequest = z.infer<typeof DeedRequest>;
export type LookRequest = z.infer<typeof LookRequest>;
export type LookResult = z.infer<typeof LookResult>;
export type UpdateRequest = z.infer<typeof UpdateRequest>;
export type UpdateResult = z.infer<typeof UpdateResult>;
export type FindRequest = z.infer<typeof FindRequest>;
export type FindResult = z.infer<typeof FindResult>;
export type SayRequest = z.infer<typeof SayRequest>;
export type SayResult = z.infer<typeof SayResult>;
export type CommandRequest = z.infer<typeof CommandRequest>;
export type ChannelState = z.infer<typeof ChannelState>;
