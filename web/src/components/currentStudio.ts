/** Which studio is open: the one chosen last, or the newest. */
import { createContext, use } from 'react';

export interface CurrentStudio {
  id: string;
  choose: (id: string) => void;
}

export const StudioContext = createContext<CurrentStudio | undefined>(undefined);

export function useCurrentStudio(): CurrentStudio {
  const found = use(StudioContext);
  if (!found) throw new Error('No studio is open');
  return found;
}
