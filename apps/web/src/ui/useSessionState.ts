import { useEffect, useState } from 'react';

function stored<T>(key: string, initial: T): T {
  try {
    const text = sessionStorage.getItem(key);
    return text === null ? initial : (JSON.parse(text) as T);
  } catch {
    return initial;
  }
}

/** State that survives a change of page or a reload: what was typed is not lost before it is saved. */
export function useSessionState<T>(key: string, initial: T): [T, (next: T | ((last: T) => T)) => void] {
  const [state, setState] = useState<T>(() => stored(key, initial));
  useEffect(() => sessionStorage.setItem(key, JSON.stringify(state)), [key, state]);
  return [state, setState];
}
