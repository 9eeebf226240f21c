/** A search for a better order of work: begun, watched, stopped. A reload finds it again. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { Schemas } from '../../api/client';
import { useSearch } from '../../api/edits';
import { searchEventsUrl, searchQuery } from '../../api/queries';

export function useSearchRun(id: string) {
  const cache = useQueryClient();
  const search = useQuery(searchQuery(id));
  const { begin, stop } = useSearch(id);
  const running = search.data?.running ?? false;
  useEffect(() => {
    if (!running) return undefined;
    const events = new EventSource(searchEventsUrl(id));
    events.addEventListener('search', (event: MessageEvent<string>) => {
      cache.setQueryData(['search', id], JSON.parse(event.data) as Schemas['SearchOut']);
    });
    // The stream ends with the search, or with the application: what is known then is read once.
    events.onerror = () => {
      events.close();
      void cache.invalidateQueries({ queryKey: ['search', id] });
    };
    return () => events.close();
  }, [cache, id, running]);
  return { search: search.data ?? undefined, running, begin, stop };
}
