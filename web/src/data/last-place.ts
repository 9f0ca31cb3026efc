/** Where one was last in a job on this device, to go on from. */
export interface LastPlace {
  boxId: string;
  name: string;
}

const keyOf = (jobId: string) => `last-box:${jobId}`;

export function keepLastPlace(jobId: string, place: LastPlace): void {
  localStorage.setItem(keyOf(jobId), JSON.stringify(place));
}

export function lastPlace(jobId: string): LastPlace | null {
  try {
    const { boxId, name } = JSON.parse(localStorage.getItem(keyOf(jobId)) ?? 'null') as Record<
      string,
      unknown
    >;
    return typeof boxId === 'string' && typeof name === 'string' ? { boxId, name } : null;
  } catch {
    return null;
  }
}
