import { type CallHandler, type ExecutionContext, Injectable, type NestInterceptor } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { type Observable, from, lastValueFrom } from 'rxjs';
import { DEMAND, type Demand } from './gate.ts';
import { Records } from './records.ts';

/**
 * All that one request reads of a practice, it reads in one transaction: named once, begun once, ended once. What is
 * asked at the door has a connection of its own there, and holds no second one: ten at a time would wait for each other.
 */
@Injectable()
export class OneRead implements NestInterceptor {
  constructor(
    private readonly records: Records,
    private readonly reflector: Reflector,
  ) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const { method, access } = context.switchToHttp().getRequest<Request>();
    const reads = method === 'GET' || method === 'HEAD';
    const demand = this.reflector.getAllAndOverride<Demand | undefined>(DEMAND, [
      context.getHandler(),
      context.getClass(),
    ]);
    const atTheDoor = demand === 'anyone' || demand === 'signed in';
    if (!reads || atTheDoor || !access?.practice || !access.role) return next.handle();
    return from(this.records.scoped(() => lastValueFrom(next.handle(), { defaultValue: undefined })));
  }
}
