import type { Box, Reading, Symptoms } from '@inventario/core';
import type { DiagnosisAnswer } from '../../data/engines.worker.js';

/** The place in doubt, with everything that is said of it. */
export interface Doubt {
  box: Box;
  position: number;
  seen: Symptoms;
  readings: readonly Reading[];
  answer: DiagnosisAnswer;
  /** The cause that is looked at; null: the first. */
  picked: string | null;
  pick: (key: string | null) => void;
}

export const causeKey = ({ cause, position }: DiagnosisAnswer['causes'][number]) => `${cause}|${position}`;
