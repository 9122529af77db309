import { Injectable, type NestMiddleware } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import { Work } from '../platform/work.ts';

/** Sets the practice that a request works for. */
@Injectable()
export class AccessMiddleware implements NestMiddleware {
  constructor(private readonly work: Work) {}

  use({ access }: Request, _response: Response, next: NextFunction): void {
    if (access?.practice && access.role)
      this.work.run({ practiceId: access.practice.id, person: access.person, role: access.role }, next);
    else next();
  }
}
