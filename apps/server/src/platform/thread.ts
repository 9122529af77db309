import { Problem } from './problem.ts';
import type { Threaded } from './threaded.ts';

/** What a thread is given. */
export interface ThreadTask {
  readonly module: string;
  readonly name: string;
  readonly args: readonly unknown[];
}

/** What a thread gives back: errors lose their class on the way, so refusals go as what they say. */
export type ThreadOutcome =
  { readonly value: unknown } | { readonly refused: Pick<Problem, 'title' | 'detail' | 'errors'> & { status: number } };

/** Runs on a thread: loads the function and works it out. */
export default async function work({ module, name, args }: ThreadTask): Promise<ThreadOutcome> {
  const found = (await import(module)) as Record<string, Threaded<readonly unknown[], unknown>>;
  try {
    return { value: await found[name]!.work(...args) };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    const { title, detail, errors } = error;
    return { refused: { status: error.getStatus(), title, detail, errors } };
  }
}
