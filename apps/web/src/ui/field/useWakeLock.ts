import { useEffect } from 'react';

/** Keep the screen on while a page is walked with; where the browser cannot, nothing happens. */
export function useWakeLock(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return undefined;
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const take = async (): Promise<void> => {
      if (document.visibilityState !== 'visible') return;
      const taken = await navigator.wakeLock.request('screen').catch(() => null);
      if (gone) await taken?.release();
      else lock = taken;
    };
    void take();
    // The browser lets go of it whenever the page is hidden.
    const back = (): void => void take();
    document.addEventListener('visibilitychange', back);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', back);
      void lock?.release();
    };
  }, [wanted]);
}
