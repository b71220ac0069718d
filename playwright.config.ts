import { defineConfig } from '@playwright/test';

const chromium = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  // Plain software drawing: a quarter faster than through a software GPU, and WebGL still works.
  '--disable-gpu',
];

/**
 * Where two journeys run at once, the server and the database of the second: it is told nothing of
 * the first's.
 */
const second = process.env.PATRONE_SECOND;
if (second && process.env.TEST_PARALLEL_INDEX === '1')
  Object.assign(process.env, JSON.parse(second));

/**
 * Against the built application that ./patrone has started. `shots` and `bench` run only when asked
 * for.
 */
export default defineConfig({
  testDir: './e2e',
  outputDir: './test-results',
  workers: second ? 2 : 1,
  // Ends what hangs. How long a journey takes is for the report, not for its verdict: a machine
  // shared with strangers may take five times as long as a quiet one.
  timeout: 240_000,
  expect: { timeout: 30_000 },
  reporter: 'list',
  use: {
    baseURL: process.env.PATRONE_URL ?? 'http://127.0.0.1:4171',
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: { executablePath: '/usr/bin/chromium', args: chromium },
  },
  projects: [
    { name: 'journeys', testMatch: /.*\.spec\.ts/ },
    ...(process.env.PATRONE_SHOTS ? [{ name: 'shots', testMatch: /shots\.ts/ }] : []),
    ...(process.env.PATRONE_BENCH ? [{ name: 'bench', testMatch: /pageBench\.ts/ }] : []),
  ],
});
