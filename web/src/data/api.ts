import type {
  Catalogue,
  ChannelState,
  CommandRequest,
  DeedRequest,
  Edit,
  EditsAnswer,
  FindRequest,
  FindResult,
  HistoryEntry,
  JobSummary,
  JoinRequest,
  JoinState,
  LookRequest,
  LookResult,
  SayRequest,
  SayResult,
  SiteState,
  UpdateRequest,
  UpdateResult,
} from '@inventario/core';
import type { Base } from './session/kept-store.js';

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

export type Fetch = (path: string, init: RequestInit) => Promise<Response>;
type Ask = (path: string, init?: RequestInit) => Promise<Response>;

const asking =
  (fetchFrom: Fetch): Ask =>
  async (path, init = {}) => {
    let response: Response;
    try {
      response = await fetchFrom(path, { ...init, signal: init.signal ?? AbortSignal.timeout(20_000) });
    } catch {
      throw new UnreachableError('The server is not reached.');
    }
    if (response.ok || response.status === 304) return response;
    if (response.status === 502 || response.status === 504) {
      const text = await response.text();
      if (!text.includes('"error"')) throw new UnreachableError('The server is not reached.');
      throw fromBody(response.status, text);
    }
    throw fromBody(response.status, await response.text());
  };

/**
 * Whether a failure says nothing about what was asked: no network, a server that is down or busy. The same
 * may succeed later.
 */
export function isPassing(error: unknown): boolean {
  return !(error instanceof ApiError) || error.status >= 500 || error.status === 429 || error.status === 408;
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

/** Jobs as the server keeps them: the list, one whole, in and out, the bin. */
const jobsOver = (ask: Ask) => ({
  jobs: async (search = '', after?: string): Promise<{ jobs: JobSummary[]; next: string | null }> => {
    const query = new URLSearchParams({
      ...(search ? { search } : {}),
      ...(after === undefined ? {} : { after }),
    });
    const response = await ask(`/api/jobs${query.size > 0 ? `?${query}` : ''}`);
    const next = /[?&]after=([^&>]+)[^>]*>; rel="next"/.exec(response.headers.get('link') ?? '')?.[1];
    return { jobs: await response.json(), next: next ?? null };
  },
  /** Null: it is still as `known` has it. */
  job: async (id: string, known?: Base): Promise<Base | null> => {
    const tag = known?.generation
      ? { 'if-none-match': `"${known.generation}-${known.sequence}"` }
      : undefined;
    const response = await ask(`/api/jobs/${id}`, { ...(tag ? { headers: tag } : {}), cache: 'no-store' });
    if (response.status === 304) return null;
    const { headers } = response;
    return {
      job: await response.json(),
      sequence: Number(headers.get('x-job-sequence')),
      generation: headers.get('x-job-generation') ?? '',
    };
  },
  takeIn: async (job: unknown, existing?: 'replace' | 'copy'): Promise<{ id: string }> =>
    (await ask(`/api/jobs${existing ? `?existing=${existing}` : ''}`, json(job))).json(),
  takeInArchive: async (archive: Blob, existing?: 'replace' | 'copy'): Promise<{ id: string }> =>
    (
      await ask(`/api/jobs/archive${existing ? `?existing=${existing}` : ''}`, {
        method: 'POST',
        headers: { 'content-type': 'application/zip' },
        body: archive,
        signal: AbortSignal.timeout(900_000),
      })
    ).json(),
  archiveAddress: (jobId: string): string => `/api/jobs/${jobId}/archive`,
  catalogue: async (): Promise<Catalogue> => (await ask('/api/catalogue')).json(),
  remove: async (id: string): Promise<void> => void (await ask(`/api/jobs/${id}`, { method: 'DELETE' })),
  bringBack: async (id: string): Promise<void> =>
    void (await ask(`/api/jobs/${id}/return`, { method: 'POST' })),
});

/** What happens to one job: edits, their history, photographs. */
const workOver = (ask: Ask) => ({
  ready: async (): Promise<void> => void (await ask('/api/ready')),
  sendEdits: async (id: string, edits: Edit[]): Promise<EditsAnswer> =>
    (await ask(`/api/jobs/${id}/edits`, json({ edits }))).json(),
  history: async (
    id: string,
    record: { kind: string; id: string } | null,
    before?: number,
  ): Promise<HistoryEntry[]> => {
    const query = new URLSearchParams({
      ...(record ?? {}),
      ...(before === undefined ? {} : { before: String(before) }),
    });
    return (await ask(`/api/jobs/${id}/history?${query}`)).json();
  },
  keepPhoto: async (
    jobId: string,
    photoId: string,
    picture: Blob,
  ): Promise<{ width: number; height: number }> =>
    (
      await ask(`/api/jobs/${jobId}/photos/${photoId}`, {
        method: 'PUT',
        headers: { 'content-type': picture.type },
        body: picture,
        signal: AbortSignal.timeout(300_000),
      })
    ).json(),
  photoAddress: (jobId: string, photoId: string, size: 'full' | 'thumb'): string =>
    `/api/jobs/${jobId}/photos/${photoId}?size=${size}`,
});

/** The house behind the server: its router, and devices that join. */
const siteOver = (ask: Ask) => ({
  site: async (): Promise<SiteState> => (await ask('/api/site')).json(),
  startJoin: async (request: JoinRequest): Promise<JoinState> =>
    (await ask('/api/site/joins', json(request))).json(),
  join: async (id: string): Promise<JoinState> => (await ask(`/api/site/joins/${id}`)).json(),
  deed: async (request: DeedRequest): Promise<{ outcome: 'done' | 'cannot' }> =>
    (await ask('/api/site/deeds', json(request))).json(),
  look: async (request: LookRequest): Promise<LookResult> =>
    (await ask('/api/site/looks', json(request))).json(),
  updateDevice: async (request: UpdateRequest): Promise<UpdateResult> =>
    (await ask('/api/site/updates', json(request))).json(),
  find: async (request: FindRequest): Promise<FindResult> =>
    (await ask('/api/site/finds', json(request))).json(),
  sayWords: async (request: SayRequest): Promise<SayResult> =>
    (await ask('/api/site/sayings', json(request))).json(),
  command: async (request: CommandRequest): Promise<{ ms: number }> =>
    (await ask('/api/site/commands', json(request))).json(),
  states: async (): Promise<{ connected: boolean; states: ChannelState[] }> =>
    (await ask('/api/site/states')).json(),
});

/** Everything this application asks of its server; `fetchFrom` is the way there. */
export function makeApi(fetchFrom: Fetch) {
  const ask = asking(fetchFrom);
  return { ...jobsOver(ask), ...workOver(ask), ...siteOver(ask) };
}

export type Api = ReturnType<typeof makeApi>;
export const api = makeApi((path, init) => fetch(path, init));
