import { z } from 'zod';
import type { Device } from '../../job/schema/catalogue.js';
import { TIMES } from '../../practice/times.js';

/** What a device's light does: its colours in turn, and how fast. */
const Light = z.object({
  colours: z.array(z.enum(['white', 'amber', 'green', 'red', 'blue', 'purple'])).min(1),
  rhythm: z.enum(['steady', 'slow', 'quick', 'breathing', 'twice']),
});
export type Light = z.infer<typeof Light>;

const Manner = z.object({
  steps: z.array(z.unknown()).optional(),
  /** Until when the steps were known to hold: `2026-03`. */
  asOf: z.string().optional(),
  press: z.string().optional(),
  light: Light.optional(),
  joinedLight: Light.optional(),
  minutes: z.number().min(0).optional(),
  alternate: z.object({ press: z.string(), light: Light.optional() }).optional(),
});

/** How a model is put into pairing mode and what it then shows, by its record or a correction on site. */
export interface PairingManner {
  steps: string[];
  asOf: string | null;
  press: string | null;
  light: Light | null;
  joinedLight: Light | null;
  /** How long it usually takes, minutes; planning times where the record says nothing. */
  minutes: number;
  alternate: { press: string; light: Light | null } | null;
}

/** What another program wrote otherwise is left alone and counts as not known. */
export function pairingManner(device: Pick<Device, 'pairing' | 'hubId'>): PairingManner {
  const read = Manner.safeParse(device.pairing ?? {});
  const steps = (device.pairing?.steps ?? []).filter((step): step is string => typeof step === 'string');
  const told = read.success ? read.data : {};
  return {
    steps,
    asOf: told.asOf ?? null,
    press: told.press ?? null,
    light: told.light ?? null,
    joinedLight: told.joinedLight ?? null,
    minutes: told.minutes ?? (device.hubId === undefined ? TIMES.pair.wifi : TIMES.pair.hub),
    alternate: told.alternate ? { press: told.alternate.press, light: told.alternate.light ?? null } : null,
  };
}

/** Seconds of one round of a light, for drawing it; null where it does not change. */
export function lightSeconds({ rhythm }: Light): number | null {
  return { steady: null, slow: 2, quick: 0.5, breathing: 3, twice: 1.5 }[rhythm];
}
