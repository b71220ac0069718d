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

/** Against the built application that ./patrone has started. `shots` and `bench` run only when asked for. */
export default defineConfig({
  testDir: './e2e',
  outputDir: './test-results',
  workers: 1,
  timeout: 60_000,
  expect: { timeout: 10_000 },
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
