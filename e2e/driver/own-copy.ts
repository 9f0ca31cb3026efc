import type { Page } from '@playwright/test';

/**
 * A copy of a job of the demo for one journey alone: what it does there, no other journey meets. Gives the
 * path of the copy.
 */
export async function ownCopy(page: Page, jobId: string, copyId: string): Promise<string> {
  const job = await (await page.request.get(`/api/jobs/${jobId}`)).json();
  const taken = await page.request.post(`/api/jobs?existing=copy&copyId=${copyId}`, { data: job });
  const { id } = await taken.json();
  return `/jobs/${id}`;
}
