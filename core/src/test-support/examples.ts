import { readdirSync, readFileSync } from 'node:fs';
import { readJobFile } from '../document/read.js';
import type { Job } from '../job/schema/job.js';

const FOLDER = new URL('../../examples/', import.meta.url);

export const EXAMPLES = readdirSync(FOLDER)
  .filter((name) => name.endsWith('.inventario.json'))
  .map((name) => name.replace('.inventario.json', ''));

export function exampleText(name: string): string {
  return readFileSync(new URL(`${name}.inventario.json`, FOLDER), 'utf8');
}

/** A fresh copy of a worked example, free to be changed. */
export function exampleJob(name: string): Job {
  const result = readJobFile(exampleText(name));
  if (!result.ok) throw new Error(`The example ${name} cannot be read: ${JSON.stringify(result.problems)}`);
  return result.job;
}

export function expected(name: string): Record<string, unknown> {
  return JSON.parse(readFileSync(new URL(`${name}.expected.json`, FOLDER), 'utf8')) as Record<
    string,
    unknown
  >;
}
