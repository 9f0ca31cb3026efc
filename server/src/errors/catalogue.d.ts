/** Every way a request can fail, with its status. `docs/errors.md` lists the same and a test compares the two. */
export declare const ERRORS: {
    readonly 'bad-request': {
        readonly status: 400;
        readonly says: 'The body, the address or a header is not what the route takes; `problems` names each field.';
    };
    readonly 'not-json': {
        readonly status: 400;
        readonly says: 'The body is not JSON.';
    };
    readonly 'no-such-route': {
        readonly status: 404;
        readonly says: 'There is nothing at this address.';
    };
    readonly 'no-such-job': {
        readonly status: 404;
        readonly says: 'No job has this id.';
    };
    readonly 'no-such-join': {
        readonly status: 404;
        readonly says: 'The site knows no such try at joining.';
    };
    readonly 'job-exists': {
        readonly status: 409;
        readonly says: 'A job with this id is there already; say `replace` or `copy`.';
    };
    readonly 'too-large': {
        readonly status: 413;
        readonly says: 'The body is larger than the route takes.';
    };
    readonly 'wrong-media-type': {
        readonly status: 415;
        readonly says: 'The body must be sent as application/json.';
    };
    readonly 'unusable-job': {
        readonly status: 422;
        readonly says: 'The job file has errors; `problems` lists them with JSON Pointers.';
    };
    readonly 'too-many-requests': {
        readonly status: 429;
        readonly says: 'Too many requests in a short time; wait and send again.';
    };
    readonly 'site-unreachable': {
        readonly status: 502;
        readonly says: 'The site (router, hubs, devices) does not answer.';
    };
    readonly 'database-unreachable': {
        readonly status: 503;
        readonly says: 'The database does not answer; nothing was changed.';
    };
    readonly internal: {
        readonly status: 500;
        readonly says: 'A fault of the program; nothing was changed.';
    };
};
export type ErrorCode = keyof typeof ERRORS;
/** Thrown by routes; becomes `{"error": {"code", "message", "problems"?}}` with the status of the catalogue. */
export declare class RequestError extends Error {
    readonly code: ErrorCode;
    readonly problems: readonly {
        path: string;
        message: string;
    }[];
    constructor(code: ErrorCode, problems?: readonly {
        path: string;
        message: string;
    }[]);
}
