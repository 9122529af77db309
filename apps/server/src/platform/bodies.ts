import { allows } from '@glenfold/contract';
import { type NextFunction, type Request, type RequestHandler, type Response, raw } from 'express';
import type { OpenAPIObject } from '@nestjs/swagger';
import { type Bounds, ManyValues, countValues, parsed } from './manyValues.ts';
import { COOKIE, type Access, type Demand, PERMISSION } from './gate.ts';

/** Only what brings a file may be large: a laboratory's, a plan's, a picture; and only from those who may use the route. */
const largeBodies: Readonly<Record<string, string>> = {
  '/api/sites/{siteId}/lab-reports': '9mb',
  '/api/histories': '42mb',
  '/api/zones/{zoneId}/photos': '3mb',
  '/api/sites/{siteId}/underlay': '12mb',
  '/api/sites/{siteId}/drawing': '12mb',
  '/api/products/file': '3mb',
};
/** What a signed-in person sends beside. */
const USUAL = '256kb';
/** What anybody may send: an address and a password. */
const STRANGER = '8kb';

/** What any request may hold: a form, a list of touches. A file is one value, however long. */
const BOUNDS: Bounds = { values: 20_000, listed: 2000 };
/** What brings more: a plan of a whole property, corner by corner. */
const largeBounds: Readonly<Record<string, Bounds>> = {
  '/api/sites/{siteId}/drawing': { values: 200_000, listed: 2000 },
};
/** More values than these take longer to read than to send to a thread and back. */
const MANY = 2000;

const readers = new Map(
  [STRANGER, USUAL, ...Object.values(largeBodies)].map((limit) => [
    limit,
    raw({ limit, type: (request) => request.headers['content-type']?.startsWith('application/json') ?? false }),
  ]),
);

/** Reads what came, where it is not too much; what is of very many values is left for a thread. */
async function read(request: Request, bounds: Bounds): Promise<void> {
  const text: unknown = request.body;
  if (!Buffer.isBuffer(text)) return;
  request.body = (await countValues(text, bounds)) > MANY ? new ManyValues(text) : parsed(text);
}

/** A route that takes what is large: where, how much, and of whom. */
interface LargeRoute {
  readonly pattern: RegExp;
  readonly limit: string;
  readonly bounds: Bounds;
  readonly demand: Demand;
}

/**
 * Reads a body only as far as the one who sends it may send: who asks is known before, and what the route asks of them
 * says its description.
 *
 * @throws when the server starts, where no such route is
 */
export function bodies(description: OpenAPIObject): RequestHandler {
  const large = Object.entries(largeBodies).map(([path, limit]): LargeRoute => {
    const demand = (description.paths[path]?.post as { readonly [PERMISSION]?: Demand } | undefined)?.[PERMISSION];
    if (!demand) throw new Error(`No route takes what is sent to ${path}.`);
    return {
      pattern: new RegExp(`^${path.replaceAll(/\{\w+\}/g, '[^/]+')}$`),
      limit,
      demand,
      bounds: largeBounds[path] ?? BOUNDS,
    };
  });
  const limitsOf = ({ access, path, method }: Request): Pick<LargeRoute, 'limit' | 'bounds'> => {
    const usual = { limit: access ? USUAL : STRANGER, bounds: BOUNDS };
    if (!access?.role) return usual;
    const route = method === 'POST' ? large.find(({ pattern }) => pattern.test(path)) : undefined;
    if (!route || route.demand === 'anyone' || route.demand === 'signed in') return usual;
    return allows(access.role, route.demand) ? route : usual;
  };
  return (request, response, next) => {
    const { limit, bounds } = limitsOf(request);
    readers.get(limit)!(request, response, (error?: unknown) => {
      if (error) next(error);
      else read(request, bounds).then(() => next(), next);
    });
  };
}

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
