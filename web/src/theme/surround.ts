import { createContext, use } from 'react';
import type { Surround } from './theme';

export const SurroundContext = createContext<{ surround: Surround; toggle: () => void }>({
  surround: 'light',
  toggle: () => undefined,
});

export const useSurround = () => use(SurroundContext);
