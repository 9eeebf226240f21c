/** The last state seen, kept in the browser: without a connection the page opens with it, and says of
 * when it is. */
import { dehydrate, hydrate, type DehydratedState, type QueryClient } from '@tanstack/react-query';
import { get, set } from 'idb-keyval';
import { client } from './api/client';

declare const __BUILD__: string;

const KEPT = 'ulvek.last';
/** How long an answer stays in memory after it was looked at last [ms]. [practice] an hour */
export const LAST_MS = 3_600_000;
/** How long an answer is waited for before the last state is taken [ms]. [practice] longer than the server
 * waits for its database */
const PATIENCE_MS = 10_000;
/** How often it is kept at most [ms]. [practice] */
const EVERY_MS = 3_000;

interface Last {
  build: string;
  state: DehydratedState;
}

/** Takes the last state where nothing answers; what answers, also that it cannot just now, counts. */
export async function recall(queries: QueryClient): Promise<void> {
  try {
    await client.GET('/api/health', {
      cache: 'no-store',
      signal: AbortSignal.timeout(PATIENCE_MS),
    });
    return;
  } catch {
    // Nothing answered.
  }
  try {
    const last = await get<Last>(KEPT);
    if (last?.build === __BUILD__) hydrate(queries, last.state);
  } catch {
    // A browser that keeps nothing begins with nothing.
  }
}

/** Keeps what is seen, at most every few seconds. */
export function remember(queries: QueryClient): void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  queries.getQueryCache().subscribe((event) => {
    if (event.type !== 'updated' || event.action.type !== 'success') return;
    timer ??= setTimeout(() => {
      timer = undefined;
      const last: Last = { build: __BUILD__, state: dehydrate(queries) };
      set(KEPT, last).catch(() => undefined);
    }, EVERY_MS);
  });
}
