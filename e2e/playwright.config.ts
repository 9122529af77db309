import { defineConfig } from '@playwright/test';

const port = process.env.E2E_PORT ?? '4690';
const empty = process.env.E2E_EMPTY_PORT ?? '4691';
const second = process.env.E2E_SECOND_PORT ?? '4692';
const server = (servedPort: string, database: string | undefined, isEmpty: '0' | '1') => ({
  command: 'node --disable-warning=ExperimentalWarning apps/server/dist/main.js',
  cwd: '..',
  url: `http://127.0.0.1:${servedPort}/api/session`,
  env: {
    PORT: servedPort,
    DATABASE_URL: database ?? '',
    GLENFOLD_EMPTY: isEmpty,
    // Answered by the journey that asks for them.
    GLENFOLD_TILES: `http://127.0.0.1:${servedPort}/tiles/{z}/{x}/{y}.png`,
    GLENFOLD_TILES_ATTRIBUTION: 'Made-up tiles',
  },
  reuseExistingServer: false,
  timeout: 60_000,
});

/** Journeys through the real interface, in Debian's Chromium. `npm test` prepares the databases. */
export default defineConfig({
  testDir: process.env.E2E_TESTS ?? './journeys',
  workers: 1,
  forbidOnly: true,
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    trace: 'retain-on-failure',
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
  webServer: [
    server(port, process.env.E2E_DATABASE_URL, '0'),
    server(empty, process.env.E2E_EMPTY_DATABASE_URL, '1'),
    server(second, process.env.E2E_SECOND_DATABASE_URL, '1'),
  ],
});
