import type { ConflictAnswer, ProblemField } from '@glenfold/contract';
import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import type { Request, Response } from 'express';

/** A refusal with the fields it is about; leaves as problem details (RFC 9457). */
export class Problem extends HttpException {
  constructor(
    status: number,
    readonly title: string,
    readonly detail: string,
    readonly errors: readonly ProblemField[] = [],
  ) {
    super(detail, status);
  }

  /** The record as it stands, when that is what the refusal is about. */
  readonly conflict?: ConflictAnswer;
}

export function notFound(): never {
  throw new Problem(404, 'Not found', 'There is no such record, or it was deleted. Go back and choose again.');
}

export function refuse(errors: readonly ProblemField[]): never {
  throw new Problem(422, 'Some values cannot be taken', errors.map(({ message }) => message).join(' '), errors);
}

const plain: Readonly<Record<number, readonly [title: string, detail: string]>> = {
  400: ['The request cannot be read', 'The request is not well-formed JSON, or an identifier in it is not one.'],
  404: ['Not found', 'There is nothing at this address.'],
  413: ['Too large', 'The file or request is larger than what is taken here. Split it and send it in parts.'],
};

const UNIQUE_VIOLATION = '23505';

interface Told {
  readonly status: number;
  readonly title: string;
  readonly detail: string;
  readonly errors: readonly ProblemField[];
  readonly conflict?: ConflictAnswer | undefined;
}

@Catch()
export class ProblemFilter implements ExceptionFilter {
  readonly #log = new Logger('Problem');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    const { path } = host.switchToHttp().getRequest<Request>();
    const { status, title, detail, errors, conflict } = this.#describe(error);
    response
      .status(status)
      .type('application/problem+json')
      .send(
        JSON.stringify({
          type: 'about:blank',
          title,
          status,
          detail,
          instance: path,
          errors,
          ...(conflict && { conflict }),
        }),
      );
  }

  #describe(error: unknown): Told {
    if (error instanceof Problem) {
      const { title, detail, errors, conflict } = error;
      return { status: error.getStatus(), title, detail, errors, conflict };
    }
    if ((error as { code?: unknown }).code === UNIQUE_VIOLATION) {
      const detail =
        'The same was saved from another window at the same moment. Look at what is there now, and try again.';
      return { status: 409, title: 'Saved twice', detail, errors: [] };
    }
    const status = error instanceof HttpException ? error.getStatus() : (error as { status?: unknown }).status;
    if (typeof status === 'number' && status >= 400 && status < 500) {
      const [title, detail] = plain[status] ?? ['Refused', (error as Error).message];
      return { status, title, detail, errors: [] };
    }
    this.#log.error(error instanceof Error ? error.stack : String(error));
    return {
      status: 500,
      title: 'Something broke here',
      detail: 'This is our fault, not yours. Nothing was changed; try again.',
      errors: [],
    };
  }
}
