import '@fontsource-variable/jetbrains-mono/wght.css';
import '@fontsource-variable/sofia-sans-semi-condensed/wght.css';
import { ChakraProvider } from '@chakra-ui/react';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { takePreloaded } from './preload.ts';
import { router } from './router.tsx';
import '../app/sheet.css';
import '../app/print.css';
import { store } from '../app/store.ts';
import { system } from '../app/theme.ts';

const prefersDark = window.matchMedia('(prefers-color-scheme: dark)');

let shownDark: boolean | null = null;

/** Puts the scheme chosen here, or the device's own, on the document. */
function showScheme(): void {
  const chosen = store.getState().preferences.scheme;
  const dark = chosen === 'dark' || (chosen === null && prefersDark.matches);
  if (dark === shownDark) return;
  shownDark = dark;
  document.documentElement.classList.toggle('dark', dark);
  document.documentElement.style.colorScheme = dark ? 'dark' : 'light';
}

takePreloaded();
showScheme();
store.subscribe(showScheme);
prefersDark.addEventListener('change', showScheme);

/** How long what the first page can do without waits. */
const FIRST_PAGE_MS = 800;

setTimeout(() => {
  void import('./sending.ts').then(({ sendBenchWork }) => sendBenchWork(store));
  void import('../live/listen.ts').then(({ listen }) => listen(store, router));
  if ('serviceWorker' in navigator && import.meta.env.PROD)
    void navigator.serviceWorker.register('/sw.js').catch(() => undefined);
}, FIRST_PAGE_MS);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={store}>
      <ChakraProvider value={system}>
        <RouterProvider router={router} />
      </ChakraProvider>
    </Provider>
  </StrictMode>,
);
