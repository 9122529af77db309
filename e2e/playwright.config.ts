import { defineConfig } from '@playwright/test';
import { served, serverOf, workers } from './servers.ts';

/** Journeys through the real interface, in Debian's Chromium. `npm test` prepares the databases. */
export default defineConfig({
  testDir: process.env.E2E_TESTS ?? './journeys',
  workers,
  forbidOnly: true,
  // No work is lost to one click that came too early; what passed only then is listed at the end as flaky, and mended.
  retries: process.env.E2E_TRACE ? 0 : 1,
  timeout: 240_000,
  expect: { timeout: 40_000 },
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    // Recording every step takes a third again of the time: ask for it when something fails.
    trace: process.env.E2E_TRACE ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
    // Nothing fades, so nothing that is fading takes a click.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: Array.from({ length: workers }, (_, worker) => served.map((kind) => serverOf(kind, worker))).flat(),
});
