import type { UnitSystem } from '@glenfold/agronomy';
import { useCallback, useEffect } from 'react';
import { useSavePersonal } from '../api/entrance.ts';
import { useSession } from './session.tsx';
import { useUnits } from './units.tsx';

const UNSAVED = 'glenfold.units.unsaved';

/** What this person chose on this device that the server has not yet answered for. */
function unsavedOf(personId: string): UnitSystem | null {
  const [whose, system] = (localStorage.getItem(UNSAVED) ?? '').split(' ');
  return whose === personId && (system === 'metric' || system === 'us') ? system : null;
}

/** Send a choice; what is kept is not sent again. */
function useSend() {
  const { mutate } = useSavePersonal();
  return useCallback(
    (personId: string, units: UnitSystem, onKept?: () => void) => {
      const onSuccess = (): void => {
        if (unsavedOf(personId) === units) localStorage.removeItem(UNSAVED);
        onKept?.();
      };
      mutate({ units }, { onSuccess });
    },
    [mutate],
  );
}

/** Choose as the person, on whatever device. The choice holds at once; `onKept` when the server has it. */
export function useOwnUnits(): (system: UnitSystem, onKept?: () => void) => void {
  const id = useSession().person?.id;
  const { choose } = useUnits();
  const send = useSend();
  return useCallback(
    (system, onKept) => {
      choose(system);
      if (!id) return;
      localStorage.setItem(UNSAVED, `${id} ${system}`);
      send(id, system, onKept);
    },
    [choose, id, send],
  );
}

/**
 * What the person chose on whatever device is what they read here. A choice that the server has not answered for yet
 * stands before what it says, and is sent again.
 */
export function useFollowOwnUnits(): void {
  const { person } = useSession();
  const { choose } = useUnits();
  const send = useSend();
  const [id, own] = [person?.id, person?.units];
  useEffect(() => {
    const unsaved = id ? unsavedOf(id) : null;
    if (id && unsaved) send(id, unsaved);
    const units = unsaved ?? own;
    if (units) choose(units);
  }, [id, own, choose, send]);
}
