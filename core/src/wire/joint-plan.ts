import { isAluminium } from '../job/conductors.js';
import type { WireSize } from '../job/schema/primitives.js';
import type { At, Conductor } from '../job/schema/survey.js';
import type { BundleMember, ConnectorChoice } from './connectors.js';
import type { NetKey, OnceWired } from './once-wired.js';

/** A pigtail or jumper to be made. `from`, `to`: the joints or terminals its ends stand at. Length mm. */
export interface MadePiece {
  id: string;
  kind: 'pigtail' | 'jumper';
  from: string;
  to: string;
  size: WireSize;
  length: number;
  net: NetKey;
}

interface PlannedJoint {
  id: string;
  net: NetKey;
  members: string[];
  connector: ConnectorChoice | null;
  /** Nobody opens it: it keeps the connector it has. */
  kept: boolean;
}

/**
 * How the box is put together: where every loose end and every planned terminal is, once each. Fill, match
 * and materials count by it, and the wiring proves and draws it.
 */
export interface JointPlan {
  joints: PlannedJoint[];
  made: MadePiece[];
  /** A conductor straight on a terminal, `1.L`, or on the box's screw, `box`. */
  landed: { terminal: string; conductorId: string }[];
  /** Conductors, and terminals nothing goes to. */
  capped: string[];
  /** Ends that stay at a position whose device stays, or at the box's screw. */
  kept: { conductorId: string; at: string }[];
  /** Old pigtails and jumpers no longer used. */
  removed: string[];
  /** The net of each planned terminal, `1.L`; undefined where the findings do not tell. */
  terminals: Map<string, NetKey | undefined>;
  /** The largest building conductor of each net. */
  largest: Map<NetKey, WireSize>;
  wired: OnceWired;
}

/** Something that goes into a joint, by the id of a conductor or the name of a terminal. */
export interface Member extends BundleMember {
  name: string;
}

/** A loose end of the box with the net it is to be on. */
export interface End {
  conductor: Conductor;
  at: At;
  net: NetKey;
  /** At a terminal of a device that comes out. */
  freed: boolean;
}

export const memberOf = (conductor: Conductor): Member => ({
  name: conductor.id,
  size: conductor.size,
  aluminium: isAluminium(conductor),
});

export const namesOf = (members: readonly Member[]): string[] => members.map(({ name }) => name);

/** `1.a` of a terminal, `box` of the box's screw. */
export const placeName = (at: At): string => (at.boxScrew ? 'box' : `${at.position}.${at.terminal}`);
