import { useEffect, useState } from 'react';

type SetState<T> = (next: T | ((last: T) => T)) => void;

function stored<T>(storage: Storage, key: string, initial: T): T {
  try {
    const text = storage.getItem(key);
    return text === null ? initial : (JSON.parse(text) as T);
  } catch {
    return initial;
  }
}

function useStored<T>(storage: Storage, key: string, initial: T): [T, SetState<T>] {
  const [state, setState] = useState<T>(() => stored(storage, key, initial));
  const plain = JSON.stringify(initial);
  useEffect(() => {
    const text = JSON.stringify(state);
    // What stands as it began is nobody's draft.
    if (text === plain) storage.removeItem(key);
    else storage.setItem(key, text);
  }, [storage, key, state, plain]);
  return [state, setState];
}

/** State that survives a change of page or a reload: what was typed is not lost before it is saved. */
export function useSessionState<T>(key: string, initial: T): [T, SetState<T>] {
  return useStored(sessionStorage, key, initial);
}

/** State that stays on the device: what is found out once, such as the length of one's own pace. */
export function useDeviceState<T>(key: string, initial: T): [T, SetState<T>] {
  return useStored(localStorage, key, initial);
}
