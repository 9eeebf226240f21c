/** Sends what waits, in order, as soon as Ulvek answers again. */
import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { ApiError } from '../../api/client';
import { ask, next, send, sent, useWaiting, waiting } from '../../api/waiting';

/** How often it is tried again [ms]. [practice] */
const AGAIN_MS = 5_000;
const KEPT_ALREADY = 'urn:ulvek:problem:kept-already';

export function useSender() {
  const cache = useQueryClient();
  const list = useWaiting();
  const first = next(list)?.key;
  useEffect(() => {
    if (first === undefined) return undefined;
    let over = false;
    const sendAll = () =>
      // One window sends at a time.
      navigator.locks.request('ulvek.waiting', { ifAvailable: true }, async (mine) => {
        for (let one = next(waiting()); mine && one && !over; one = next(waiting())) {
          try {
            await send(one.kind, one.of, one.key, one.body as never);
            sent(one);
          } catch (error) {
            if (!(error instanceof ApiError)) throw error;
            const { problem } = error;
            if (problem.type === KEPT_ALREADY) sent(one);
            // Away, or too much at once: later.
            else if ([0, 429, 503].includes(problem.status)) return;
            else ask(one, error.message);
          }
          void cache.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'catalogue' });
        }
      });
    const go = () => void sendAll();
    go();
    const timer = setInterval(go, AGAIN_MS);
    window.addEventListener('online', go);
    return () => {
      over = true;
      clearInterval(timer);
      window.removeEventListener('online', go);
    };
  }, [cache, first]);
  return list;
}
