import { z } from 'zod';
import { EDITIONS } from '../terms/trade.js';
import { Brief, Circuit, ControlPoint, Load, Room } from './schema/job.js';
import { Name, PracticeId, Price, Text, TimeZone } from './schema/primitives.js';

/*
 * Records as a person enters them: the shapes of the file, and what nobody leaves out on purpose. A file of
 * another program may well hold an empty name; a form does not make one.
 */

const filled = (error: string) => Name.refine((text) => text.trim() !== '', { error });
const above0 = (error: string) => z.number({ error }).gt(0, { error });

export const RoomEntry = Room.extend({ name: filled('Give the room a name.') });

export const LoadEntry = Load.extend({
  name: filled('Give the load a name the client would use.'),
  roomId: filled('Add a room first: a load is in one.'),
});

export const CircuitEntry = Circuit.extend({
  breaker: filled('Give the breaker its number.'),
  amps: above0('A circuit has amperes above 0.'),
  volts: above0('A circuit has volts above 0.'),
});

export const ControlPointEntry = ControlPoint.extend({
  name: filled('Give the control a name.'),
  deviceId: filled('Say which device it is.'),
});

/** What a job is called and whose it is. */
export const JobEntry = z.object({
  name: filled('Give the job a name: the house, or whose it is.'),
  practice: PracticeId,
  edition: z.enum(EDITIONS).optional(),
  client: z.looseObject({ name: Name.optional(), contact: Name.optional() }).optional(),
  address: Text.optional(),
  notes: Text.optional(),
  /** Where on earth and in which zone it stands: the sun and the clock of its rules. */
  site: z
    .looseObject({
      latitude: z.number().min(-90).max(90).optional(),
      longitude: z.number().min(-180).max(180).optional(),
      timeZone: TimeZone.optional(),
    })
    .optional(),
});

export type JobEntry = z.infer<typeof JobEntry>;

/** A figure a job sets itself: it needs a note, which stands wherever the figure matters. */
export const FigureEntry = z.object({
  value: above0('A figure above 0 is needed.'),
  note: filled('Say why, with its source.'),
});

/** What the client said, with the labour rate that is agreed at the same table; minor units of money. */
export const BriefEntry = Brief.extend({ labourPerHour: Price.optional() });

export type BriefEntry = z.infer<typeof BriefEntry>;

/** Why a device is chosen although a rule stops it: it stays with the choice until the hand-over. */
export const AgainstEntry = z.object({ reason: filled('Say why, in a few words.') });
