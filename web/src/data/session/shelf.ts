import type { Catalogue } from '@inventario/core';
import { api } from '../api.js';
import { keptStore } from './kept-store.js';

/** The catalogue new jobs begin with: from the server, or as this device kept it when the server is away. */
export async function shelvedCatalogue(): Promise<Catalogue> {
  try {
    const catalogue = await api.catalogue();
    await keptStore()
      .keepCatalogue(catalogue)
      .catch(() => {});
    return catalogue;
  } catch (error) {
    const kept = await keptStore()
      .catalogue()
      .catch(() => undefined);
    if (!kept) throw error;
    return kept;
  }
}

/** Keeps a job with its pictures on this device before it is needed where there is no network. */
export async function keepForLater(jobId: string): Promise<void> {
  const store = keptStore();
  const { base } = await store.job(jobId);
  const fresh = await api.job(jobId, base);
  if (fresh) await store.write(jobId, { base: fresh });
  const photos = (fresh ?? base)?.job.photos ?? [];
  for (const { id } of photos) {
    if (!id) continue;
    // The browser keeps what it has once fetched.
    for (const size of ['thumb', 'full'] as const)
      await fetch(api.photoAddress(jobId, id, size)).catch(() => {});
  }
  await askToStay();
}

/** Asks the browser not to clear what is kept when room gets short. @returns whether it will not */
export async function askToStay(): Promise<boolean> {
  return (await navigator.storage?.persist?.().catch(() => false)) ?? false;
}
