import { defineConfig } from '@playwright/test';

/** Debian's Chromium, started without anything that reaches out of the machine. */
const CHROMIUM_ARGS = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  // A test after another goes on in the process that has read the program already: a sixth less to compute.
  '--process-per-site',
];

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  globalSetup: './e2e/demoOnce.ts',
  fullyParallel: true,
  // Two cores: while one window waits for the server or a frame, another works.
  workers: 4,
  // The file whose tests go one after another begins: at the end it would keep one worker busy and leave the others idle.
  projects: [
    { name: 'one after another', testMatch: 'windows.spec.ts' },
    { name: 'beside each other', testIgnore: 'windows.spec.ts' },
  ],
  retries: 0,
  timeout: 240_000,
  expect: { timeout: 30_000 },
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [['list'], ['json']] : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
      args: CHROMIUM_ARGS,
    },
    actionTimeout: 30_000,
    trace: 'off',
  },
});
