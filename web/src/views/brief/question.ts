import { type BriefEntry, type Job, possibleDevices } from '@inventario/core';
import { useMemo } from 'react';
import type { Control } from 'react-hook-form';
import { useJob } from '../../data/job-context.js';

export type Brief = NonNullable<Job['brief']>;

/**
 * What a question is given: the brief as it stands, the way to answer by a touch, and the form of what is
 * typed.
 */
export interface QuestionProps {
  brief: Brief;
  onChange: (more: Partial<Brief>, label: string) => void;
  control: Control<BriefEntry>;
}

/** How many devices an answer would leave; `liked` counts the likes too. */
export function useLeft(which: 'possible' | 'liked') {
  const { job } = useJob();
  const { practice, catalogue } = job;
  return useMemo(
    () => (brief: Brief) => possibleDevices({ practice, catalogue }, brief)[which],
    [practice, catalogue, which],
  );
}
