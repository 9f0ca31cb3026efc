import { CAUSES, type Cause } from '@inventario/core';
import { z } from 'zod';

const CauseWord = z.enum(CAUSES as unknown as [Cause, ...Cause[]]);
const byPlace = <Value extends z.ZodType>(value: Value) => z.record(z.string(), value).default({});

/** What a made-up house is like: a file can say so, or the site's own page. */
export const Scenario = z.strictObject({
  seed: z.number().int().default(1),
  router: z
    .strictObject({
      name: z.string().max(100).default('Quillon house'),
      /** Of the made-up network; the product never asks for it. */
      password: z.string().max(63).default('lamp and oil'),
      clientLimit: z.number().int().min(1).max(500).default(32),
      otherClients: z.number().int().min(0).max(500).default(9),
      bands: z.array(z.enum(['2.4', '5'])).default(['2.4', '5']),
      /** Where it stands; with a device's place it tells the signal there. */
      spot: z.strictObject({ x: z.number(), y: z.number(), floor: z.number() }).optional(),
    })
    .prefault({}),
  hubs: z
    .record(
      z.string(),
      z.strictObject({
        online: z.boolean().default(true),
        joining: z.boolean().default(true),
        deviceLimit: z.number().int().min(0).max(1000).default(50),
        devices: z.number().int().min(0).max(1000).default(0),
      }),
    )
    .default({}),
  /** Where devices stand, and whether metal is around them. */
  places: byPlace(
    z.strictObject({ x: z.number(), y: z.number(), floor: z.number(), metal: z.boolean().default(false) }),
  ),
  /** What stands in the way of the device at a place. */
  faults: byPlace(z.array(CauseWord)),
  /** What of it cannot be put right today. */
  beyondHelp: byPlace(z.array(CauseWord)),
  /** Devices whose update stops, and how often. */
  stuckUpdates: byPlace(z.number().int().min(0).max(9)),
  /** Channels, as `BOX/POSITION/CHANNEL`, that an app finds over two routes. */
  foundTwice: z.array(z.string()).default([]),
  /** Channels whose load draws another share of its watts: a dead lamp, a wrong one. */
  draws: byPlace(z.number().min(0).max(10)),
  /** Tries, updates and finds go so much faster than life. */
  speed: z.number().min(0.1).max(1000).default(1),
});

export type Scenario = z.infer<typeof Scenario>;
