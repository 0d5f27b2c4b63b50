import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './browser.ts';

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: '../test-results',
  timeout: 150_000,
  expect: { timeout: 25_000 },
  workers: 2,
  fullyParallel: false,
  // The longest file first: begun last, it would run on alone while the other half of the machine has nothing left to do.
  projects: [
    { name: 'stops', testMatch: 'stops.spec.ts' },
    { name: 'rest', testIgnore: 'stops.spec.ts' },
  ],
  globalSetup: './prepareDemo.ts',
  // What a page keeps for the time without a server is fetched whole by every new browser; tests that need it say so.
  // Without motion, so that a colour on its way to another is never measured half way.
  use: { actionTimeout: 25_000, viewport: { width: 1280, height: 800 }, serviceWorkers: 'block', contextOptions: { reducedMotion: 'reduce' }, launchOptions: CHROMIUM },
});
