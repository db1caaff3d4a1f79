import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** The page the bench compares with: the same framework and theme, no content. */
export default defineConfig({
  root: import.meta.dirname,
  plugins: [react()],
  build: { target: 'es2023', assetsInlineLimit: 0, modulePreload: { polyfill: false } },
});
