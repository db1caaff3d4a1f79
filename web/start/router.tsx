import type { PagePath } from '@zero-lash/contract/pages';
import type { ComponentType } from 'react';
import { createBrowserRouter, Link, type RouteObject } from 'react-router';
import { BrokenPage } from '../app/BrokenPage.tsx';
import { Frame } from '../app/Frame.tsx';
import TodayPage from '../today/TodayPage.tsx';
import { Page } from '../app/Page.tsx';

/** A page whose code is fetched before it is gone to; the page before stays until it has come. */
const page = (load: () => Promise<ComponentType>) => ({ lazy: async () => ({ Component: await load() }) });
const SHEET_FORMS = () => import('../sheets/SheetFormPage.tsx');

function NotFound() {
  return (
    <Page title="Nothing here">
      There is no such page. <Link to="/">Back to Today</Link>
    </Page>
  );
}

/** Every page inside the frame, by its address. */
const FRAMED: Readonly<Record<Exclude<PagePath, '/sign-in'>, Pick<RouteObject, 'lazy' | 'Component'>>> = {
  // what a day begins with is fetched with the application itself
  '/': { Component: TodayPage },
  '/engines': page(async () => (await import('../engines/EnginesPage.tsx')).default),
  '/engines/:id': page(async () => (await import('../engines/EnginePage.tsx')).default),
  '/builds/:id': page(async () => {
    await import('./rooms.ts');
    return (await import('../buildPage/BuildPage.tsx')).default;
  }),
  '/sheets': page(async () => (await import('../sheets/SheetsPage.tsx')).default),
  '/sheets/new': page(async () => (await SHEET_FORMS()).NewSheetPage),
  '/sheets/:id': page(async () => (await import('../sheets/SheetPage.tsx')).default),
  '/sheets/:id/revise': page(async () => (await SHEET_FORMS()).ReviseSheetPage),
  '/sheets/:id/draft': page(async () => (await SHEET_FORMS()).DraftPage),
  '/instruments': page(async () => (await import('../instruments/InstrumentsPage.tsx')).default),
  '/drawer': page(async () => (await import('../pieces/DrawerPage.tsx')).default),
  '/rechecks': page(async () => (await import('../rechecks/RechecksPage.tsx')).default),
  '/usage': page(async () => (await import('../usage/UsagePage.tsx')).default),
  '/owners': page(async () => (await import('../owners/OwnersPage.tsx')).default),
  '/fleet': page(async () => (await import('../fleet/FleetPage.tsx')).default),
  '/shop': page(async () => (await import('../people/ShopPage.tsx')).default),
  '/guide': page(async () => (await import('../guide/GuidePage.tsx')).default),
};

export const router = createBrowserRouter([
  {
    path: '/sign-in',
    ...page(async () => (await import('../people/SignInPage.tsx')).default),
    hydrateFallbackElement: <></>,
    errorElement: <BrokenPage />,
  },
  {
    element: <Frame />,
    errorElement: <BrokenPage />,
    children: [
      {
        // a page that breaks leaves the frame round it standing
        errorElement: <BrokenPage />,
        hydrateFallbackElement: <p className="sheet-waiting">Fetching the sheet…</p>,
        children: [
          ...Object.entries(FRAMED).map(([path, shown]) => ({ path, ...shown })),
          { path: '*', element: <NotFound /> },
        ],
      },
    ],
  },
]);
