import type { ProblemAnswer, ProblemField } from '@glenfold/contract';

/** A refusal of the server, with the fields it is about. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly fields: readonly ProblemField[],
  ) {
    super(detail);
  }
}

const UNREACHABLE =
  'The server does not answer. What you typed is still here: check that Glenfold is running and try again.';

/** Ask the API. @throws {ApiProblem} with words that can be shown. */
export async function api<T>(method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
  } catch {
    throw new ApiProblem(0, UNREACHABLE, []);
  }
  if (response.ok) return (response.status === 204 ? null : await response.json()) as T;
  const problem = (await response.json().catch(() => ({}))) as Partial<ProblemAnswer>;
  throw new ApiProblem(response.status, problem.detail ?? UNREACHABLE, problem.errors ?? []);
}
