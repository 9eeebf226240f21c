import '@fontsource-variable/source-sans-3';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { ApiError } from './api/client';
import { LAST_MS, recall, remember } from './lastState';
import { NotHere } from './features/shell/NotHere';
import { Shell } from './features/shell/Shell';
import { SurroundProvider } from './theme/SurroundProvider';

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // A database that is away comes back: ask again a few times before giving up.
      retry: (count, error) =>
        count < 2 && (!(error instanceof ApiError) || [0, 503].includes(error.problem.status)),
      retryDelay: 800,
      staleTime: 5_000,
      gcTime: LAST_MS,
    },
  },
});

const FirstStudio = lazy(async () => ({
  default: (await import('./features/studio/FirstStudio')).FirstStudio,
}));

const Opened = () => (
  <Shell
    first={
      <Suspense fallback={null}>
        <FirstStudio />
      </Suspense>
    }
  />
);

const router = createBrowserRouter([
  {
    path: '/',
    Component: Opened,
    ErrorBoundary: NotHere,
    HydrateFallback: () => null,
    children: [
      // A view that fails leaves rail and navigation where they are.
      {
        ErrorBoundary: NotHere,
        children: [
          {
            index: true,
            lazy: async () => ({ Component: (await import('./features/now/Now')).Now }),
          },
          {
            path: 'pictures',
            lazy: async () => ({
              Component: (await import('./features/pictures/Pictures')).Pictures,
            }),
          },
          {
            path: 'pictures/:id',
            lazy: async () => ({ Component: (await import('./features/picture/Picture')).Picture }),
          },
          {
            path: 'pictures/:id/cup/:step',
            lazy: async () => ({
              Component: (await import('./features/picture/cup/CupView')).CupView,
            }),
          },
          {
            path: 'season',
            lazy: async () => ({ Component: (await import('./features/season/Season')).Season }),
          },
          {
            path: 'season/week',
            lazy: async () => ({ Component: (await import('./features/season/Week')).Week }),
          },
          {
            path: 'gate',
            lazy: async () => ({ Component: (await import('./features/gate/Gates')).Gates }),
          },
          {
            path: 'pictures/:id',
            lazy: async () => ({ Component: (await import('./features/gate/Sealing')).Sealing }),
            children: [
              {
                path: 'gate',
                lazy: async () => ({
                  Component: (await import('./features/gate/GateView')).GateView,
                }),
              },
              {
                path: 'varnish',
                lazy: async () => ({
                  Component: (await import('./features/gate/VarnishView')).VarnishView,
                }),
              },
              {
                path: 'bench',
                lazy: async () => ({
                  Component: (await import('./features/gate/BenchView')).BenchView,
                }),
              },
              {
                path: 'photographs',
                lazy: async () => ({
                  Component: (await import('./features/gate/PhotographsView')).PhotographsView,
                }),
              },
              {
                path: 'record',
                lazy: async () => ({
                  Component: (await import('./features/gate/RecordView')).RecordView,
                }),
              },
            ],
          },
          {
            path: 'log',
            lazy: async () => ({ Component: (await import('./features/log/LogView')).LogView }),
          },
          {
            path: 'shelf',
            lazy: async () => ({ Component: (await import('./features/shelf/Shelf')).Shelf }),
          },
          {
            path: 'studio',
            lazy: async () => ({ Component: (await import('./features/studio/Studio')).Studio }),
          },
        ],
      },
      { path: '*', Component: NotHere },
    ],
  },
]);

// Installed, the page opens without a connection too.
if (import.meta.env.PROD && 'serviceWorker' in navigator) {
  window.addEventListener('load', () => void navigator.serviceWorker.register('/sw.js'));
}
// Without an answer the last state seen is shown.
void recall(queries);
remember(queries);
const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <SurroundProvider>
          <RouterProvider router={router} />
        </SurroundProvider>
      </QueryClientProvider>
    </StrictMode>,
  );
}
