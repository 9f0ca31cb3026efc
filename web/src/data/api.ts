import type { Catalogue, Edit, EditsAnswer, Job, JobSummary, JoinRequest, JoinState, SiteState } from '@inventario/core';

/** The server said no. `problems` names fields by JSON Pointer. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly problems: readonly { path: string; message: string }[] = [],
  ) {
    super(message);
  }
}

/** The server was not reached at all: no network, or it is down. */
export class UnreachableError extends Error {}

async function ask(path: string, init: RequestInit = {}): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, { ...init, signal: init.signal ?? AbortSignal.timeout(20_000) });
  } catch {
    throw new UnreachableError('The server is not reached.');
  }
  if (response.ok) return response;
  if (response.status === 502 || response.status === 504) {
    const text = await response.text();
    if (!text.includes('"error"')) throw new UnreachableError('The server is not reached.');
    throw fromBody(response.status, text);
  }
  throw fromBody(response.status, await response.text());
}

function fromBody(status: number, text: string): ApiError {
  try {
    const { error } = JSON.parse(text);
    return new ApiError(status, error.code, error.message, error.problems);
  } catch {
    return new ApiError(status, 'internal', `The server answered with status ${status}.`);
  }
}

const json = (body: unknown, method = 'POST'): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

export interface StoredJob {
  job: Job;
  sequence: number;
}

export const api = {
  jobs: async (): Promise<JobSummary[]> => (await ask('/api/jobs')).json(),
  job: async (id: string): Promise<StoredJob> => {
    const response = await ask(`/api/jobs/${id}`);
    return { job: await response.json(), sequence: Number(response.headers.get('x-job-sequence')) };
  },
  takeIn: async (job: unknown, existing?: 'replace' | 'copy'): Promise<{ id: string }> =>
    (await ask(`/api/jobs${existing ? `?existing=${existing}` : ''}`, json(job))).json(),
  takeInArchive: async (archive: Blob, existing?: 'replace' | 'copy'): Promise<{ id: string }> =>
    (
      await ask(`/api/jobs/archive${existing ? `?existing=${existing}` : ''}`, {
        method: 'POST',
        headers: { 'content-type': 'application/zip' },
        body: archive,
        signal: AbortSignal.timeout(300_000),
      })
    ).json(),
  archiveAddress: (jobId: string): string => `/api/jobs/${jobId}/archive`,
  catalogue: async (): Promise<Catalogue> => (await ask('/api/catalogue')).json(),
  remove: async (id: string): Promise<void> => void (await ask(`/api/jobs/${id}`, { method: 'DELETE' })),
  sendEdits: async (id: string, edits: Edit[]): Promise<EditsAnswer> => (await ask(`/api/jobs/${id}/edits`, json({ edits }))).json(),
  keepPhoto: async (jobId: string, photoId: string, picture: Blob): Promise<{ width: number; height: number }> =>
    (await ask(`/api/jobs/${jobId}/photos/${photoId}`, { method: 'PUT', headers: { 'content-type': picture.type }, body: picture })).json(),
  photoAddress: (jobId: string, photoId: string, size: 'full' | 'thumb'): string => `/api/jobs/${jobId}/photos/${photoId}?size=${size}`,
  site: async (): Promise<SiteState> => (await ask('/api/site')).json(),
  startJoin: async (request: JoinRequest): Promise<JoinState> => (await ask('/api/site/joins', json(request))).json(),
  join: async (id: string): Promise<JoinState> => (await ask(`/api/site/joins/${id}`)).json(),
};
