import { Injectable, type NestMiddleware } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import { COOKIE } from '../platform/gate.ts';
import { Work } from '../platform/work.ts';
import { SessionService } from './session.service.ts';

/** Finds out who asks, and sets the practice that the request works for. */
@Injectable()
export class AccessMiddleware implements NestMiddleware {
  constructor(
    private readonly sessions: SessionService,
    private readonly work: Work,
  ) {}

  async use(request: Request, response: Response, next: NextFunction): Promise<void> {
    response.setHeader('cache-control', 'no-store');
    const token = (request.cookies as Partial<Record<string, unknown>>)[COOKIE];
    const access = typeof token === 'string' ? await this.sessions.access(token) : undefined;
    if (access) request.access = access;
    request.endedSession = typeof token === 'string' && !access;
    if (access?.practice && access.role)
      this.work.run({ practiceId: access.practice.id, person: access.person, role: access.role }, next);
    else next();
  }
}
