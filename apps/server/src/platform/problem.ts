import type { ConflictAnswer, ProblemField } from '@glenfold/contract';
import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import type { Request, Response } from 'express';
import { type DatabaseTrouble, troubleOf, unreadableWords } from './databaseTrouble.ts';

/** A refusal with the fields it is about; leaves as problem details (RFC 9457). */
export class Problem extends HttpException {
  constructor(
    status: number,
    readonly title: string,
    readonly detail: string,
    readonly errors: readonly ProblemField[] = [],
    /** s after which it is worth trying again. */
    readonly retry?: number,
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

/** What the database could not do, in words; a pause in seconds where it is worth trying again. */
const troubles: Readonly<
  Record<DatabaseTrouble, { readonly status: number; readonly title: string; readonly detail: string; readonly retry?: number }>
> = {
  full: {
    ...{ status: 507, title: 'No room left', retry: 60 },
    detail: 'The disk of the server is full, so nothing of this was kept; what is there can be read. Keep what you have and send it again later: whoever runs the server has to make room.',
  },
  twice: {
    ...{ status: 409, title: 'Saved twice' },
    detail: 'The same was saved from another window at the same moment. Look at what is there now, and try again.',
  },
  collided: {
    ...{ status: 409, title: 'Somebody was first', retry: 1 },
    detail: 'Others changed the same at the same moment, so nothing was saved here. Look at what is there now, and try again.',
  },
  locked: {
    ...{ status: 409, title: 'Somebody is saving this', retry: 2 },
    detail: 'Somebody is saving this just now, so nothing was saved here. Wait a moment, and try again.',
  },
  'too long': {
    ...{ status: 503, title: 'It took too long', retry: 10 },
    detail: 'This took longer than it may, and was stopped before anything of it was saved. Try again, or ask for less at once.',
  },
  unreadable: {
    ...{ status: 400, title: 'A value cannot be kept' },
    detail: 'A value in the request is of a kind that cannot be kept, so nothing was saved. Look at what was typed last, and type it again.',
  },
  away: {
    ...{ status: 503, title: 'The database is away', retry: 1 },
    detail: 'The database cannot be reached just now. What you typed is still on screen: wait a moment, and try again.',
  },
}; // prettier-ignore

interface Told {
  readonly status: number;
  readonly title: string;
  readonly detail: string;
  readonly errors: readonly ProblemField[];
  readonly conflict?: ConflictAnswer | undefined;
  /** s after which it is worth trying again. */
  readonly retry?: number | undefined;
}

/** What a program sees that did not change anything by asking. */
const READS = new Set(['GET', 'HEAD', 'OPTIONS']);

@Catch()
export class ProblemFilter implements ExceptionFilter {
  readonly #log = new Logger('Problem');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    const { path, method, id } = host.switchToHttp().getRequest<Request>();
    const { status, title, detail, errors, conflict, retry } = this.#describe(error, READS.has(method), id);
    if (response.headersSent) {
      response.destroy();
      return;
    }
    if (retry !== undefined) response.setHeader('retry-after', String(retry));
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

  /**
   * @param reads whether nothing was to be changed
   * @param id by which the log has it
   */
  #describe(error: unknown, reads: boolean, id: unknown): Told {
    if (error instanceof Problem) {
      const { title, detail, errors, conflict, retry } = error;
      return { status: error.getStatus(), title, detail, errors, conflict, retry };
    }
    const trouble = troubleOf(error);
    if (trouble) {
      if (trouble !== 'twice') this.#log.warn(`${trouble}: ${(error as Error).message}`);
      const { detail, ...told } = troubles[trouble];
      return { ...told, detail: (trouble === 'unreadable' && unreadableWords(error)) || detail, errors: [] };
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
      detail: `This is our fault, not yours. ${reads ? 'Nothing was changed; try again.' : 'Look whether it was saved before you try again.'} Whoever runs the server finds it in the log as ${String(id)}.`,
      errors: [],
    };
  }
}
