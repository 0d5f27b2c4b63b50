import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './browser.ts';

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: '../test-results',
  timeout: 60_000,
  expect: { timeout: 10_000 },
  workers: 2,
  fullyParallel: false,
  globalSetup: './prepareDemo.ts',
  use: { actionTimeout: 10_000, viewport: { width: 1280, height: 800 }, launchOptions: CHROMIUM, trace: 'retain-on-failure' },
});
