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
      { ...common, test: { name: 'the rest', include: ['{core,web,cli,demo}/**/*.test.{ts,tsx}'] } },
    ],
  },
});
