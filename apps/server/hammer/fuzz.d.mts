export interface Sent {
  readonly body?: unknown;
  readonly raw?: string;
}
type Method = 'get' | 'post' | 'put' | 'delete';
export interface Fuzzed {
  readonly tries: number;
  readonly statuses: Readonly<Record<string, number>>;
  readonly faults: ReadonlyArray<Sent & { readonly method: string; readonly path: string; readonly status: number }>;
}
export function fuzz(about: {
  readonly description: object;
  readonly ask: (
    method: Method,
    path: string,
    sent: Sent,
  ) => Promise<{ readonly status: number; readonly text: string }>;
  readonly idsOf: (table: string) => Promise<readonly string[]>;
  readonly chance: () => number;
  readonly tries?: number;
  readonly until?: number;
}): Promise<Fuzzed>;
