import type { ConflictAnswer, ProblemAnswer, ProblemField } from '@glenfold/contract';

/** A refusal of the server, with the fields it is about. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly fields: readonly ProblemField[],
    readonly title = '',
    /** The record as it stands, when somebody else saved it first. */
    readonly conflict?: ConflictAnswer,
  ) {
    super(detail);
  }

  /** The same refusal with what stands now told in another way. */
  with(conflict: ConflictAnswer): ApiProblem {
    return new ApiProblem(this.status, this.message, this.fields, this.title, conflict);
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

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/**
 * Ask the API.
 * @param version of the record that a change rests on
 * @throws {ApiProblem} with words that can be shown.
 */
export async function api<T>(method: Method, path: string, body?: unknown, version?: number): Promise<T> {
  const isForm = body instanceof FormData;
  const headers: Record<string, string> = {
    ...(body === undefined || isForm ? {} : { 'content-type': 'application/json' }),
    ...(method === 'GET' ? {} : { 'x-csrf-token': standing.csrf }),
    ...(standing.practiceId ? { 'x-practice': standing.practiceId } : {}),
    ...(version === undefined ? {} : { 'if-match': `"${version}"` }),
  };
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers,
      ...(body === undefined ? {} : { body: isForm ? body : JSON.stringify(body) }),
    });
  } catch {
    throw new ApiProblem(0, UNREACHABLE, []);
  }
  if (response.ok) return (response.status === 204 ? null : await response.json()) as T;
  const problem = (await response.json().catch(() => ({}))) as Partial<ProblemAnswer>;
  throw new ApiProblem(
    response.status,
    problem.detail ?? UNREACHABLE,
    problem.errors ?? [],
    problem.title,
    problem.conflict,
  );
}

/** Refusals after which it must be asked anew who is signed in, and as what. */
export function concernsSession(error: Error): boolean {
  return (
    error instanceof ApiProblem &&
    (error.status === 401 || error.status === 403 || error.title === 'Another practice is open')
  );
}
