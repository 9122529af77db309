import { useState } from 'react';

/** What is set on a walk and not yet tapped: a walk that is opened anew goes on where it was. */
export interface OnTheWay {
  /** What of the checklist is seen. */
  readonly seen: readonly string[];
  readonly begun: boolean;
  /** By feel: stands from core to core until another is chosen. */
  readonly moisture: string | null;
  /** What belongs to one core, and goes when it is tapped. */
  readonly core: OfCore;
}

interface OfCore {
  readonly id: string | null;
  /** cm; nothing where it is as deep as wanted. */
  readonly pushed: number | null;
  /** cm; nothing where as much came up as was pushed. */
  readonly recovered: number | null;
  readonly note: string;
  /** Photos taken at it, by id. */
  readonly photos: readonly string[];
}

const untouched: OfCore = { id: null, pushed: null, recovered: null, note: '', photos: [] };
const atTheGate: OnTheWay = { seen: [], begun: false, moisture: null, core: untouched };

interface Kept extends OnTheWay {
  readonly day: string;
}

function kept(key: string, day: string): OnTheWay {
  try {
    const found = JSON.parse(localStorage.getItem(key) ?? 'null') as Kept | null;
    return found?.day === day ? found : atTheGate;
  } catch {
    return atTheGate;
  }
}

/**
 * Kept on the device for the day, for one person at one site: another day's lawn is looked at anew.
 * @param coreId the core that is next: what was set for another does not stand for it
 */
export function useOnTheWay(
  { siteId, person, day }: { siteId: string; person: string; day: string },
  coreId: string | null,
) {
  const key = `glenfold.walk.${siteId}.${person}`;
  const [way, setWay] = useState(() => kept(key, day));
  const change = (next: (last: OnTheWay) => OnTheWay): void =>
    setWay((last) => {
      const changed = next(last);
      localStorage.setItem(key, JSON.stringify({ ...changed, day } satisfies Kept));
      return changed;
    });
  const of = (last: OnTheWay): OfCore => (last.core.id === coreId ? last.core : { ...untouched, id: coreId });
  return {
    ...way,
    core: of(way),
    change: (more: Partial<Omit<OnTheWay, 'core'>>) => change((last) => ({ ...last, ...more })),
    changeCore: (more: Partial<Omit<OfCore, 'photos'>>) =>
      change((last) => ({ ...last, core: { ...of(last), ...more } })),
    /** A photo comes to it, or is taken back; one that comes when the next core is set already is not counted there. */
    changePhotos: (next: (ids: readonly string[]) => readonly string[]) =>
      change((last) =>
        last.core.id === null || last.core.id === coreId
          ? { ...last, core: { ...of(last), photos: next(of(last).photos) } }
          : last,
      ),
    leaveCore: () => change((last) => ({ ...last, core: untouched })),
  };
}
