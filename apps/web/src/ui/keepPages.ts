/** Where the service worker looks for pages without a connection. */
const PAGES = 'pages';

/** Leads to what was taken along where nobody can be asked who is there. */
const FIRST = '/';

/**
 * Keep pages on the device, and the first one with them; where the browser keeps none, or there is no connection, they stay as they were.
 *
 * @param paths such as `/walk`.
 */
export async function keepPages(paths: readonly string[]): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  try {
    await navigator.serviceWorker.register('/sw.js');
    // The first visit came before anything could keep it.
    const pages = await caches.open(PAGES);
    await Promise.all([FIRST, ...paths].map((path) => pages.add(new URL(path, window.location.href))));
  } catch {
    // Without a connection the pages that were kept before are the ones in use.
  }
}

/** Why the browser is asked, said before it is. */
export const WHY_KEPT =
  'The browser is asked to keep what is on this device, so that nothing you took along or wrote down is cleared when space runs short.';

/** Ask the browser to keep what is on the device. @returns what came of it, in a sentence; nothing where it cannot be asked */
export async function askToKeep(): Promise<string> {
  const storage = navigator.storage as StorageManager | undefined;
  if (!storage?.persist) return '';
  const kept = (await storage.persisted()) || (await storage.persist());
  return kept
    ? 'The browser keeps it, also when space runs short.'
    : 'The browser may clear it when space runs short: send what you write down as soon as there is a connection.';
}
