import { type ComponentType, type JSX, lazy, useState } from 'react';
import { Boundary } from './Boundary.tsx';

/** A component whose code comes when it is wanted, or before. */
export interface Deferred<P> {
  (props: P): JSX.Element;
  /** Bring the code now, so that nobody waits for it later. */
  readonly fetch: () => Promise<unknown>;
}

/**
 * Split a component's code off. Unlike React's own `lazy`, what has already come is drawn at once, without a moment of
 * the fallback; code that cannot come any more, as after an update, says so in its own place.
 */
export function deferred<P extends object>(load: () => Promise<ComponentType<P>>): Deferred<P> {
  let come: ComponentType<P> | undefined;
  const fetch = async (): Promise<ComponentType<P>> => (come ??= await load());
  const Later = lazy(async () => ({ default: await fetch() })) as unknown as ComponentType<P>;
  function Now(props: P): JSX.Element {
    // A component that began with one stays with it: changing would lose its state.
    const [Shown] = useState(() => come ?? Later);
    return (
      <Boundary what="this part">
        <Shown {...props} />
      </Boundary>
    );
  }
  return Object.assign(Now, { fetch });
}
