/** A view whose file did not come: it is gone since an upgrade, or nothing answered. The browser may keep the
 * failure as long as the page is open, so the page is loaded anew, but only once Ulvek answers. */
import { useEffect } from 'react';
import { client } from '../../api/client';

const MARK = 'ulvek.reloaded';
/** A second reload within this time would not help either [ms]. */
const AGAIN_MS = 30_000;
/** How often it is asked whether Ulvek answers [ms]. [practice] */
const ASK_MS = 2_000;

/** Whether an error says that a file of the page did not come, in the words of the usual browsers. */
export const isLost = (error: unknown) =>
  error instanceof Error &&
  /dynamically imported module|importing a module script|module script failed|preload CSS/i.test(
    error.message,
  );

const answers = async () => (await client.GET('/api/health')).response.ok;

/** Loads the page again as soon as Ulvek answers, when `lost`. */
export function useReload(lost: boolean, reload = () => window.location.reload()) {
  useEffect(() => {
    if (!lost) return undefined;
    const look = () => {
      const last = Number(sessionStorage.getItem(MARK) ?? 0);
      if (Date.now() - last < AGAIN_MS) return;
      void answers()
        .then((there) => {
          if (!there) return;
          sessionStorage.setItem(MARK, String(Date.now()));
          reload();
        })
        .catch(() => undefined);
    };
    look();
    const timer = setInterval(look, ASK_MS);
    return () => clearInterval(timer);
  }, [lost, reload]);
}
