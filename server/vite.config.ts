import { defineConfig } from 'vite';

/** The programs that the server's folder holds, and what it does on threads of their own, by the names they are built under. */
const ENTRIES = {
  main: 'main.ts',
  paperThread: 'paperThread.ts',
  'records/thread': 'records/thread.ts',
  'gauges/simulate': 'gauges/simulate.ts',
  'usage/simulate': 'usage/simulate.ts',
};

/** The server in a few files of plain JavaScript: it starts in a third of the time that its sources take. */
export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    sourcemap: true,
    rollupOptions: {
      input: ENTRIES,
      // what is shared stands at the top, where onThread.ts looks for the threads from
      output: { entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' },
    },
  },
  ssr: { noExternal: [/^@zero-lash\//] },
});
