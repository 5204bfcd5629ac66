import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,cli,server,web,demo,e2e,bench,scripts}/**/*.test.{ts,tsx}'],
    setupFiles: ['./vitest.setup.ts'],
    testTimeout: 180_000,
    hookTimeout: 120_000,
    pool: 'forks',
  },
});
