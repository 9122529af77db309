import 'reflect-metadata';
import 'react-datasheet-grid/dist/style.css';
import '@fontsource/atkinson-hyperlegible/400.css';
import '@fontsource/atkinson-hyperlegible/700.css';
import '@fontsource/bitter/700.css';
import { CssBaseline, ThemeProvider } from '@mui/material';
import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider, createBrowserRouter } from 'react-router';
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { ApiProblem, concernsSession } from './api/client.ts';
import { Invitation, Reset } from './features/entrance/OneTimeLinks.tsx';
import { PracticePage } from './features/practice/PracticePage.tsx';
import { OwnerReportPage } from './features/report/OwnerReportPage.tsx';
import { ReportPage, SharedReport } from './features/report/ReportPages.tsx';
import { Conflicts } from './frame/Conflicts.tsx';
import { Pages } from './frame/Pages.tsx';
import { Entrance } from './frame/Entrance.tsx';
import { Home } from './frame/Home.tsx';
import { SiteFrame } from './frame/SiteFrame.tsx';
import { Stores } from './features/materials/Stores.tsx';
import { SettingsPage } from './features/settings/SettingsPage.tsx';
import { AboutSite } from './features/site/AboutSite.tsx';
import { Tables } from './features/tables/Tables.tsx';
import { TestsPage } from './features/fieldTests/TestsPage.tsx';
import { WaysPage } from './features/lab/review/WaysPage.tsx';
import { Board } from './features/sampling/bags/Board.tsx';
import { CardPage } from './features/cards/CardPage.tsx';
import { CardsPage } from './features/cards/CardsPage.tsx';
import { RetestsPage } from './features/reading/RetestsPage.tsx';
import { WeekPage } from './features/season/WeekPage.tsx';
import { WalkPage } from './features/sampling/walk/WalkPage.tsx';
import { WalksPage } from './features/sampling/walk/WalksPage.tsx';
import { NotFound } from './features/rounds/NotFound.tsx';
import { deferred } from './ui/deferred.tsx';
import { theme } from './ui/theme.ts';
import { BrokenPage } from './ui/Boundary.tsx';
import { SoilPatterns } from './ui/CoreStick.tsx';
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

const wait = <p style={{ padding: 16 }}>Opening…</p>;
const Later = {
  Pocket: deferred(async () => (await import('./features/pocket/Pocket.tsx')).Pocket),
  Calculator: deferred(async () => (await import('./features/pocket/CalculatorPage.tsx')).CalculatorPage),
};
const PocketPage = () => (
  <Suspense fallback={wait}>
    <Later.Pocket />
  </Suspense>
);
const CalculatorPage = () => (
  <Suspense fallback={wait}>
    <Later.Calculator />
  </Suspense>
);
const errorElement = <BrokenPage />;
const router = createBrowserRouter([
  {
    element: <Pages />,
    children: [
      { path: '/invitation/:token', element: <Invitation />, errorElement },
      { path: '/reset/:token', element: <Reset />, errorElement },
      { path: '/shared/:token', element: <SharedReport />, errorElement },
      // Beside the entrance: the walk goes on where nobody can be asked who is there.
      { path: '/walk', element: <WalksPage />, errorElement },
      { path: '/walk/:siteId', element: <WalkPage />, errorElement },
      { path: '/tests/:siteId', element: <TestsPage />, errorElement },
      { path: '/cards', element: <CardsPage />, errorElement },
      { path: '/cards/:jobId', element: <CardPage />, errorElement },
      // Beside the entrance too: a calculation needs nobody signed in.
      { path: '/pocket', element: <PocketPage />, errorElement },
      { path: '/pocket/:subject/:method', element: <CalculatorPage />, errorElement },
      {
        element: <Entrance />,
        errorElement,
        children: [
          { path: '/', element: <Home /> },
          { path: '/reports/:siteId', element: <ReportPage /> },
          { path: '/sites/:siteId/owner-report', element: <OwnerReportPage /> },
          { path: '/practice/:part?', element: <PracticePage /> },
          { path: '/products/:part?', element: <Stores /> },
          { path: '/settings/:part?', element: <SettingsPage /> },
          { path: '/sites/:siteId/about', element: <AboutSite /> },
          { path: '/tables/:part?', element: <Tables /> },
          { path: '/bags', element: <Board /> },
          { path: '/ways', element: <WaysPage /> },
          { path: '/week', element: <WeekPage /> },
          { path: '/retests', element: <RetestsPage /> },
          { path: '/sites/:siteId/:step?/:zoneId?', element: <SiteFrame /> },
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
                <Conflicts />
              </UndoProvider>
            </WorkingProvider>
          </UnitsProvider>
        </QueryClientProvider>
      </ThemeProvider>
    </CacheProvider>
  </StrictMode>,
);
