import { defineConfig } from 'vitest/config';

const common = { extends: true as const };

export default defineConfig({
  test: {
    setupFiles: ['vitest.setup.ts'],
    testTimeout: 60_000,
    hookTimeout: 60_000,
    pool: 'forks',
    // On two cores the usual is one worker, which leaves half of the machine idle.
    maxWorkers: '100%',
    projects: [
      { ...common, test: { name: 'server', include: ['server/**/*.test.ts'], globalSetup: ['server/testing/built.ts'] } },
      { ...common, test: { name: 'page', include: ['web/**/*.test.{ts,tsx}'] } },
      // What only reckons keeps no state: its modules are loaded once, not for every file.
      { ...common, test: { name: 'core', include: ['{core,cli,demo}/**/*.test.ts'], isolate: false } },
    ],
  },
});
