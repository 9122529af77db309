import { createContext, useContext } from 'react';
import { useDeviceState } from '../../ui/useSessionState.ts';

/** The test whose forms are on screen. */
export const PendingOf = createContext('');

/** What is typed and not added yet: it stays on the device with its test, whatever happens to the page. */
export function usePending<T>(name: string, initial: T) {
  return useDeviceState<T>(`glenfold test ${useContext(PendingOf)} ${name}`, initial);
}
