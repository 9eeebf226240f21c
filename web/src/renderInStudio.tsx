import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { StudioContext } from './components/currentStudio';
import { makeTheme } from './theme/theme';

/** For specs: a view within studio `s`, with a router and a cache of its own that asks once. */
export function renderInStudio(view: ReactNode) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <QueryClientProvider client={queries}>
      <ThemeProvider theme={makeTheme('light')}>
        <MemoryRouter>
          <StudioContext value={{ id: 's', choose: () => undefined }}>{view}</StudioContext>
        </MemoryRouter>
      </ThemeProvider>
    </QueryClientProvider>,
  );
}
