import { z } from 'zod';
import { TERMINAL_FORMS } from '../../terms/trade.js';
import {
  Colour,
  ConnectorKind,
  Count,
  Id,
  KeyName,
  LoadKind,
  Measure,
  Name,
  oneVolume,
  open,
  PracticeId,
  Price,
  Radio,
  Strategy,
  Text,
  volume,
  WireSize,
} from './primitives.js';

/** What a terminal of a device is for. */
export const TerminalRole = z.enum(['line', 'load', 'neutral', 'ground', 'traveler', 'sense']);

export const Terminal = open({
  id: Id,
  mark: Name.optional(),
  role: TerminalRole,
  channel: z.number().int().min(1).optional(),
  form: z.enum(TERMINAL_FORMS),
  colour: Colour.optional(),
  size: WireSize.optional(),
  length: Measure.optional(),
  strip: Measure.optional(),
  holds: z.number().int().min(1).optional(),
  optional: z.boolean().optional(),
});

export const Channel = open({
  id: z.number().int().min(1),
  name: Name.optional(),
  kind: z.enum(['relay', 'dimmer', 'fan-speed']),
  speeds: Count.optional(),
  alwaysOnMode: z.boolean().optional(),
  ratings: z.array(
    open({ kinds: z.array(LoadKind), limit: z.array(Measure).min(1), unit: z.enum(['W', 'VA', 'A']) }),
  ),
  minWatts: Measure.optional(),
  bypassPartId: Id.optional(),
});

export const MultiLocation = open({
  strategy: Strategy,
  partnerIds: z.array(Id).optional(),
  mainAt: z.enum(['line', 'load', 'either']).optional(),
  partner: open({
    line: z.boolean().optional(),
    neutral: z.boolean().optional(),
    travelers: Count.optional(),
  }).optional(),
  middle: z.enum(['tie', 'companion', 'keep']).optional(),
});

export const Device = open({
  id: Id,
  maker: Name,
  model: Name,
  family: Name,
  price: Price,
  practices: z.array(PracticeId),
  volts: z.array(Measure).length(2, 'must be the lowest and the highest voltage'),
  gangs: z.number().int().min(1),
  mount: z.enum(['box', 'fitting', 'surface']),
  body: open({ width: Measure, height: Measure, depth: Measure }),
  opening: Name.optional(),
  faceProud: z.number().optional(),
  ownPlate: z.boolean().optional(),
  colours: z.array(Name).optional(),
  shade: Name.optional(),
  fins: z.boolean().optional(),
  radio: Radio,
  hubId: Id.optional(),
  wifiBands: z.array(Name).optional(),
  repeater: z.boolean().optional(),
  platforms: z.array(Name),
  control: z.enum(['local', 'maker-cloud', 'both']).optional(),
  power: z.enum(['mains', 'battery']).optional(),
  batteryYears: Measure.optional(),
  standbyW: Measure.optional(),
  actuator: z.enum(['paddle', 'toggle', 'buttons', 'touch', 'dial']).optional(),
  audible: z.boolean().optional(),
  upIsOn: z.boolean().optional(),
  indicator: z.enum(['none', 'fixed', 'dimmable']).optional(),
  onLevel: z.enum(['last', 'full', 'preset']).optional(),
  microphone: z.boolean().optional(),
  terminals: z.array(Terminal),
  interchangeableLineLoad: z.boolean().optional(),
  needs: open({ neutral: z.boolean(), ground: z.enum(['required', 'recommended', 'none']) }),
  channels: z.array(Channel),
  multiLocation: z.array(MultiLocation).optional(),
  senses: z.array(z.enum(['motion', 'humidity', 'daylight'])).optional(),
  scenes: z.boolean().optional(),
  bulbController: z.boolean().optional(),
  bulbFamilies: z.array(Name).optional(),
  /** How it is put into pairing mode; other programs may write it otherwise (`commission/pairing/manner`). */
  pairing: open({
    steps: z.array(z.unknown()).optional(),
    asOf: z.unknown().optional(),
    press: z.unknown().optional(),
    light: z.unknown().optional(),
    joinedLight: z.unknown().optional(),
    minutes: z.unknown().optional(),
    alternate: z.unknown().optional(),
  }).optional(),
  settings: z.array(z.unknown()).optional(),
  includes: z.array(open({ partId: Id, count: Count.optional() })).optional(),
  /** Where its cut-out is, which parts it from the supply without a trip to the panel. */
  cutOut: Name.optional(),
  /** How it is set back to what it was when new. */
  reset: Name.optional(),
  /** What its light shows, and what that means. */
  lights: z.array(open({ shows: Name, means: Name })).optional(),
  /** What is set on it behind its plate, before the plate goes on. */
  behindPlate: z.array(Name).optional(),
  notes: Text.optional(),
});

export const Hub = open({
  id: Id,
  name: Name,
  price: Price,
  radio: Radio,
  platforms: z.array(Name),
  deviceLimit: Count,
  wired: z.boolean(),
});

export const Part = open({
  id: Id,
  name: Name,
  kind: Name,
  price: Price,
  ...volume,
  depth: Measure.optional(),
  where: z.enum(['fitting', 'box']).optional(),
  /** Of a plate: the gangs it covers, its opening, colours and shade. */
  gangs: z.number().int().min(1).optional(),
  opening: Name.optional(),
  colours: z.array(Name).optional(),
  shade: Name.optional(),
  /** Of a connector that comes in a package: which connector it is. */
  connectorId: Id.optional(),
  /** Of a bulb: the family it speaks, and whether it shows colours. */
  bulbFamily: Name.optional(),
  fullColour: z.boolean().optional(),
});

export const Connector = open({
  id: Id,
  kind: ConnectorKind,
  conductors: z.array(Count).length(2, 'must be the fewest and the most conductors').optional(),
  section: z.array(Measure).length(2, 'must be the least and the greatest section').optional(),
  ports: Count.optional(),
  ...volume,
  price: Price,
}).superRefine(oneVolume);

export const CatalogueEnclosure = open({
  id: Id,
  practice: PracticeId,
  name: Name,
  ...volume,
  gangs: z.number().int().min(1),
  depth: Measure.optional(),
  material: z.enum(['metal', 'plastic']).optional(),
  /** false: made for a light, not for a yoke. */
  forDevices: z.boolean().optional(),
  price: Price.optional(),
}).superRefine(oneVolume);

export const Platform = open({
  name: KeyName,
  matching: z.enum(['exact', 'tolerant']),
  groupsByRoom: z.boolean().optional(),
  phrasePerAction: z.boolean().optional(),
  reserved: z.array(Name).optional(),
});

export const Catalogue = open({
  devices: z.array(Device),
  hubs: z.array(Hub),
  parts: z.array(Part),
  connectors: z.array(Connector),
  enclosures: z.array(CatalogueEnclosure),
  platforms: z.array(Platform),
});

export type Terminal = z.infer<typeof Terminal>;
export type Channel = z.infer<typeof Channel>;
export type MultiLocation = z.infer<typeof MultiLocation>;
export type Device = z.infer<typeof Device>;
export type Hub = z.infer<typeof Hub>;
export type Part = z.infer<typeof Part>;
export type Connector = z.infer<typeof Connector>;
export type CatalogueEnclosure = z.infer<typeof CatalogueEnclosure>;
export type Platform = z.infer<typeof Platform>;
export type Catalogue = z.infer<typeof Catalogue>;
