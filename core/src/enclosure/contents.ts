import type { FiguresInUse } from '../job/figures.js';
import type { Body, PracticeProfile } from '../practice/profile.js';
import type { ConnectorKind, WireSize } from '../terms/trade.js';

/**
 * What is in a box, as fill, depth and packing want it: plain data, gathered by `as-found.ts` or
 * `as-planned.ts`. Lengths mm, volumes mL.
 */
export interface BoxContents {
  practice: PracticeProfile;
  figures: Pick<FiguresInUse, 'fill' | 'packing'>;
  capacity: CountedCapacity;
  /** Interior depth with rings and set-back; null when nobody measured it. */
  availableDepth: number | null;
  /** Inside width and height where known, for bodies that must pass. */
  opening: { width: number; height: number } | null;
  conductors: ContentConductor[];
  internalClamps: boolean;
  supportFittings: number;
  straps: Strap[];
  connectors: ContentConnector[];
  /** Tails of devices: their size and length; they never count as conductors. */
  leads: { size: WireSize; length: number }[];
}

export interface CountedCapacity {
  /** null when the mark was not read. */
  ml: number | null;
  /** Whether the counting rule accepts it; a measured box, or an unmarked non-metallic one, has none. */
  standing: boolean;
}

export interface ContentConductor {
  id: string;
  size: WireSize;
  /** false: a pigtail or jumper made in the box. */
  fromOutside: boolean;
  ground: boolean;
  isolatedGround: boolean;
  bare: boolean;
  /** Passes through in a loop long enough to count twice. */
  longLoop: boolean;
  length: number;
}

/** One yoke or strap with the devices on it. */
export interface Strap {
  positions: number[];
  gangs: number;
  /**
   * The largest building conductor joined to it; undefined when nothing is known: the largest in the box
   * stands in.
   */
  size: WireSize | undefined;
  bodies: { position: number; body: Body; clearance: number }[];
}

export interface ContentConnector {
  kind: ConnectorKind | 'unknown' | 'other';
  ml: number;
  onlyBare: boolean;
  /** Joints of one terminal block assembly share it. */
  assembly: string;
  largest: WireSize | undefined;
}
