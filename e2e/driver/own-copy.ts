import { readFileSync } from 'node:fs';
import type { Job } from '@inventario/core';
import type { Page } from '@playwright/test';

/**
 * A copy of a job of the demo for one journey alone, as it came: what is done there no other journey meets,
 * nor does it meet what another did. Gives the path of the copy.
 * @param change what is to be otherwise in it from the start
 */
export async function ownCopy(
  page: Page,
  jobId: string,
  copyId: string,
  change: (job: Job) => void = () => {},
): Promise<string> {
  const file = new URL(`../../demo/jobs/${jobId}.inventario.json`, import.meta.url);
  const data = JSON.parse(readFileSync(file, 'utf8'));
  change(data as Job);
  const taken = await page.request.post(`/api/jobs?existing=copy&copyId=${copyId}`, { data });
  const { id } = await taken.json();
  return `/jobs/${id}`;
}
