import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { type ReactNode, useMemo, useState, useSyncExternalStore } from 'react';
import { SurroundContext } from './surround';
import { makeTheme, type Surround } from './theme';

const KEPT = 'ulvek.surround';

/** What the painter chose on this device, if anything. */
function kept(): Surround | undefined {
  const word = localStorage.getItem(KEPT);
  return word === 'dim' || word === 'light' ? word : undefined;
}

const dark = () => window.matchMedia('(prefers-color-scheme: dark)');

/** What the system asks for. */
const asked = (): Surround => (dark().matches ? 'dim' : 'light');

function hear(changed: () => void) {
  const query = dark();
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
}

export function SurroundProvider({ children }: { children: ReactNode }) {
  const [chosen, setChosen] = useState<Surround | undefined>(kept);
  const system = useSyncExternalStore(hear, asked);
  const surround = chosen ?? system;
  const value = useMemo(
    () => ({
      surround,
      toggle: () => {
        const next = surround === 'light' ? 'dim' : 'light';
        localStorage.setItem(KEPT, next);
        setChosen(next);
      },
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
