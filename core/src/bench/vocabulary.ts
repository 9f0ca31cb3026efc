import type { NextTest } from '../identify/asking/next-tests.js';
import type { Reading } from '../job/schema/survey.js';
import type { StopCode } from '../power/vocabulary.js';
import type { Blocker } from '../progress/progress.js';

/** How a box stands now: what a reading made next would find. */
export interface Stance {
  arrangement: Reading['arrangement'];
  /** The device that is out, where one is. */
  position: number | null;
}

/** The one next step at a box. */
export type NextStep =
  /** Work stops here. */
  | { kind: 'stop'; code: StopCode }
  /** Labels of one joint exclude each other. */
  | { kind: 'clash'; conductorId: string }
  /** Which breaker feeds it; `candidates` first. */
  | { kind: 'circuit'; candidates: string[] }
  /** What a switch controls. */
  | { kind: 'controls'; position: number }
  /** How good the signal is, before the power goes off. */
  | { kind: 'signal' }
  /**
   * The switch is worked, the lamp watched, nothing opened. `far`: the other switch of a pair, worked too.
   */
  | { kind: 'lamp'; position: number; loadId: string; circuitIds: string[]; far: string | null }
  /**
   * A breaker goes to another state. `handsOff`: what is said once before an open box is energised. `clips`:
   * the points that the meter is clipped to before, dead.
   */
  | { kind: 'breaker'; circuitId: string; to: 'on' | 'off'; handsOff: boolean; clips: string[] }
  /** `boxId`: of another box, here and in `stands`; null: of the box in hand. */
  | { kind: 'prove'; stage: 'face' | 'device-out'; boxId: string | null }
  /** Devices come out or go back, conductors are lifted or parted. */
  | { kind: 'stands'; to: Stance; lifted: string[]; boxId: string | null }
  /** A lamp comes out, or goes back. */
  | { kind: 'load'; loadId: string; out: boolean }
  | { kind: 'switch'; key: string; to: 'on' | 'off' | 'up' | 'down' }
  /** Which usual box it looks like. */
  | { kind: 'contents' }
  /** Volume, where a count needs it, and depth. */
  | { kind: 'enclosure'; volume: boolean; depth: boolean }
  /** The indicator over all of them: which ones alert. */
  | { kind: 'sweep'; test: NextTest; points: string[] }
  | { kind: 'read'; test: NextTest }
  /** What the readings prove becomes labels. */
  | { kind: 'flag'; conductorIds: string[] }
  /** Guesses become labels, each as taken by eye. */
  | { kind: 'marks'; marks: Mark[] }
  /** One conductor to label. */
  | { kind: 'label'; conductorId: string }
  /** Conductors of a kind, labelled as a set. */
  | { kind: 'set'; role: 'neutral' | 'ground'; conductorIds: string[] }
  /** What the box waits for beyond its survey. */
  | { kind: 'onward'; blocker: Blocker }
  | { kind: 'done' };

/** A role a conductor seems to have, good enough to be labelled with. */
export interface Mark {
  conductorId: string;
  role: 'line' | 'load' | 'neutral' | 'ground' | 'line-on' | 'switched-line' | 'traveler' | 'spare';
  traveler?: number;
}
