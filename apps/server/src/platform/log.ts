import { randomUUID } from 'node:crypto';
import type { ServerResponse } from 'node:http';
import type { RequestHandler } from 'express';
import pino, { type Logger } from 'pino';
import { pinoHttp } from 'pino-http';

/** The header by which a request is found again in the log; one that a proxy has given is kept. */
export const REQUEST_ID = 'x-request-id';
const GIVEN = /^[\w-]{8,64}$/;

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
/** What looks like the secret of a link: whoever reads the log could open it. */
const LONG = /[\w-]{20,}/g;

/** The path of an address without what was asked, and without the secret of a shared link. */
export const loggedPath = (url = ''): string =>
  url.split('?')[0]!.replace(LONG, (word) => (UUID.test(word) ? word : '…'));

const levelOf = (response: ServerResponse, error?: Error): 'error' | 'warn' | 'info' => {
  if (response.statusCode >= 500 && response.statusCode !== 503) return 'error';
  return error || response.statusCode === 503 ? 'warn' : 'info';
};

/** Of an error what says what was wrong, and nothing that hangs on it, such as a whole connection. */
const errorOf = ({ name, message, code, stack }: Error & { readonly code?: unknown }) => ({
  name,
  message,
  code,
  stack,
});

/** One line of JSON on the error output for each thing worth knowing, from a level of pino's on. */
export const logAt = (level: string): Logger =>
  pino(
    { level, base: { pid: process.pid }, timestamp: pino.stdTimeFunctions.isoTime, serializers: { err: errorOf } },
    pino.destination(2),
  );

/**
 * Numbers requests, and tells how each ended. No cookie, header, question or body is written down: only what was
 * asked for, and what came of it. Requests that went well are told from `info` on.
 */
export const requestLog = (logger: Logger): RequestHandler =>
  pinoHttp({
    logger,
    genReqId: ({ headers }, response) => {
      const given = headers[REQUEST_ID];
      const id = typeof given === 'string' && GIVEN.test(given) ? given : randomUUID();
      response.setHeader(REQUEST_ID, id);
      return id;
    },
    customSuccessMessage: () => 'answered',
    customErrorMessage: () => 'not served',
    // What went wrong is told where it did; here only that it ended so.
    customErrorObject: (_request, _response, _error, value: object) => ({ ...value, err: undefined }),
    customLogLevel: (_request, response, error) => levelOf(response, error),
    serializers: {
      req: ({ id, method, url }: { id: string; method: string; url: string }) => ({ id, method, path: loggedPath(url) }),
      res: ({ statusCode }: { statusCode: number }) => ({ status: statusCode }),
    },
  }); // prettier-ignore
