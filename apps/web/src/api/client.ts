import type { ConflictAnswer, ProblemAnswer, ProblemField } from '@glenfold/contract';
import { noteServerTime } from './clock.ts';

/** A refusal of the server, with the fields it is about. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly fields: readonly ProblemField[],
    readonly title = '',
    /** The record as it stands, when somebody else saved it first. */
    readonly conflict?: ConflictAnswer,
    /** The server says when it is worth trying again, s. */
    readonly retryAfter?: number,
  ) {
    super(detail);
  }

  /** The same refusal with what stands now told in another way. */
  with(conflict: ConflictAnswer): ApiProblem {
    return new ApiProblem(this.status, this.message, this.fields, this.title, conflict, this.retryAfter);
  }
}

const UNREACHABLE =
  'The server does not answer. What you typed is still here: check that Glenfold is running and try again.';

interface Standing {
  readonly csrf: string;
  readonly practiceId: string | undefined;
}

let standing: Standing = { csrf: '', practiceId: undefined };

/** What goes with every request: the token of the session, and the practice that this window shows. */
export function standAs(next: Standing): void {
  standing = next;
}

/** Letters of a request above which it is known again by what it brings, such as a file. */
const LONGEST_KEYED = 100_000;
/** Keys of what makes something and has no answer yet: sent again as it was, it is done once. */
const unanswered = new Map<string, string>();

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/**
 * Ask the API.
 * @param version of the record that a change rests on
 * @throws {ApiProblem} with words that can be shown.
 */
export async function api<T>(method: Method, path: string, body?: unknown, version?: number): Promise<T> {
  const isForm = body instanceof FormData;
  const sent = body === undefined || isForm ? undefined : JSON.stringify(body);
  const asked = `${standing.practiceId ?? ''} ${path} ${sent ?? ''}`;
  const keyed = method === 'POST' && !isForm && asked.length <= LONGEST_KEYED;
  if (keyed && !unanswered.has(asked)) unanswered.set(asked, crypto.randomUUID());
  const key = keyed ? unanswered.get(asked) : undefined;
  const headers: Record<string, string> = {
    ...(body === undefined || isForm ? {} : { 'content-type': 'application/json' }),
    ...(method === 'GET' ? {} : { 'x-csrf-token': standing.csrf }),
    ...(standing.practiceId ? { 'x-practice': standing.practiceId } : {}),
    ...(version === undefined ? {} : { 'if-match': `"${version}"` }),
    ...(key === undefined ? {} : { 'idempotency-key': key }),
  };
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers,
      ...(body === undefined ? {} : { body: isForm ? body : sent! }),
    });
  } catch {
    // Whether it was done nobody knows: the key stays, so that pressing again does it once.
    throw new ApiProblem(0, UNREACHABLE, []);
  }
  unanswered.delete(asked);
  noteServerTime(response.headers.get('date'));
  if (response.ok) return (response.status === 204 ? null : await response.json()) as T;
  const problem = (await response.json().catch(() => ({}))) as Partial<ProblemAnswer>;
  throw problemOf(response.status, problem, response.headers.get('retry-after'));
}

/**
 * Send a form with a file, and tell how much of it has gone.
 * @param onPart with the share that is there, 0 to 1
 * @throws {ApiProblem} with words that can be shown.
 */
export function sendForm<T>(path: string, form: FormData, onPart: (share: number) => void): Promise<T> {
  return new Promise((done, failed) => {
    // A fetch tells nothing of what it sends.
    const request = new XMLHttpRequest();
    request.open('POST', `/api${path}`);
    request.setRequestHeader('x-csrf-token', standing.csrf);
    request.upload.addEventListener('progress', ({ loaded, total }) => onPart(total > 0 ? loaded / total : 0));
    request.addEventListener('error', () => failed(new ApiProblem(0, UNREACHABLE, [])));
    request.addEventListener('load', () => {
      const { status, responseText } = request;
      if (status >= 200 && status < 300) done((status === 204 ? null : JSON.parse(responseText)) as T);
      else failed(problemOf(status, read(responseText), request.getResponseHeader('retry-after')));
    });
    request.send(form);
  });
}

function read(text: string): Partial<ProblemAnswer> {
  try {
    return JSON.parse(text) as Partial<ProblemAnswer>;
  } catch {
    return {};
  }
}

function problemOf(
  status: number,
  { detail, errors, title, conflict }: Partial<ProblemAnswer>,
  retryAfter: string | null | undefined,
): ApiProblem {
  const seconds = retryAfter ? Number(retryAfter) : undefined;
  return new ApiProblem(status, detail ?? UNREACHABLE, errors ?? [], title, conflict, seconds);
}

/** Refusals after which it must be asked anew who is signed in, and as what. */
export function concernsSession(error: Error): boolean {
  return (
    error instanceof ApiProblem &&
    (error.status === 401 || error.status === 403 || error.title === 'Another practice is open')
  );
}
