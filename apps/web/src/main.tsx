import '@fontsource/atkinson-hyperlegible/400.css';
import '@fontsource/atkinson-hyperlegible/700.css';
import '@fontsource/bitter/700.css';
import { CssBaseline, ThemeProvider } from '@mui/material';
import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Navigate, RouterProvider, createBrowserRouter } from 'react-router';
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { ApiProblem, concernsSession } from './api/client.ts';
import { Carrier } from './frame/Carrier.tsx';
import { Conflicts } from './frame/Conflicts.tsx';
import { Pages } from './frame/Pages.tsx';
import { Entrance } from './frame/Entrance.tsx';
import { Home } from './frame/Home.tsx';
import { Spoken } from './frame/Spoken.tsx';
import { NotFound } from './features/rounds/NotFound.tsx';
import { deferred } from './ui/deferred.tsx';
import { theme } from './ui/theme.ts';
import { BrokenPage } from './ui/Boundary.tsx';
import { SoilPatterns } from './ui/SoilPatterns.tsx';
import { UndoProvider } from './ui/undo.tsx';
import { UnitsProvider } from './ui/units.tsx';
import { WorkingProvider } from './ui/working.tsx';

// A refusal that concerns the session: whoever is signed in, and as what, is asked anew.
const onError = (error: Error): void => {
  if (concernsSession(error)) void client.invalidateQueries({ queryKey: ['session'] });
};
const client = new QueryClient({
  queryCache: new QueryCache({ onError }),
  mutationCache: new MutationCache({ onError }),
  defaultOptions: {
    queries: {
      staleTime: 30_000,
      retry: (failures, error) => failures < 1 && !(error instanceof ApiProblem && error.status >= 400),
    },
  },
});
// The content policy lets in the styles that carry this answer's nonce, and no others.
const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce ?? '';
const cache = createCache({ key: 'css', nonce, prepend: true });

/** Code of a page comes when it is wanted: the first one shows without all the others. */
const Later = {
  AboutSite: deferred(async () => (await import('./features/site/AboutSite.tsx')).AboutSite),
  Board: deferred(async () => (await import('./features/sampling/bags/Board.tsx')).Board),
  CalculatorPage: deferred(async () => (await import('./features/pocket/CalculatorPage.tsx')).CalculatorPage),
  CardPage: deferred(async () => (await import('./features/cards/CardPage.tsx')).CardPage),
  FieldSitePage: deferred(async () => (await import('./frame/today/FieldSitePage.tsx')).FieldSitePage),
  Invitation: deferred(async () => (await import('./features/entrance/OneTimeLinks.tsx')).Invitation),
  OwnerReportPage: deferred(async () => (await import('./features/report/OwnerReportPage.tsx')).OwnerReportPage),
  Pocket: deferred(async () => (await import('./features/pocket/Pocket.tsx')).Pocket),
  PracticePage: deferred(async () => (await import('./features/practice/PracticePage.tsx')).PracticePage),
  ReportPage: deferred(async () => (await import('./features/report/ReportPages.tsx')).ReportPage),
  Reset: deferred(async () => (await import('./features/entrance/OneTimeLinks.tsx')).Reset),
  RetestsPage: deferred(async () => (await import('./features/reading/RetestsPage.tsx')).RetestsPage),
  SentPage: deferred(async () => (await import('./frame/today/SentPage.tsx')).SentPage),
  SettingsPage: deferred(async () => (await import('./features/settings/SettingsPage.tsx')).SettingsPage),
  SharedReport: deferred(async () => (await import('./features/report/ReportPages.tsx')).SharedReport),
  SiteFrame: deferred(async () => (await import('./frame/SiteFrame.tsx')).SiteFrame),
  Stores: deferred(async () => (await import('./features/materials/Stores.tsx')).Stores),
  Tables: deferred(async () => (await import('./features/tables/Tables.tsx')).Tables),
  TestsPage: deferred(async () => (await import('./features/fieldTests/TestsPage.tsx')).TestsPage),
  TodayPage: deferred(async () => (await import('./frame/today/TodayPage.tsx')).TodayPage),
  WalkPage: deferred(async () => (await import('./features/sampling/walk/WalkPage.tsx')).WalkPage),
  WaysPage: deferred(async () => (await import('./features/lab/review/WaysPage.tsx')).WaysPage),
  WeekPage: deferred(async () => (await import('./features/season/WeekPage.tsx')).WeekPage),
};
const errorElement = <BrokenPage />;
const router = createBrowserRouter([
  {
    element: <Pages />,
    children: [
      { path: '/invitation/:token', element: <Later.Invitation />, errorElement },
      { path: '/reset/:token', element: <Later.Reset />, errorElement },
      { path: '/shared/:token', element: <Later.SharedReport />, errorElement },
      // Beside the entrance: the walk goes on where nobody can be asked who is there.
      { path: '/today', element: <Later.TodayPage />, errorElement },
      { path: '/sent', element: <Later.SentPage />, errorElement },
      { path: '/field/:siteId', element: <Later.FieldSitePage />, errorElement },
      // Where these were before there was one page of the day.
      { path: '/walk', element: <Navigate to="/today" replace /> },
      { path: '/cards', element: <Navigate to="/today" replace /> },
      { path: '/walk/:siteId', element: <Later.WalkPage />, errorElement },
      { path: '/tests/:siteId', element: <Later.TestsPage />, errorElement },
      { path: '/cards/:jobId', element: <Later.CardPage />, errorElement },
      // Beside the entrance too: a calculation needs nobody signed in.
      { path: '/pocket', element: <Later.Pocket />, errorElement },
      { path: '/pocket/:subject/:method', element: <Later.CalculatorPage />, errorElement },
      {
        element: <Entrance />,
        errorElement,
        children: [
          { path: '/', element: <Home /> },
          { path: '/reports/:siteId', element: <Later.ReportPage /> },
          { path: '/sites/:siteId/owner-report', element: <Later.OwnerReportPage /> },
          { path: '/practice/:part?', element: <Later.PracticePage /> },
          { path: '/products/:part?', element: <Later.Stores /> },
          { path: '/settings/:part?', element: <Later.SettingsPage /> },
          { path: '/sites/:siteId/about', element: <Later.AboutSite /> },
          { path: '/tables/:part?', element: <Later.Tables /> },
          { path: '/bags', element: <Later.Board /> },
          { path: '/ways', element: <Later.WaysPage /> },
          { path: '/week', element: <Later.WeekPage /> },
          { path: '/retests', element: <Later.RetestsPage /> },
          { path: '/sites/:siteId/:step?/:zoneId?', element: <Later.SiteFrame /> },
          { path: '*', element: <NotFound /> },
        ],
      },
    ],
  },
]);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <CacheProvider value={cache}>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        <SoilPatterns />
        <QueryClientProvider client={client}>
          <UnitsProvider>
            <WorkingProvider>
              <UndoProvider>
                <RouterProvider router={router} />
                <Carrier />
                <Conflicts />
                <Spoken />
              </UndoProvider>
            </WorkingProvider>
          </UnitsProvider>
        </QueryClientProvider>
      </ThemeProvider>
    </CacheProvider>
  </StrictMode>,
);
