import 'reflect-metadata';
import '@fontsource/atkinson-hyperlegible/400.css';
import '@fontsource/atkinson-hyperlegible/700.css';
import '@fontsource/bitter/700.css';
import { CssBaseline, ThemeProvider } from '@mui/material';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider, createBrowserRouter } from 'react-router';
import { Shell } from './frame/Shell.tsx';
import { SiteFrame } from './frame/SiteFrame.tsx';
import { Catalogue } from './features/catalogue/Catalogue.tsx';
import { NotFound } from './features/rounds/NotFound.tsx';
import { Rounds } from './features/rounds/Rounds.tsx';
import { theme } from './theme.ts';
import { UndoProvider } from './ui/undo.tsx';
import { UnitsProvider } from './ui/units.tsx';
import { WorkingProvider } from './ui/working.tsx';

const client = new QueryClient({ defaultOptions: { queries: { staleTime: 30_000, retry: 1 } } });
const router = createBrowserRouter([
  {
    element: <Shell />,
    children: [
      { path: '/', element: <Rounds /> },
      { path: '/products', element: <Catalogue /> },
      { path: '/sites/:siteId/:step?/:zoneId?', element: <SiteFrame /> },
      { path: '*', element: <NotFound /> },
    ],
  },
]);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <ThemeProvider theme={theme}>
      <CssBaseline />
      <QueryClientProvider client={client}>
        <UnitsProvider>
          <WorkingProvider>
            <UndoProvider>
              <RouterProvider router={router} />
            </UndoProvider>
          </WorkingProvider>
        </UnitsProvider>
      </QueryClientProvider>
    </ThemeProvider>
  </StrictMode>,
);
