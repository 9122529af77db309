import { createHash } from 'node:crypto';
import {
  type CallHandler,
  type ExecutionContext,
  Injectable,
  type NestInterceptor,
  SetMetadata,
  StreamableFile,
  applyDecorators,
} from '@nestjs/common';
import { ApiExtension } from '@nestjs/swagger';
import { Reflector } from '@nestjs/core';
import type { Request, Response } from 'express';
import { type Observable, from, lastValueFrom } from 'rxjs';
import { Problem } from './problem.ts';
import { Records } from './records.ts';

export const ONCE_HEADER = 'idempotency-key';
const KEY = /^[\w.:-]{8,200}$/;

const BY_ITSELF = 'glenfold:by itself';
/** In the description of the API: a key changes nothing on this route. */
export const IN_STEPS = 'x-in-several-steps';
/** Of routes whose work is several transactions, such as a message that is carried once it is written: a key changes nothing there. */
export const InSeveralSteps = () => applyDecorators(SetMetadata(BY_ITSELF, true), ApiExtension(IN_STEPS, true));

interface Done {
  readonly asked: string;
  readonly status: number;
  readonly answer: unknown;
}

/**
 * What is sent again with the same key was lost on its way back, or pressed twice: it is done once, and answered as the
 * first time. The key and all that the request changes stand or fall together, so that a server which dies in the middle
 * leaves neither.
 */
@Injectable()
export class OnceOnly implements NestInterceptor {
  constructor(
    private readonly records: Records,
    private readonly reflector: Reflector,
  ) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const http = context.switchToHttp();
    const request = http.getRequest<Request>();
    const key = request.header(ONCE_HEADER);
    const { method, access } = request;
    const apart = this.reflector.getAllAndOverride<boolean | undefined>(BY_ITSELF, [
      context.getHandler(),
      context.getClass(),
    ]);
    if (method !== 'POST' || key === undefined || apart || !access?.practice || !access.role) return next.handle();
    if (!KEY.test(key))
      throw new Problem(400, 'The key cannot be read', 'An Idempotency-Key has 8 to 200 letters, digits, or any of ".:-_".', [
        { field: ONCE_HEADER, message: 'Send a key of 8 to 200 letters and digits, such as a UUID.' },
      ]);
    const asked = createHash('sha256')
      .update(JSON.stringify([access.person.id, request.originalUrl, request.body]))
      .digest('hex');
    const response = http.getResponse<Response>();
    return from(this.records.scoped(() => this.#once(key, asked, response, next)));
  } // prettier-ignore

  async #once(key: string, asked: string, response: Response, next: CallHandler): Promise<unknown> {
    await this.records.alone(`request ${key}`);
    const [before] = await this.records.ask<Done>(
      'SELECT "asked", "status", "answer" FROM done_once WHERE "practiceId" = $1 AND "key" = $2',
      [key],
    );
    if (before && before.asked !== asked)
      throw new Problem(
        422,
        'Another request',
        'This Idempotency-Key was sent with another request before. Send a new key with each new request.',
      );
    if (before) {
      response.status(before.status);
      return before.answer ?? undefined;
    }
    const answer: unknown = await lastValueFrom(next.handle(), { defaultValue: undefined });
    if (answer instanceof StreamableFile) return answer;
    await this.records.ask(
      `INSERT INTO done_once ("practiceId", "key", "asked", "status", "answer") VALUES ($1, $2, $3, $4, $5::json)`,
      [key, asked, response.statusCode, answer === undefined ? null : JSON.stringify(answer)],
    );
    // Nobody sends again what is older.
    await this.records.ask(`DELETE FROM done_once WHERE "practiceId" = $1 AND "createdAt" < now() - interval '2 days'`);
    return answer;
  }
}
