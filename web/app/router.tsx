import { lazy } from 'react';
import { createBrowserRouter, Link } from 'react-router';
import { Frame } from './Frame.tsx';
import TodayPage from '../today/TodayPage.tsx';
import { Page } from './Page.tsx';

const EnginesPage = lazy(() => import('../engines/EnginesPage.tsx'));
const EnginePage = lazy(() => import('../engines/EnginePage.tsx'));
const BuildPage = lazy(() => import('../builds/BuildPage.tsx'));
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
const DrawerPage = lazy(() => import('../shims/DrawerPage.tsx'));
const RechecksPage = lazy(() => import('../rechecks/RechecksPage.tsx'));
const UsagePage = lazy(() => import('../usage/UsagePage.tsx'));
const OwnersPage = lazy(() => import('../owners/OwnersPage.tsx'));
const FleetPage = lazy(() => import('../fleet/FleetPage.tsx'));
const ShopPage = lazy(() => import('../people/ShopPage.tsx'));
const SignInPage = lazy(() => import('../people/SignInPage.tsx'));

function NotFound() {
  return (
    <Page title="Nothing here">
      There is no such page. <Link to="/">Back to Today</Link>
    </Page>
  );
}

export const router = createBrowserRouter([
  { path: '/sign-in', element: <SignInPage /> },
  {
    element: <Frame />,
    children: [
      { path: '/', element: <TodayPage /> },
      { path: '/engines', element: <EnginesPage /> },
      { path: '/engines/:id', element: <EnginePage /> },
      { path: '/builds/:id', element: <BuildPage /> },
      { path: '/sheets', element: <SheetsPage /> },
      { path: '/sheets/new', element: <NewSheetPage /> },
      { path: '/sheets/:id', element: <SheetPage /> },
      { path: '/sheets/:id/revise', element: <ReviseSheetPage /> },
      { path: '/sheets/:id/draft', element: <DraftPage /> },
      { path: '/instruments', element: <InstrumentsPage /> },
      { path: '/drawer', element: <DrawerPage /> },
      { path: '/rechecks', element: <RechecksPage /> },
      { path: '/usage', element: <UsagePage /> },
      { path: '/owners', element: <OwnersPage /> },
      { path: '/fleet', element: <FleetPage /> },
      { path: '/shop', element: <ShopPage /> },
      { path: '*', element: <NotFound /> },
    ],
  },
]);
