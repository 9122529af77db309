import { timingSafeEqual } from 'node:crypto';
import { type Permission, type Role, allows } from '@glenfold/contract';
import { type CanActivate, type ExecutionContext, Injectable, SetMetadata, applyDecorators } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { ApiExtension } from '@nestjs/swagger';
import type { Request } from 'express';
import { Problem } from './problem.ts';
import { Installation, isSecure } from './installation.ts';

/** Who asks: a session with its person, and the practice that is open in it. */
export interface Access {
  readonly sessionId: string;
  readonly csrf: string;
  readonly person: {
    readonly id: string;
    readonly name: string;
    readonly email: string;
    readonly units: 'us' | 'metric' | null;
  };
  readonly practice: {
    readonly id: string;
    readonly name: string;
    readonly demo: boolean;
    readonly timeZone: string;
    readonly currency: string;
    readonly version: number;
    readonly phone: string | null;
    readonly email: string | null;
    readonly clientsShare: boolean;
  } | null;
  /** Nothing when the person does not belong to the practice any more. */
  readonly role: Role | null;
  /** Sites whose reports a client reads. */
  readonly siteIds: readonly string[];
}

declare module 'express-serve-static-core' {
  interface Request {
    access?: Access;
    /** A cookie came along, but its session is over. */
    endedSession?: boolean;
  }
}

export const COOKIE = 'glenfold_session';
export const CSRF_HEADER = 'x-csrf-token';
/** The practice that the window shows. */
export const PRACTICE_HEADER = 'x-practice';

/** What a route asks for: a permission, a signed-in person, or nobody in particular. */
export type Demand = Permission | 'signed in' | 'anyone';
export const DEMAND = 'glenfold:demand';

/** In the description of the API: who may use a route. */
export const PERMISSION = 'x-permission';

/** State who may use a route. A route that states nothing is closed. */
export const For = (demand: Demand) => applyDecorators(SetMetadata(DEMAND, demand), ApiExtension(PERMISSION, demand));

const READS = new Set(['GET', 'HEAD']);

/** The one place that lets a request in or refuses it; closed by default. */
@Injectable()
export class Gate implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly installation: Installation,
  ) {}

  canActivate(context: ExecutionContext): boolean {
    const request = context.switchToHttp().getRequest<Request>();
    const demand = this.reflector.getAllAndOverride<Demand | undefined>(DEMAND, [
      context.getHandler(),
      context.getClass(),
    ]);
    if (demand === undefined)
      throw new Problem(403, 'Closed', 'This address states no permission, so it is closed to everybody.');
    const changes = !READS.has(request.method);
    if (changes) this.#refuseForeign(request);
    if (demand === 'anyone') return true;

    const { access } = request;
    if (!access) {
      throw request.endedSession
        ? new Problem(401, 'Signed out', 'You were signed out here. Sign in again; what you typed is still on screen.')
        : new Problem(401, 'Sign in first', 'Sign in to see this.');
    }
    if (changes && !same(request.header(CSRF_HEADER) ?? '', access.csrf))
      throw new Problem(
        403,
        'Not from this page',
        'The request did not come from a page of Glenfold. Reload the page and try again.',
      );
    if (demand === 'signed in') return true;

    const shown = request.header(PRACTICE_HEADER);
    if (shown && shown !== access.practice?.id)
      throw new Problem(
        409,
        'Another practice is open',
        `${access.practice?.name ?? 'No practice'} was opened in another window, so nothing was done here. Reload to go on with it, or switch back.`,
      );
    if (!access.practice || !access.role)
      throw new Problem(
        403,
        'Not a member',
        'You do not belong to this practice any more. Switch to another, or ask its owner.',
      );
    if (!allows(access.role, demand))
      throw new Problem(
        403,
        'Not for your role',
        `At ${access.practice.name} you are ${access.role}, which does not include this. Ask an owner of the practice.`,
      );
    return true;
  }

  /** A change must come from our own pages: browsers say where from, other programs do not. */
  #refuseForeign(request: Request): void {
    const origin = request.header('origin');
    const site = request.header('sec-fetch-site');
    const { address } = this.installation;
    // The whole of it: a page that came by http is none of ours where ours come by https.
    const own = isSecure(this.installation) ? new URL(address).origin : `http://${request.header('host') ?? ''}`;
    const foreign =
      (origin !== undefined && origin !== own) || (site !== undefined && site !== 'same-origin' && site !== 'none');
    if (foreign) throw new Problem(403, 'Not from this page', 'Changes are taken from pages of Glenfold only.');
  }
}

function same(given: string, wanted: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(wanted)];
  return a.length === b.length && timingSafeEqual(a, b);
}
