/** Something a person can put right, said in one line. */
export class StartError extends Error {}

/** Somebody asked for the end while things were being started. */
export class StoppedError extends Error {}

/** Any failure as one line for a person. */
export function lineOf(error: unknown): string {
  const text = error instanceof Error ? error.message : String(error);
  const code = (error as { code?: string }).code;
  if (code === 'ENOSPC') return 'The disk is full; make room and start again.';
  return text.trim().split('\n')[0] || 'It failed without saying why.';
}
