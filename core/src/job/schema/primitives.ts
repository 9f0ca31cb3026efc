import { z } from 'zod';
import * as trade from '../../terms/trade.js';
import { isTimeZone } from '../../units/time-zone.js';
import { LIMITS } from '../limits.js';

/**
 * An object that keeps the fields it does not know, so that a job written by a later program survives a round
 * trip. The inferred type leaves the index signature out: known fields stay checked by the compiler.
 */
export function open<Shape extends z.ZodRawShape>(shape: Shape): z.ZodObject<Shape, z.core.$strip> {
  return z.looseObject(shape) as unknown as z.ZodObject<Shape, z.core.$strip>;
}

export const Id = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/, 'must be 1 to 64 letters, digits, "_" or "-"');
/** ISO 8601 in UTC. */
export const Instant = z.iso.datetime({ error: 'must be an instant in UTC such as 2026-05-04T09:12:00Z' });
export const Text = z.string().max(20_000);
/** Short names: rooms, boxes, models. */
export const Name = z.string().max(400);
/** A name that also names its record: written as an address it has to fit the key of a row. */
export const KeyName = Name.refine(
  (name) => encodeURIComponent(name.replaceAll(/\p{Surrogate}/gu, '')).length <= LIMITS.key,
  {
    error:
      `is too long to name a record: at most ${LIMITS.key} characters ` +
      'when written as part of an address',
  },
);
/** A zone of the tz database. */
export const TimeZone = Name.refine(isTimeZone, {
  error: 'must be a time zone of the tz database such as Europe/London',
});
/** A time on the wall clock, 00:00 to 23:59. */
export const WallTime = z
  .string()
  .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'must be a time of the day from 00:00 to 23:59');
/** Lengths in mm, volumes in mL, watts, volts: finite and never negative. */
export const Measure = z.number().min(0);
/** Minor units of the job's currency. */
export const Price = z.number().int().min(0);
export const Count = z.number().int().min(0);
export const Colour = z.enum(trade.COLOURS);
export const WireSize = z.enum(trade.WIRE_SIZES);
export const PracticeId = z.enum(trade.PRACTICES);
export const ConnectorKind = z.enum(trade.CONNECTOR_KINDS);
export const Radio = z.enum(trade.RADIOS);
export const Strategy = z.enum(trade.STRATEGIES);
export const LoadKind = z.enum(trade.LOAD_KINDS);
export const Role = z.enum(trade.ROLES);

/** A volume is written in mL or in in3 and kept as typed. */
export const volume = { mL: Measure.optional(), in3: Measure.optional() };
export function oneVolume(value: { mL?: number; in3?: number }, context: z.RefinementCtx): void {
  if (value.mL === undefined && value.in3 === undefined) {
    context.addIssue({
      code: 'custom',
      path: ['mL'],
      message: 'is missing: a volume is given as mL or as in3',
    });
  } else if (value.mL !== undefined && value.in3 !== undefined) {
    context.addIssue({ code: 'custom', path: ['in3'], message: 'stands beside mL: give one of the two' });
  }
}

export type Colour = trade.Colour;
export type WireSize = trade.WireSize;
export type PracticeId = trade.PracticeId;
export type ConnectorKind = trade.ConnectorKind;
export type Radio = trade.Radio;
export type Strategy = trade.Strategy;
export type LoadKind = trade.LoadKind;
export type Role = trade.Role;
