/** Whether what stands on the screen is too old to be trusted. */
import { useEffect, useState } from 'react';

/** An answer older than this may no longer hold [ms]: views are asked for every half minute. */
const OLD_MS = 60_000;
/** How often it is looked at [ms]. */
const LOOK_MS = 5_000;

/** Since when nothing was heard [ms of this machine's clock], once that is too long ago. */
export function useStale(heardAt: number): number | undefined {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), LOOK_MS);
    return () => clearInterval(timer);
  }, []);
  return heardAt > 0 && now - heardAt > OLD_MS ? heardAt : undefined;
}
