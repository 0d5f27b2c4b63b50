import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,server,web,cli,demo}/**/*.test.{ts,tsx}'],
    setupFiles: ['vitest.setup.ts'],
    testTimeout: 60_000,
    hookTimeout: 60_000,
    pool: 'forks',
    // On two cores the usual is one worker, which leaves half of the machine idle.
    maxWorkers: '100%',
  },
});
