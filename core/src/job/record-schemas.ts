import type { z } from 'zod';
import type { RecordKind } from './records.js';
import { CatalogueEnclosure, Connector, Device, Hub, Part, Platform } from './schema/catalogue.js';
import { Account, Automation, HubOnSite, Pairing, Thing } from './schema/commissioning.js';
import {
  Circuit,
  ControlPoint,
  Group,
  Job,
  JobEvent,
  jobHeader,
  Load,
  Photo,
  Room,
  Run,
  Selection,
} from './schema/job.js';
import { open } from './schema/primitives.js';
import { Box } from './schema/survey.js';

/** The schema of one record of each kind. */
export const RECORD_SCHEMAS: Record<RecordKind, z.ZodType> = {
  job: open(jobHeader),
  circuit: Circuit,
  room: Room,
  load: Load,
  box: Box,
  run: Run,
  group: Group,
  controlPoint: ControlPoint,
  thing: Thing,
  selection: Selection,
  pairing: Pairing,
  hubSetup: HubOnSite,
  account: Account,
  automation: Automation,
  event: JobEvent,
  photo: Photo,
  override: Job.shape.overrides.unwrap().element,
  device: Device,
  hub: Hub,
  part: Part,
  connector: Connector,
  enclosure: CatalogueEnclosure,
  platform: Platform,
};
