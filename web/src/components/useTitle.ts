import { useEffect } from 'react';

/** Names the page as `what - Ulvek`, once that is known, so that tabs and histories tell one view from another. */
export function useTitle(what: string | undefined) {
  useEffect(() => {
    if (what) document.title = `${what} - Ulvek`;
  }, [what]);
}
