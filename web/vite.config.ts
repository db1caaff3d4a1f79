import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/**
 * What is asked for together is one file, and not seventy small ones: each costs a tablet a way there and back. What the first page needs
 * comes first, and stays as small as it is.
 */
const TOGETHER = [
  { name: 'start', tags: ['$initial' as const], priority: 3 },
  { name: 'today', test: /\/web\/today\//, priority: 2 },
  { name: 'sending', test: /\/web\/start\/sending/, priority: 1.5 },
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
