import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['core/**/*.test.ts'], testTimeout: 30_000 } },
      { test: { name: 'contract', include: ['contract/**/*.test.ts'] } },
      { test: { name: 'web', include: ['web/**/*.test.{ts,tsx}'] } },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          globalSetup: ['server/test/cluster.ts'],
          hookTimeout: 60_000,
          testTimeout: 30_000,
        },
      },
    ],
  },
});
