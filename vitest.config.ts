import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    // half of what a file of server tests takes is waiting for its database
    maxWorkers: Math.max(2, availableParallelism()),
    projects: [
      { test: { name: 'core', include: ['core/**/*.test.ts'], testTimeout: 60_000, isolate: false } },
      { test: { name: 'contract', include: ['contract/**/*.test.ts'], isolate: false } },
      // a page is drawn in a moment, but not on a machine that is busy with something else
      { test: { name: 'web', include: ['web/**/*.test.ts'], testTimeout: 60_000 } },
      // the pages are read in once a worker: what shows them leaves the store as it found it (`atTheBench`)
      { test: { name: 'pages', include: ['web/**/*.test.tsx'], testTimeout: 60_000, isolate: false } },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          globalSetup: ['server/test/cluster.ts'],
          // each file has a database of its own, and the program holds nothing beside it: it is read in once a worker
          isolate: false,
          hookTimeout: 120_000,
          testTimeout: 60_000,
        },
      },
    ],
  },
});
