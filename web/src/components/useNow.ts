import { useEffect, useState } from 'react';
import { clockAhead } from '../api/clock';

/** How often views move with the time [ms]. */
const TICK_MS = 15_000;

/** The server's time now [ms]; before it was heard, from an answer that said `stamp` when it arrived
 * at `received`. */
export function useNow(stamp: string | undefined, received: number): number {
  const ahead = clockAhead() ?? (stamp === undefined ? 0 : Date.parse(stamp) - received);
  const [local, setLocal] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setLocal(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  return Math.max(local, received) + ahead;
}
