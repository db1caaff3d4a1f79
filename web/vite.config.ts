import { fileURLToPath } from 'node:url';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

const CORE = fileURLToPath(new URL('../core/', import.meta.url));

/**
 * What is asked for together is one file, and not seventy small ones: each costs a tablet a way there and back. What the first page needs
 * comes first, and stays as small as it is. What several pages share is a file by what it is for, so that no page fetches another one: the
 * store of the device, the schemas of what is sent, reading CSV, the computation, what forms are made of.
 */
const TOGETHER = [
  { name: 'start', tags: ['$initial' as const], priority: 9 },
  { name: 'today', test: /\/web\/today\//, priority: 8 },
  { name: 'charts', test: /\/node_modules\/(chart\.js|@kurkle|react-chartjs-2)\//, priority: 7 },
  {
    name: 'forms',
    test: /\/node_modules\/(react-hook-form|@hookform)\/|\/web\/app\/useKeptForm/,
    priority: 7,
  },
  { name: 'csv', test: /\/node_modules\/papaparse\/|\/web\/app\/(readCsv|writeCsv)/, priority: 7 },
  { name: 'core', test: (id: string) => id.startsWith(CORE), priority: 6 },
  { name: 'schemas', test: /\/node_modules\/zod\/|\/contract\/|\/web\/app\/lengthsOf/, priority: 5 },
  {
    name: 'kit',
    test: /\/node_modules\/(@ark-ui|@zag-js|@chakra-ui|lucide-react)\/|\/web\/drawings\/(?!chartInk|LashTrend)|\/web\/app\/(?!deviceStore|sender|useOutbox|useOnceSent|RefusedNotes|StillUnsent|useLeave)/,
    priority: 4.5,
  },
  // what is written at the bench, and the store it is kept in until it is sent
  {
    name: 'sending',
    test: /\/node_modules\/dexie\/|\/web\/app\/(deviceStore|sender|useOutbox|useOnceSent|RefusedNotes)|\/web\/start\/sending/,
    priority: 4,
  },
  { name: 'turning', test: /\/web\/turning\/(?!LiftChart)/, priority: 2 },
  // small things of a build's page that other pages need without the rest of it
  {
    name: 'shared',
    test: /\/web\/(pieces\/endpoints|instruments\/useBench|sheets\/Unknowns)/,
    priority: 1.5,
  },
  { name: 'bench', test: /\/web\/buildPage\//, priority: 1 },
];

export default defineConfig({
  plugins: [
    react(),
    // the application itself opens without a network; what it shows is kept by its own store
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: null,
      manifest: false,
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        clientsClaim: true,
        skipWaiting: true,
        sourcemap: false,
      },
    }),
  ],
  build: {
    target: 'es2023',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
    modulePreload: { polyfill: false },
    rolldownOptions: { output: { codeSplitting: { groups: TOGETHER } } },
  },
});
