import type { JobLookup } from '../../job/lookup.js';
import type { Platform } from '../../job/schema/catalogue.js';
import type { Pairing } from '../../job/schema/commissioning.js';
import type { ChosenChannel } from '../../job/targets.js';
import type { Heard } from './fold.js';

type NameCode =
  | 'unnamed'
  | 'default'
  | 'duplicate'
  | 'sounds-alike'
  | 'equals-room'
  | 'reserved'
  | 'differs'
  | 'take-over'
  | 'old-still-there';

/** What is wrong with a name, or still to be done about it. */
export interface NameFinding {
  code: NameCode;
  /** Null but in `reserved` and `differs`. */
  platform: string | null;
  /** Ids of what it clashes with: channels, things, rooms. */
  with: string[];
  /** The word that is reserved, or the name another app shows. */
  word?: string;
}

/** The words that work a channel on one platform: to be said, or the names of the two scenes to make. */
export interface Phrase {
  platform: string;
  on: string;
  off: string;
  scenes: boolean;
}

/** What is to be said of the name of one channel. */
export interface ChannelName {
  boxId: string;
  position: number;
  channel: number;
  name: string | null;
  findings: NameFinding[];
  suggestion: string | null;
  phrases: Phrase[];
}

/** A channel with what was recorded of its name. */
export interface NamedChannel extends ChosenChannel {
  pairing: Pairing | undefined;
  name: string | null;
  heard: Heard | null;
  /** Those of the brief that the device lists, in the brief's order. */
  platforms: Platform[];
  /** Whether it is the first of its device. */
  first: boolean;
}

/** Everything of a job that has a name one may say. */
export interface NameGround {
  known: JobLookup;
  channels: NamedChannel[];
  things: { id: string; heard: Heard }[];
  /** Rooms by their folded name. */
  rooms: ReadonlyMap<string, string[]>;
}
