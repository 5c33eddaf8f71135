import { defineConfig } from '@playwright/test';
import { OWNER_STATE } from './test/e2e/owner-state';

/**
 * What Chromium leaves out. The lists of its address bar are pages of their own, which cost each new window more than a
 * second of a processor, and nobody sees them here. The last switch counts: the others are Playwright's own.
 */
const LEFT_OUT = [
  'WebUIOmniboxPopup',
  'WebUIOmniboxAimPopup',
  'WebUIOmniboxFullPopup',
  'AimEnabled',
  'AvoidCorsURLLoaderRestartOnRedirect',
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'DestroyProfileOnBrowserClose',
  'HttpsFirstBalancedModeAutoEnable',
  'HttpsUpgrades',
  'LensOverlay',
  'MediaRouter',
  'NetworkTimeServiceQuerying',
  'OptimizationHints',
  'PaintHolding',
  'PreconnectToSearch',
  'ThirdPartyStoragePartitioning',
];

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
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        `--disable-features=${LEFT_OUT.join(',')}`,
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
