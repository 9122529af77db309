import { allows } from '@glenfold/contract';
import { type NextFunction, type Request, type RequestHandler, type Response, json } from 'express';
import { COOKIE, type Access } from './gate.ts';

/** Only what brings a file may be large: a laboratory's, a plan's, a picture; and only from those who may save it. */
const largeBodies: ReadonlyArray<readonly [path: RegExp, limit: string]> = [
  [/^\/api\/sites\/[^/]+\/lab-reports/, '9mb'],
  [/^\/api\/histories$/, '42mb'],
  [/^\/api\/zones\/[^/]+\/photos/, '3mb'],
  [/^\/api\/sites\/[^/]+\/underlay/, '12mb'],
  [/^\/api\/sites\/[^/]+\/drawing$/, '32mb'],
  [/^\/api\/products\/file$/, '3mb'],
];
/** What a signed-in person sends beside. */
const USUAL = '256kb';
/** What anybody may send: an address and a password. */
const STRANGER = '8kb';

const parsers = new Map(
  [STRANGER, USUAL, ...largeBodies.map(([, limit]) => limit)].map((limit) => [
    limit,
    json({ limit, type: (request) => request.headers['content-type']?.startsWith('application/json') ?? false }),
  ]),
);

function limitOf({ access, path }: Request): string {
  if (!access) return STRANGER;
  const large = largeBodies.find(([pattern]) => pattern.test(path))?.[1];
  return large && access.role && allows(access.role, 'work.write') ? large : USUAL;
}

/** Reads a body only as far as the one who sends it may send: who asks is known before. */
export const bodies: RequestHandler = (request, response, next) =>
  parsers.get(limitOf(request))!(request, response, next);

/**
 * Finds out who asks, before anything of the request is read.
 *
 * @param accessOf who holds the cookie, from the database.
 */
export function whoAsks(accessOf: (token: string) => Promise<Access | undefined>): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    if (!request.path.startsWith('/api')) {
      next();
      return;
    }
    response.setHeader('cache-control', 'no-store');
    const token = (request.cookies as Partial<Record<string, unknown>>)[COOKIE];
    if (typeof token !== 'string') {
      next();
      return;
    }
    accessOf(token).then((access) => {
      if (access) request.access = access;
      else request.endedSession = true;
      next();
    }, next);
  };
}
