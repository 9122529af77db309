/** Where the service worker looks for pages without a connection. */
const PAGES = 'pages';

/**
 * Keep pages on the device; where the browser keeps none, or there is no connection, they stay as they were.
 *
 * @param paths such as `/walk`.
 */
export async function keepPages(paths: readonly string[]): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  try {
    await navigator.serviceWorker.register('/sw.js');
    // The first visit came before anything could keep it.
    const pages = await caches.open(PAGES);
    await Promise.all(paths.map((path) => pages.add(new URL(path, window.location.href))));
  } catch {
    // Without a connection the pages that were kept before are the ones in use.
  }
}
