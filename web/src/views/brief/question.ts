import { type Job, possibleDevices } from '@inventario/core';
import { useMemo } from 'react';
import { useJob } from '../../data/job-context.js';

export type Brief = NonNullable<Job['brief']>;

/** What every question is given: the brief as it stands, and the way to answer. */
export interface QuestionProps {
  brief: Brief;
  onChange: (more: Partial<Brief>, label: string) => void;
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
