import { allows } from '@glenfold/contract';
import { type NextFunction, type Request, type RequestHandler, type Response, json } from 'express';
import type { OpenAPIObject } from '@nestjs/swagger';
import { COOKIE, type Access, type Demand, PERMISSION } from './gate.ts';

/** Only what brings a file may be large: a laboratory's, a plan's, a picture; and only from those who may use the route. */
const largeBodies: Readonly<Record<string, string>> = {
  '/api/sites/{siteId}/lab-reports': '9mb',
  '/api/histories': '42mb',
  '/api/zones/{zoneId}/photos': '3mb',
  '/api/sites/{siteId}/underlay': '12mb',
  '/api/sites/{siteId}/drawing': '32mb',
  '/api/products/file': '3mb',
};
/** What a signed-in person sends beside. */
const USUAL = '256kb';
/** What anybody may send: an address and a password. */
const STRANGER = '8kb';

const parsers = new Map(
  [STRANGER, USUAL, ...Object.values(largeBodies)].map((limit) => [
    limit,
    json({ limit, type: (request) => request.headers['content-type']?.startsWith('application/json') ?? false }),
  ]),
);

/** A route that takes what is large: where, how much, and of whom. */
interface LargeRoute {
  readonly pattern: RegExp;
  readonly limit: string;
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
    return { pattern: new RegExp(`^${path.replaceAll(/\{\w+\}/g, '[^/]+')}$`), limit, demand };
  });
  const limitOf = ({ access, path, method }: Request): string => {
    if (!access) return STRANGER;
    const route = method === 'POST' ? large.find(({ pattern }) => pattern.test(path)) : undefined;
    if (!route || !access.role) return USUAL;
    const { demand, limit } = route;
    return demand !== 'anyone' && demand !== 'signed in' && allows(access.role, demand) ? limit : USUAL;
  };
  return (request, response, next) => parsers.get(limitOf(request))!(request, response, next);
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
