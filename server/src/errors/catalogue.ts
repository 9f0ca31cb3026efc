/**
 * Every way a request can fail, with its status. `docs/errors.md` lists the same and a test compares the two.
 */
export const ERRORS = {
  'bad-request': {
    status: 400,
    says: 'The body, the address or a header is not what the route takes; `problems` names each field.',
  },
  'not-json': { status: 400, says: 'The body is not JSON.' },
  'wrong-host': {
    status: 421,
    says: 'This server does not answer to that name; INVENTARIO_HOSTS lists those it does.',
  },
  'no-such-route': { status: 404, says: 'There is nothing at this address.' },
  'no-such-job': { status: 404, says: 'No job has this id.' },
  'no-such-join': { status: 404, says: 'The site knows no such try at joining.' },
  'not-joined': { status: 404, says: 'No device has joined at this place.' },
  'no-such-photo': { status: 404, says: 'There is no photograph with this id.' },
  'job-exists': { status: 409, says: 'A job with this id is there already; say `replace` or `copy`.' },
  'not-in-bin': {
    status: 409,
    says: 'The job is not in the bin: it was never taken out, or is back already.',
  },
  'too-slow': { status: 408, says: 'The request did not come in whole in the time it has.' },
  'too-large': { status: 413, says: 'The body is larger than the route takes.' },
  'wrong-media-type': { status: 415, says: 'The body is of a media type the route does not take.' },
  'not-a-picture': { status: 415, says: 'The body is not a JPEG, PNG or WebP picture.' },
  'unusable-job': { status: 422, says: 'The job file has errors; `problems` lists them with JSON Pointers.' },
  'too-many-requests': { status: 429, says: 'Too many requests in a short time; wait and send again.' },
  'head-too-large': { status: 431, says: 'The address and the headers are larger than the server takes.' },
  'site-unreachable': { status: 502, says: 'The site (router, hubs, devices) does not answer.' },
  'no-answer': { status: 504, says: 'The device was told and did not answer.' },
  busy: { status: 503, says: 'More is being done at once than this server takes; wait and send again.' },
  'not-ready': { status: 503, says: 'The database or the disk does not serve; `problems` says which.' },
  'disk-full': {
    status: 507,
    says: 'There is no room left where photographs are kept; nothing was changed.',
  },
  'database-unreachable': { status: 503, says: 'The database does not answer; nothing was changed.' },
  internal: { status: 500, says: 'A fault of the program; nothing was changed.' },
} as const satisfies Record<string, { status: number; says: string }>;

export type ErrorCode = keyof typeof ERRORS;

/**
 * Thrown by routes; becomes `{"error": {"code", "message", "problems"?}}` with the status of the catalogue.
 */
export class RequestError extends Error {
  constructor(
    readonly code: ErrorCode,
    readonly problems: readonly { path: string; message: string }[] = [],
  ) {
    super(ERRORS[code].says);
  }
}
