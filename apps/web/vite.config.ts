import react from '@vitejs/plugin-react';
import { type Plugin, defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** Where pages are kept; the walk puts its own there before it is needed. */
const PAGES = 'pages';

/** What opens without a connection: the pages in the field, and the first one, which leads to them. */
const FIELD = [
  ...[
    'main',
    'today/TodayPage',
    'today/SentPage',
    'today/FieldSitePage',
    'sampling/walk/WalkPage',
    'fieldTests/TestsPage',
  ],
  ...['cards/CardPage', 'pocket/Pocket', 'pocket/CalculatorPage'],
];

/** Files that the pages in the field are made of; found when they are bundled, asked for when the service worker is. */
const inField = new Set<string>();

/** Looks up what the pages in the field import, directly and by what they import. */
const fieldFiles: Plugin = {
  name: 'field-files',
  generateBundle(_options, bundle) {
    const add = (file: string): void => {
      const chunk = bundle[file];
      if (inField.has(file) || chunk?.type !== 'chunk') return;
      inField.add(file);
      for (const css of chunk.viteMetadata?.importedCss ?? []) inField.add(css);
      chunk.imports.forEach(add);
    };
    for (const chunk of Object.values(bundle))
      if (chunk.type === 'chunk' && FIELD.some((page) => chunk.facadeModuleId?.endsWith(`/${page}.tsx`)))
        add(chunk.fileName);
    // Letters of our own languages; the others come when a page has them, and there is a connection.
    for (const { fileName } of Object.values(bundle))
      if (/-latin-\d+-normal-[^.]*\.woff2$/.test(fileName)) inField.add(fileName);
  },
};

export default defineConfig({
  plugins: [
    react(),
    fieldFiles,
    VitePWA({
      // The walk asks for it: nobody else needs a copy of the application on the device.
      injectRegister: null,
      manifest: {
        name: 'Glenfold',
        short_name: 'Glenfold',
        description: 'Lawn soil: sampling, reading, rates and records',
        display: 'standalone',
        start_url: '/',
        shortcuts: [{ name: 'Today', url: '/today', description: 'What is to be done, also without a connection' }],
        theme_color: '#22302B',
        background_color: '#F6F3EC',
        icons: [
          { src: '/stick.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' },
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png', purpose: 'any' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any' },
          { src: '/icon-maskable-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
        ],
      },
      workbox: {
        globPatterns: ['assets/*.{js,css,woff2}', '*.svg'],
        manifestTransforms: [
          (entries) => ({
            manifest: entries.filter(({ url }) => !url.startsWith('assets/') || inField.has(url)),
            warnings: [],
          }),
        ],
        maximumFileSizeToCacheInBytes: 6_000_000,
        // Each page comes with a nonce of its own in its headers and its text, so pages are kept as they were served.
        navigateFallback: null,
        clientsClaim: true,
        skipWaiting: true,
        runtimeCaching: [
          {
            urlPattern: ({ request }) => request.mode === 'navigate',
            handler: 'NetworkFirst',
            options: {
              cacheName: PAGES,
              networkTimeoutSeconds: 4,
              plugins: [
                {
                  // One page serves every calculation and every test, whatever its inputs.
                  cacheKeyWillBeUsed: async ({ request }) => {
                    const { origin, pathname } = new URL(request.url);
                    if (pathname.startsWith('/tests/') || pathname.startsWith('/field/')) return `${origin}${pathname}`;
                    return pathname.startsWith('/pocket') ? `${origin}/pocket` : request;
                  },
                  // A page that was not kept: the first one leads to those that were.
                  handlerDidError: async () => caches.match(new URL('/', location.href).href),
                },
              ],
            },
          },
        ],
      },
    }),
  ],
  server: { proxy: { '/api': 'http://127.0.0.1:4600' } },
  build: {
    chunkSizeWarningLimit: 1500,
    // Fonts stay files: the content policy allows none inside a style sheet.
    assetsInlineLimit: 0,
  },
});
