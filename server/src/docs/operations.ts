import type { ErrorCode } from '../errors/catalogue.js';

/** What the document says of an operation beside its schemas. */
export interface Operation {
  operationId: string;
  tag: keyof typeof TAGS;
  /** What a success is. */
  answers: string;
  /** Beside those of {@link ALWAYS}. */
  fails: readonly ErrorCode[];
  /** Statuses of success without a body. */
  also?: Readonly<Record<string, string>>;
  example?: unknown;
  bodyExample?: unknown;
  /** Bodies that the route's schema does not tell. */
  takes?: Record<string, unknown>;
  gives?: Record<string, unknown>;
  headers?: Record<string, unknown>;
  requestHeaders?: readonly unknown[];
}

export const TAGS = {
  jobs: 'Whole jobs: listed, taken in, read, put in the bin',
  changes: 'Edits and what became of them',
  photographs: 'Pictures of boxes',
  catalogue: 'What new jobs begin with',
  site: 'Router, hubs and devices of the house',
  server: 'The server itself',
} as const;

/** What any request can meet. */
export const ALWAYS: readonly ErrorCode[] = [
  'bad-request',
  'too-slow',
  'wrong-host',
  'too-many-requests',
  'head-too-large',
  'internal',
  'database-unreachable',
];

const header = (description: string, type = 'string') => ({ description, schema: { type } });
const binary = { schema: { type: 'string', format: 'binary' } };
const JOB_REF = { schema: { $ref: '#/components/schemas/Job' } };
const EDIT = {
  id: '0190b2c4-6f00-7000-8000-000000000001',
  deviceId: '0190b2c4-6f00-7000-8000-0000000000d1',
  n: 17,
  at: '2026-05-04T09:12:00Z',
  label: 'Name the box',
  parts: [
    {
      kind: 'box',
      id: 'radio-door',
      base: 41,
      set: { name: { was: 'Radio room, door', now: 'Radio room, oak door' } },
    },
  ],
};
const JOIN = {
  deviceId: 'pw-15',
  place: 'radio-door/1',
  radio: 'wifi',
  deviceBands: ['2.4'],
  phoneBand: '2.4',
  rssi: -58,
  hubId: null,
  powered: true,
  channels: [{ id: 1, watts: 54, dims: false }],
};
const SITE_BODY_FAILS: readonly ErrorCode[] = [
  'not-json',
  'too-large',
  'wrong-media-type',
  'site-unreachable',
];
const CHANNEL_STATE = {
  place: 'kitchen-door/1',
  channel: 1,
  on: true,
  level: 40,
  watts: 21.6,
  at: '2026-05-04T09:12:00.000Z',
};
const JOINED = {
  id: 'j1',
  state: 'running',
  progress: 0.4,
  step: 'keys',
  reason: null,
  listed: null,
  seconds: 6,
};
const SUMMARY = {
  id: 'quillon-point',
  name: 'Quillon Point light, keeper’s house',
  practice: 'us',
  rooms: 10,
  boxes: 14,
  updatedAt: '2026-05-04T09:12:00.000Z',
  stages: { survey: { done: 9, of: 14 } },
  blocker: 'no neutral at the place',
};

/** By method and address, as they stand in the document. */
export const OPERATIONS: Readonly<Record<string, Operation>> = {
  'GET /api/health': {
    operationId: 'readHealth',
    tag: 'server',
    answers: 'What works and what does not; `ok` when changes can be taken',
    fails: [],
    example: { ok: true, database: 'ok', disk: 'ok', site: 'ok', freeBytes: 51_000_000_000 },
  },
  'GET /api/ready': {
    operationId: 'readReady',
    tag: 'server',
    answers: 'Changes can be taken now',
    fails: ['not-ready'],
    example: { ready: true },
  },
  'GET /api/jobs': {
    operationId: 'listJobs',
    tag: 'jobs',
    answers: 'Summaries of one page',
    fails: [],
    headers: { Link: header('The address of the next page, `rel="next"`; absent on the last') },
    example: [SUMMARY],
  },
  'POST /api/jobs': {
    operationId: 'takeJobIn',
    tag: 'jobs',
    answers: 'The job is kept under this id',
    fails: ['not-json', 'too-large', 'wrong-media-type', 'job-exists', 'unusable-job'],
    takes: { 'application/json': JOB_REF },
    example: { id: 'quillon-point' },
  },
  'GET /api/jobs/{jobId}': {
    operationId: 'readJob',
    tag: 'jobs',
    answers: 'The whole job, as a job file',
    fails: ['no-such-job'],
    also: { 304: 'The job is still as the tag given says' },
    gives: { 'application/json': JOB_REF },
    headers: {
      ETag: header('Generation and sequence of the job'),
      'x-job-sequence': header('The last change in it', 'integer'),
      'x-job-generation': header(
        'Which document of this id it is; another after an import over it or a return from the bin',
      ),
    },
    requestHeaders: [
      {
        name: 'If-None-Match',
        in: 'header',
        description: 'The tag of what the caller has',
        schema: { type: 'string' },
      },
    ],
  },
  'DELETE /api/jobs/{jobId}': {
    operationId: 'removeJob',
    tag: 'jobs',
    answers: 'The job is in the bin',
    fails: ['no-such-job'],
  },
  'POST /api/jobs/{jobId}/return': {
    operationId: 'bringJobBack',
    tag: 'jobs',
    answers: 'The job is back, as a new generation of itself',
    fails: ['no-such-job', 'not-in-bin'],
  },
  'POST /api/jobs/archive': {
    operationId: 'takeArchiveIn',
    tag: 'jobs',
    answers: 'The job and its photographs are kept under this id',
    fails: ['too-large', 'wrong-media-type', 'job-exists', 'unusable-job', 'busy', 'disk-full'],
    takes: { 'application/zip': binary },
    example: { id: 'quillon-point' },
  },
  'GET /api/jobs/{jobId}/archive': {
    operationId: 'readArchive',
    tag: 'jobs',
    answers: 'A ZIP archive of `job.inventario.json` and `photos/ID.jpg`',
    fails: ['no-such-job'],
    gives: { 'application/zip': binary },
  },
  'POST /api/jobs/{jobId}/edits': {
    operationId: 'applyEdits',
    tag: 'changes',
    answers: 'An answer to each edit, in their order',
    fails: ['not-json', 'too-large', 'wrong-media-type', 'no-such-job'],
    bodyExample: { edits: [EDIT] },
    example: { results: [{ editId: EDIT.id, outcome: 'applied', sequence: 42 }], sequence: 42 },
  },
  'GET /api/jobs/{jobId}/changes': {
    operationId: 'listChanges',
    tag: 'changes',
    answers: 'Changes after one, oldest first',
    fails: ['no-such-job'],
    example: [{ sequence: 42, at: '2026-05-04T09:12:01.000Z', edit: EDIT }],
  },
  'GET /api/jobs/{jobId}/changes/stream': {
    operationId: 'followChanges',
    tag: 'changes',
    answers: 'Events until either side ends it; after an hour the server does',
    fails: ['no-such-job', 'busy'],
    gives: {
      'text/event-stream': {
        schema: {
          type: 'string',
          description:
            'Events `change` (data: a Change, id: its sequence), `generation` (data: `{"generation", "sequence"}`) and `gone` (data: `{}`, the last).',
        },
        example:
          'id: 42\nevent: change\ndata: {"sequence": 42, "at": "2026-05-04T09:12:01.000Z", "edit": null}\n\n',
      },
    },
    requestHeaders: [
      {
        name: 'Last-Event-ID',
        in: 'header',
        description: 'The sequence after which the stream resumes',
        schema: { type: 'string' },
      },
    ],
  },
  'GET /api/jobs/{jobId}/history': {
    operationId: 'readHistory',
    tag: 'changes',
    answers: 'Entries, newest first',
    fails: ['no-such-job'],
    example: [
      {
        sequence: 42,
        at: '2026-05-04T09:12:01.000Z',
        deviceId: EDIT.deviceId,
        label: EDIT.label,
        parts: EDIT.parts,
        undo: [
          {
            kind: 'box',
            id: 'radio-door',
            base: null,
            set: { name: { was: 'Radio room, oak door', now: 'Radio room, door' } },
          },
        ],
      },
    ],
  },
  'PUT /api/jobs/{jobId}/photos/{photoId}': {
    operationId: 'keepPhoto',
    tag: 'photographs',
    answers: 'The picture is kept, at this size',
    fails: [
      'no-such-job',
      'no-such-photo',
      'too-large',
      'wrong-media-type',
      'not-a-picture',
      'busy',
      'disk-full',
    ],
    takes: { 'image/jpeg': binary, 'image/png': binary, 'image/webp': binary },
    example: { width: 2400, height: 1800 },
  },
  'GET /api/jobs/{jobId}/photos/{photoId}': {
    operationId: 'readPhoto',
    tag: 'photographs',
    answers: 'The picture',
    fails: ['no-such-job', 'no-such-photo'],
    gives: { 'image/jpeg': binary },
  },
  'DELETE /api/jobs/{jobId}/photos/{photoId}': {
    operationId: 'removePhoto',
    tag: 'photographs',
    answers: 'The picture is gone',
    fails: ['no-such-job'],
  },
  'GET /api/catalogue': {
    operationId: 'readCatalogue',
    tag: 'catalogue',
    answers: 'Devices, hubs, parts, connectors, boxes and platforms',
    fails: [],
  },
  'GET /api/site': {
    operationId: 'readSite',
    tag: 'site',
    answers: 'The router and its clients',
    fails: ['site-unreachable'],
    example: {
      name: 'Quillon house',
      clients: 9,
      clientLimit: 64,
      bands: ['2.4', '5'],
      hubs: [{ hubId: 'ha-hub', online: true, joining: true, devices: 4, deviceLimit: 50 }],
    },
  },
  'POST /api/site/joins': {
    operationId: 'startJoin',
    tag: 'site',
    answers: 'The try has begun',
    fails: SITE_BODY_FAILS,
    bodyExample: JOIN,
    example: JOINED,
  },
  'GET /api/site/joins/{joinId}': {
    operationId: 'readJoin',
    tag: 'site',
    answers: 'How far the try has come',
    fails: ['no-such-join', 'site-unreachable'],
    example: JOINED,
  },
  'POST /api/site/deeds': {
    operationId: 'tellDeed',
    tag: 'site',
    answers: 'Whether it could be done',
    fails: SITE_BODY_FAILS,
    bodyExample: { place: 'kitchen-door/1', deed: 'press-mode' },
    example: { outcome: 'done' },
  },
  'POST /api/site/looks': {
    operationId: 'askLook',
    tag: 'site',
    answers: 'What the router or hub says',
    fails: SITE_BODY_FAILS,
    bodyExample: { place: 'kitchen-door/1', look: 'router-count' },
    example: { bad: false },
  },
  'POST /api/site/updates': {
    operationId: 'updateDevice',
    tag: 'site',
    answers: 'What came of it, and the version it has now',
    fails: [...SITE_BODY_FAILS, 'not-joined'],
    bodyExample: { place: 'kitchen-door/1' },
    example: { outcome: 'done', version: '1.1' },
  },
  'POST /api/site/finds': {
    operationId: 'findChannel',
    tag: 'site',
    answers: 'The routes over which it was found',
    fails: SITE_BODY_FAILS,
    bodyExample: {
      place: 'kitchen-door/1',
      channel: 1,
      platform: 'Orrery',
      name: 'Range lights',
      room: 'Kitchen',
    },
    example: { routes: ['maker'], room: 'Kitchen' },
  },
  'POST /api/site/sayings': {
    operationId: 'sayWords',
    tag: 'site',
    answers: 'The channels that answered, and after how long',
    fails: SITE_BODY_FAILS,
    bodyExample: { platform: 'Orrery', words: 'turn on Range lights' },
    example: { answers: [{ place: 'kitchen-door/1', channel: 1 }], ms: 640 },
  },
  'GET /api/site/states': {
    operationId: 'readStates',
    tag: 'site',
    answers: 'What each joined channel told last',
    fails: [],
    example: { connected: true, states: [CHANNEL_STATE] },
  },
  'POST /api/site/commands': {
    operationId: 'commandChannel',
    tag: 'site',
    answers: 'It did, after so many milliseconds',
    fails: [...SITE_BODY_FAILS, 'not-joined', 'no-answer'],
    bodyExample: { place: 'kitchen-door/1', channel: 1, on: true, level: 40, from: 'app' },
    example: { ms: 84 },
  },
  'GET /api/site/stream': {
    operationId: 'followStates',
    tag: 'site',
    answers: 'Events until either side ends it',
    fails: ['busy'],
    gives: {
      'text/event-stream': {
        schema: {
          type: 'string',
          description: 'Events `state` (data: a ChannelState) and `broker` (data: `{"connected"}`).',
        },
        example: `event: state\ndata: ${JSON.stringify(CHANNEL_STATE)}\n\n`,
      },
    },
  },
};
