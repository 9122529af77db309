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
    if (typeof token !== 'string') return next();
    const access = await this.sessions.access(token);
    if (!access) {
      request.endedSession = true;
      return next();
    }
    request.access = access;
    const { practice, role, person } = access;
    if (practice && role) this.work.run({ practiceId: practice.id, person, role }, next);
    else next();
  }
}
