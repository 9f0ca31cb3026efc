import './theme.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { NewVersion } from './app/new-version.js';
import { routes } from './app/routes.js';
import { PreferencesProvider } from './data/preferences.js';
import { SayProvider } from './ui/say.js';

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, networkMode: 'always' }, mutations: { networkMode: 'always' } },
});

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <PreferencesProvider>
        <SayProvider>
          <RouterProvider router={createBrowserRouter(routes)} />
          <NewVersion />
        </SayProvider>
      </PreferencesProvider>
    </QueryClientProvider>
  </StrictMode>,
);
