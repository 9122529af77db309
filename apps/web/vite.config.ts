import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** Where pages are kept; the walk puts its own there before it is needed. */
const PAGES = 'pages';

export default defineConfig({
  plugins: [
    react(),
    VitePWA({
      // The walk asks for it: nobody else needs a copy of the application on the device.
      injectRegister: null,
      manifest: {
        name: 'Glenfold',
        short_name: 'Glenfold',
        description: 'Lawn soil: sampling, reading, rates and records',
        display: 'standalone',
        start_url: '/',
        shortcuts: [{ name: 'Walks', url: '/walk', description: 'Cores to take, also without a connection' }],
        theme_color: '#22302B',
        background_color: '#F6F3EC',
        icons: [{ src: '/stick.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
      },
      workbox: {
        globPatterns: ['assets/*.{js,css,woff2}', '*.svg'],
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
                    if (pathname.startsWith('/tests/')) return `${origin}${pathname}`;
                    return pathname.startsWith('/pocket') ? `${origin}/pocket` : request;
                  },
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
