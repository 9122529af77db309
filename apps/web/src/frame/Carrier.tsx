import { useEffect } from 'react';
import { all } from '../offline/outbox.ts';
import { useCarried } from '../offline/useOutbox.ts';

/**
 * Sends what was done without a connection, from any page. It stands once in the application; how each thing is sent
 * comes with its own code, and only where something waits.
 */
export function Carrier() {
  const waits = useCarried().entries.length > 0;
  useEffect(() => {
    void (async () => {
      if ((await all()).length > 0) (await import('./today/carriers.ts')).carryAll();
    })().catch(() => undefined);
  }, [waits]);
  return null;
}
