import type { PagePath } from '@zero-lash/contract/pages';
import { lazy, type ReactElement } from 'react';
import { createBrowserRouter, Link } from 'react-router';
import { BrokenPage } from '../app/BrokenPage.tsx';
import { Frame } from '../app/Frame.tsx';
import TodayPage from '../today/TodayPage.tsx';
import { Page } from '../app/Page.tsx';

const EnginesPage = lazy(() => import('../engines/EnginesPage.tsx'));
const EnginePage = lazy(() => import('../engines/EnginePage.tsx'));
const BuildPage = lazy(async () => {
  await import('./rooms.ts');
  return import('../buildPage/BuildPage.tsx');
});
const SheetsPage = lazy(() => import('../sheets/SheetsPage.tsx'));
const SheetPage = lazy(() => import('../sheets/SheetPage.tsx'));
const NewSheetPage = lazy(async () => ({
  default: (await import('../sheets/SheetFormPage.tsx')).NewSheetPage,
}));
const ReviseSheetPage = lazy(async () => ({
  default: (await import('../sheets/SheetFormPage.tsx')).ReviseSheetPage,
}));
const DraftPage = lazy(async () => ({ default: (await import('../sheets/SheetFormPage.tsx')).DraftPage }));
const InstrumentsPage = lazy(() => import('../instruments/InstrumentsPage.tsx'));
const DrawerPage = lazy(() => import('../pieces/DrawerPage.tsx'));
const RechecksPage = lazy(() => import('../rechecks/RechecksPage.tsx'));
const UsagePage = lazy(() => import('../usage/UsagePage.tsx'));
const OwnersPage = lazy(() => import('../owners/OwnersPage.tsx'));
const FleetPage = lazy(() => import('../fleet/FleetPage.tsx'));
const ShopPage = lazy(() => import('../people/ShopPage.tsx'));
const GuidePage = lazy(() => import('../guide/GuidePage.tsx'));
const SignInPage = lazy(() => import('../people/SignInPage.tsx'));

function NotFound() {
  return (
    <Page title="Nothing here">
      There is no such page. <Link to="/">Back to Today</Link>
    </Page>
  );
}

/** Every page inside the frame, by its address. */
const FRAMED: Readonly<Record<Exclude<PagePath, '/sign-in'>, ReactElement>> = {
  '/': <TodayPage />,
  '/engines': <EnginesPage />,
  '/engines/:id': <EnginePage />,
  '/builds/:id': <BuildPage />,
  '/sheets': <SheetsPage />,
  '/sheets/new': <NewSheetPage />,
  '/sheets/:id': <SheetPage />,
  '/sheets/:id/revise': <ReviseSheetPage />,
  '/sheets/:id/draft': <DraftPage />,
  '/instruments': <InstrumentsPage />,
  '/drawer': <DrawerPage />,
  '/rechecks': <RechecksPage />,
  '/usage': <UsagePage />,
  '/owners': <OwnersPage />,
  '/fleet': <FleetPage />,
  '/shop': <ShopPage />,
  '/guide': <GuidePage />,
};

export const router = createBrowserRouter([
  { path: '/sign-in', element: <SignInPage />, errorElement: <BrokenPage /> },
  {
    element: <Frame />,
    errorElement: <BrokenPage />,
    children: [
      {
        // a page that breaks leaves the frame round it standing
        errorElement: <BrokenPage />,
        children: [
          ...Object.entries(FRAMED).map(([path, element]) => ({ path, element })),
          { path: '*', element: <NotFound /> },
        ],
      },
    ],
  },
]);
