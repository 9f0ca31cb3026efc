import { z } from 'zod';
import { EDITIONS, LEGS, PROTECTIONS } from '../../terms/trade.js';
import { Catalogue } from './catalogue.js';
import { Account, Automation, HubOnSite, Opposites, Pairing, Thing } from './commissioning.js';
import {
  ConnectorKind,
  Count,
  Id,
  Instant,
  KeyName,
  LoadKind,
  Measure,
  Name,
  open,
  PracticeId,
  Price,
  Radio,
  Strategy,
  Text,
  TimeZone,
  WallTime,
} from './primitives.js';
import { Arrangement, Box, Reading } from './survey.js';

export const FORMAT = 'inventario/job';
export const VERSION = 1;

export const Circuit = open({
  id: Id,
  panel: Name,
  breaker: Name,
  label: Name,
  amps: Measure,
  volts: Measure,
  leg: z.enum(LEGS).optional(),
  poles: z.number().int().min(1).optional(),
  sharesNeutralWith: z.array(Id).optional(),
  commonTrip: z.boolean().optional(),
  isolatesNeutral: z.boolean().optional(),
  protection: z.enum(PROTECTIONS).optional(),
  source: z.enum(['mains', 'inverter', 'generator']).optional(),
});

export const Room = open({
  id: Id,
  name: Name,
  kind: Name.optional(),
  floor: z.number(),
  order: z.number(),
  plan: open({ x: z.number(), y: z.number() }).optional(),
});

export const Load = open({
  id: Id,
  name: Name,
  roomId: Id,
  kind: LoadKind,
  count: Count,
  wattsEach: Measure,
  dimmable: z.boolean().optional(),
  powerFactor: z.number().gt(0).max(1).optional(),
  speeds: Count.optional(),
  bulbFamily: Name.optional(),
  fitted: z.array(Id).optional(),
});

const Place = open({ boxId: Id, position: z.number().int().min(1) });

export const Run = open({
  id: Id,
  ends: z
    .array(
      open({ boxId: Id.optional(), cableId: Id.optional(), loadId: Id.optional(), circuitId: Id.optional() }),
    )
    .length(2, 'must name two ends'),
  pairs: z.array(z.array(Id).length(2)).optional(),
  known: z.enum(['seen', 'tested', 'supposed']).optional(),
});

export const Group = open({ id: Id, loadIds: z.array(Id), places: z.array(Place) });

export const Selection = open({
  boxId: Id,
  position: z.number().int().min(1),
  deviceId: Id.nullable(),
  strategy: Strategy,
  with: z.array(Id).optional(),
  channels: z.record(z.string(), Id).optional(),
  /** Why it was chosen although the match says no; it stays marked until the hand-over. */
  against: Text.optional(),
});

export const ControlPoint = open({
  id: Id,
  roomId: Id,
  name: Name,
  deviceId: Id,
  /** Stuck on the wall, in a further gang of a wider plate, or over a switch that is left on. */
  mounting: z.enum(['wall', 'extra-gang', 'over-switch']).optional(),
  targets: z.array(
    open({ boxId: Id.optional(), position: z.number().int().optional(), loadId: Id.optional() }),
  ),
  /** Whether it works each of them, appended. */
  bound: z
    .array(
      open({
        boxId: Id.optional(),
        position: z.number().int().optional(),
        loadId: Id.optional(),
        at: Instant,
        ok: z.boolean(),
      }),
    )
    .optional(),
});

/**
 * What a proof of dead says beside its instant and box; other programs may leave out what its prover knew.
 */
const ProvedFields = open({
  stage: z.enum(['face', 'device-out']).optional(),
  circuitIds: z.array(Id).optional(),
  volts: Measure.optional(),
  voltsAfter: Measure.optional(),
  under5: z.array(z.array(z.string())).optional(),
  offs: z.record(z.string(), Id).optional(),
  ons: z.record(z.string(), Count).optional(),
});
/** A breaker seen or put on or off. */
const SwitchedFields = open({ state: z.enum(['on', 'off']).optional() });
/** Somebody competent has put a hazard right. */
const ClearedFields = open({ hazard: Name.optional(), note: Text.optional() });
/** How a box was left. */
const StandsFields = open({ boxId: Id, state: Arrangement, position: z.number().int().min(1).optional() });
/** A step of the wiring of a box that was done. */
const WiredFields = open({ boxId: Id, step: Name, note: Text.optional() });
/** Boxes that are open together from now on. */
const BatchFields = open({ boxIds: z.array(Id).min(1, 'must name at least one box') });
/** A box is in somebody's hands, or no more. */
const HoldFields = open({ boxId: Id, by: Id });
/** A box was put back as found, or left safe, and is planned anew. */
const AsideFields = open({ boxId: Id, note: Text.optional() });
/** A device was tried: it works, or what was seen. */
const TriedFields = open({
  boxId: Id,
  position: z.number().int().min(1),
  result: z.enum(['works', 'fails']),
  symptoms: z.record(z.string(), z.string()).optional(),
});
/** A reading of a box that is wired anew: what it was before is not told by it. */
const TestedFields = open({ boxId: Id, position: z.number().int().min(1), reading: Reading });
/** What it was that did not work. */
const CauseFields = open({ boxId: Id, position: z.number().int().min(1).optional(), cause: Name });
const FIELDS_OF_KIND: Readonly<Record<string, z.ZodType>> = {
  switched: SwitchedFields,
  proved: ProvedFields,
  cleared: ClearedFields,
  stands: StandsFields,
  wired: WiredFields,
  batch: BatchFields,
  taken: HoldFields,
  left: HoldFields,
  aside: AsideFields,
  tried: TriedFields,
  tested: TestedFields,
  cause: CauseFields,
};

/** Kinds of events that something here reads; those of other programs are kept. */
export const EVENT_KINDS = [
  'switched',
  'proved',
  'stands',
  'wired',
  'mounted',
  'cleared',
  'traced',
  'batch',
  'taken',
  'left',
  'aside',
  'tried',
  'tested',
  'cause',
  'correction',
] as const;

/**
 * What happened on site, append-only: `switched`, `proved`, `stands`, `wired`, `mounted`, `cleared`,
 * `traced`, `batch`, `taken`, `left`, `aside`, `tried`, `tested`, `cause`, `correction`. Kinds of other
 * programs are kept.
 */
export const JobEvent = open({
  id: Id.optional(),
  kind: Name,
  at: Instant.optional(),
  boxId: Id.optional(),
  circuitId: Id.optional(),
  state: Name.optional(),
  of: Id.optional(),
  /** The device of whoever recorded it, where it matters who did. */
  by: Id.optional(),
}).superRefine((event, context) => {
  const found = FIELDS_OF_KIND[event.kind]?.safeParse(event);
  if (found && !found.success)
    for (const issue of found.error.issues) context.addIssue({ ...issue, input: event } as never);
});

/**
 * A photograph of a box; the picture itself stands beside the document. Pins name conductors; x and y are
 * shares of its sides.
 */
export const Photo = open({
  id: Id.optional(),
  boxId: Id.optional(),
  stage: z.enum(['before', 'after']).optional(),
  at: Instant.optional(),
  width: z.number().optional(),
  height: z.number().optional(),
  note: Text.optional(),
  pins: z
    .array(open({ conductorId: Id, x: z.number().min(0).max(1), y: z.number().min(0).max(1) }))
    .optional(),
});

export const Brief = open({
  platforms: z.array(open({ name: Name, want: z.enum(['must', 'nice']) })).optional(),
  hubsOwned: z.array(Id).optional(),
  hubRooms: z.record(z.string(), Id).optional(),
  radios: z.array(Radio).optional(),
  wifi: open({
    clientsNow: Count.optional(),
    clientLimit: Count.optional(),
    band24: z.boolean().optional(),
    routerRoom: Id.optional(),
    /** The circuit the router hangs on. */
    routerCircuit: Id.optional(),
  }).optional(),
  feel: open({
    actuators: z.array(z.enum(['paddle', 'toggle', 'buttons', 'touch', 'dial'])).optional(),
    silent: z.boolean().optional(),
    upIsOn: z.boolean().optional(),
    indicator: z.enum(['any', 'dimmable', 'none']).optional(),
    onLevel: z.enum(['last', 'full', 'preset']).optional(),
    /** false: no microphone in the wall. */
    microphone: z.boolean().optional(),
  }).optional(),
  colour: Name.optional(),
  connectors: z.array(ConnectorKind).optional(),
  budget: Price.optional(),
  spares: Count.optional(),
  /** Whether one unit is bought and tried before the rest. */
  trialFirst: z.boolean().optional(),
  pins: z
    .array(
      open({
        boxId: Id,
        position: z.number().int().min(1),
        deviceId: Id.optional(),
        strategy: Strategy.optional(),
      }),
    )
    .optional(),
  bans: z
    .array(open({ deviceId: Id, boxId: Id.optional(), position: z.number().int().min(1).optional() }))
    .optional(),
});

/** Everything of a job that is not a record with an id of its own. */
export const jobHeader = {
  format: z.literal(FORMAT),
  version: z.literal(VERSION),
  id: Id,
  name: Name,
  client: open({ name: Name.optional(), contact: Name.optional() }).optional(),
  address: Text.optional(),
  notes: Text.optional(),
  practice: PracticeId,
  edition: z.enum(EDITIONS).optional(),
  site: open({
    latitude: z.number().min(-90).max(90).optional(),
    longitude: z.number().min(-180).max(180).optional(),
    timeZone: TimeZone.optional(),
    builtYear: z.number().int().optional(),
  }).optional(),
  money: open({ currency: Name, labourPerHour: Price }).optional(),
  brief: Brief.optional(),
  run: open({
    openAtOnce: z.number().int().min(1).optional(),
    testBeforeFold: z.boolean().optional(),
    jointOrder: z.array(z.enum(['ground', 'neutral', 'line', 'load'])).optional(),
    /** Pairs of hands, side by side. */
    installers: z.number().int().min(1).max(2).optional(),
    /** When the day begins, by the clock on the wall. */
    starts: WallTime.optional(),
    /** What of the list before leaving is packed, checked or told, by its key. */
    ready: z.array(Name).optional(),
    /** Boxes of each batch as somebody arranged them; absent: by the fewest trips. */
    batches: z.array(z.array(Id)).optional(),
  }).optional(),
  /** Lights meant to be lit in turn. */
  opposites: z.array(Opposites).optional(),
  /** How many of an item of the materials are in the van already, by the item. */
  inHand: z.record(z.string(), Count).optional(),
};

export const Job = open({
  ...jobHeader,
  circuits: z.array(Circuit),
  rooms: z.array(Room),
  loads: z.array(Load),
  boxes: z.array(Box),
  runs: z.array(Run).optional(),
  groups: z.array(Group),
  controlPoints: z.array(ControlPoint).optional(),
  things: z.array(Thing).optional(),
  selections: z.array(Selection),
  pairings: z.array(Pairing),
  hubs: z.array(HubOnSite),
  accounts: z.array(Account),
  automations: z.array(Automation),
  events: z.array(JobEvent),
  photos: z.array(Photo),
  overrides: z.array(open({ figure: KeyName, value: z.number(), note: Text.optional() })).optional(),
  catalogue: Catalogue,
});

export type Circuit = z.infer<typeof Circuit>;
export type Room = z.infer<typeof Room>;
export type Load = z.infer<typeof Load>;
export type Run = z.infer<typeof Run>;
export type Group = z.infer<typeof Group>;
export type ControlPoint = z.infer<typeof ControlPoint>;
export type Selection = z.infer<typeof Selection>;
export type JobEvent = z.infer<typeof JobEvent>;
export type Photo = z.infer<typeof Photo>;
export type Job = z.infer<typeof Job>;
