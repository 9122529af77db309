import type { MeasurementsInput, SiteAnswer, SiteInput, ZoneAnswer } from '@glenfold/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type ApiProblem, api } from './client.ts';
import { type RecordKind, kindAt, touch } from './touches.ts';

/**
 * A change; what shows such records is then read anew.
 * @param kinds of the records that it changes
 * @param inTurn changes of one name are made one after the other
 */
export function useChange<V, T>(
  kinds: RecordKind | readonly RecordKind[],
  change: (variables: V) => Promise<T>,
  inTurn?: string,
) {
  const client = useQueryClient();
  return useMutation<T, ApiProblem, V>({
    mutationFn: change,
    meta: { spoken: 'Saved.' },
    onSuccess: () => touch(client, ...[kinds].flat()),
    ...(inTurn ? { scope: { id: inTurn } } : {}),
  });
}

/** From which version to which this window itself has brought a record. */
const moved = new Map<string, number>();

/**
 * Save a record on top of the version that was seen. What was saved from this very window meanwhile does not
 * make it stale: quick changes one after the other are no conflict.
 */
export async function saveOver<T extends { readonly version: number }>(
  path: string,
  input: object,
  seen: number,
): Promise<T> {
  let version = seen;
  for (let next = moved.get(`${path}@${version}`); next !== undefined; next = moved.get(`${path}@${version}`))
    version = next;
  const answer = await api<T>('PUT', path, input, version);
  // Only ever forward: a save that changes nothing keeps its version, and a database put back from a backup goes back.
  if (answer.version > version) moved.set(`${path}@${version}`, answer.version);
  return answer;
}

/** A record that is there already, as the person saw it: a save that comes too late is told so. */
export interface Seen {
  readonly id: string;
  readonly version: number;
}

/** Add a record, or change the one that was seen; and what is shown where somebody else's save came first. */
export interface Saved<I extends object> {
  readonly seen?: Seen | undefined;
  readonly input: I;
  /** The record as it was opened: what the person did not touch is not theirs to overwrite. */
  readonly opened?: object | undefined;
  /** Names of the records that the input points at. */
  readonly named?: ReadonlyMap<string, string> | undefined;
  /** Go on with what the other saved. */
  readonly onTheirs?: ((theirs: object) => void) | undefined;
}

/** The same of a record that is there already. */
export type Changed<I extends object> = Saved<I> & { readonly seen: Seen };

export function useSave<I extends object, T extends { readonly version: number }>(path: string, addTo = path) {
  return useChange(
    kindAt(path),
    ({ seen, input }: Saved<I>) =>
      seen ? saveOver<T>(`${path}/${seen.id}`, input, seen.version) : api<T>('POST', addTo, input),
    path,
  );
}

export const useSaveSite = () => useSave<SiteInput, SiteAnswer>('/sites');
export const useMeasure = () =>
  useChange('ground', ({ seen, input }: Changed<MeasurementsInput>) =>
    api<ZoneAnswer>('PUT', `/zones/${seen.id}/measurements`, input, seen.version),
  );

/** Deletes and restores, by the resource’s path. */
export const useRemove = () => useByPath((path) => api<null>('DELETE', path), 'Deleted.');
export const useRestore = () =>
  useByPath((path) => api<unknown>('POST', `${path.split('?')[0]}/restore`), 'Brought back.');

function useByPath<T>(change: (path: string) => Promise<T>, spoken: string) {
  const client = useQueryClient();
  return useMutation<T, ApiProblem, string>({
    mutationFn: change,
    meta: { spoken },
    onSuccess: (_done, path) => touch(client, kindAt(path)),
  });
}
