/** Sends what waits, in order, as soon as Ulvek answers again. */
import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { drain, isNew } from '../../api/sender';
import { next, useWaiting, waiting } from '../../api/waiting';

/** How often it is tried again [ms]. [practice] */
const AGAIN_MS = 5_000;

export function useSender() {
  const cache = useQueryClient();
  const list = useWaiting();
  const some = next(list) !== undefined;
  useEffect(() => {
    if (!some) return undefined;
    const go = async () => {
      const before = waiting().length;
      await drain();
      // All of them at once: each view is asked for again only once.
      if (waiting().length < before) {
        void cache.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'catalogue' });
      }
    };
    const again = () => void go().catch(() => undefined);
    again();
    const timer = setInterval(again, AGAIN_MS);
    window.addEventListener('online', again);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', again);
    };
  }, [cache, some]);
  return list.filter((entry) => !isNew(entry));
}
