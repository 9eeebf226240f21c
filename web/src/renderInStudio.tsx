import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import known from './api/catalogue.json';
import { CatalogueContext, type Catalogue } from './components/catalogue';
import { StudioContext } from './components/currentStudio';
import { makeTheme } from './theme/theme';

/** What the server knows of the trade, as it says it. */
export const catalogue = known as unknown as Catalogue;

/** For specs of hooks and fields: with the catalogue above them. */
export function InCatalogue({ children }: { children: ReactNode }) {
  return <CatalogueContext value={catalogue}>{children}</CatalogueContext>;
}

/** For specs: a view within studio `s`, with a router and a cache of its own that asks once. */
export function renderInStudio(view: ReactNode) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <QueryClientProvider client={queries}>
      <ThemeProvider theme={makeTheme('light')}>
        <MemoryRouter>
          <InCatalogue>
            <StudioContext value={{ id: 's', choose: () => undefined }}>{view}</StudioContext>
          </InCatalogue>
        </MemoryRouter>
      </ThemeProvider>
    </QueryClientProvider>,
  );
}
