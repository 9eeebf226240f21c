import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { useMemo, useState, type ReactNode } from 'react';
import { SurroundContext } from './surround';
import { makeTheme, type Surround } from './theme';

const KEPT = 'ulvek.surround';

export function SurroundProvider({ children }: { children: ReactNode }) {
  const [surround, setSurround] = useState<Surround>(() =>
    localStorage.getItem(KEPT) === 'dim' ? 'dim' : 'light',
  );
  const value = useMemo(
    () => ({
      surround,
      toggle: () =>
        setSurround((was) => {
          const next = was === 'light' ? 'dim' : 'light';
          localStorage.setItem(KEPT, next);
          return next;
        }),
    }),
    [surround],
  );
  const theme = useMemo(() => makeTheme(surround), [surround]);
  return (
    <SurroundContext value={value}>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        {children}
      </ThemeProvider>
    </SurroundContext>
  );
}
