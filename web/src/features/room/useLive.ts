/** What instruments send, on the page as it comes. */
import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { Schemas } from '../../api/client';
import { airLiveUrl } from '../../api/queries';

/** Listens while the page is looked at: a page in the background would hold a connection for
 * nothing, and a browser has only six of them. */
export function useLive(studio: string) {
  const cache = useQueryClient();
  useEffect(() => {
    let events: EventSource | undefined;
    const hear = (event: MessageEvent<string>) => {
      const news = JSON.parse(event.data) as Schemas['LiveOut'];
      const changed = news.plan ? ['instruments', 'air', 'outlook'] : ['instruments'];
      for (const key of changed) void cache.invalidateQueries({ queryKey: [key, studio] });
    };
    const listen = () => {
      events?.close();
      events = undefined;
      if (document.visibilityState === 'hidden') return;
      // The browser connects again by itself when the connection is lost.
      events = new EventSource(airLiveUrl(studio));
      events.addEventListener('air', hear);
    };
    listen();
    document.addEventListener('visibilitychange', listen);
    return () => {
      document.removeEventListener('visibilitychange', listen);
      events?.close();
    };
  }, [cache, studio]);
}
