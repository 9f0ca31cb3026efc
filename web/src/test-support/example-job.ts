import { readFileSync } from 'node:fs';
import { type Job, readJobFile } from '@inventario/core';

/** A fresh copy of a worked example of the core. */
export function exampleJob(name: string): Job {
  const result = readJobFile(
    readFileSync(new URL(`../../../core/examples/${name}.inventario.json`, import.meta.url), 'utf8'),
  );
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.job;
}
