import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './scripts/chromium.mjs';
import { OWNER_STATE } from './test/e2e/owner-state';

// The app is started by the test command (scripts/test.mjs), which gives its address.
export default defineConfig({
  testDir: 'test/e2e',
  globalSetup: './test/e2e/sign-in.ts',
  fullyParallel: false,
  // One for each processor of the smallest machine that it is meant for.
  workers: 2,
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: process.env.AUXESIS_REPORT ? [['list'], ['json', { outputFile: process.env.AUXESIS_REPORT }]] : 'list',
  use: {
    baseURL: process.env.AUXESIS_URL ?? 'http://127.0.0.1:4380',
    // Tests are the demo's owner unless they say otherwise.
    storageState: OWNER_STATE,
    viewport: { width: 1280, height: 800 },
    actionTimeout: 15_000,
    // Nothing is waited for that only moves.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: CHROMIUM,
  },
});
