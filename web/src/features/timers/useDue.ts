/** What runs out: timers that were begun, and coats that set, dry and may be sealed again. */
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { clockAhead } from '../../api/clock';
import { outlookQuery } from '../../api/queries';
import { start } from '../../format/words';
import { ring } from './ring';
import { useTimers, type Timer } from './timers';

export interface Due {
  id: string;
  what: string;
  /** What is left [ms]; less than nothing once it is over. */
  left: number;
  /** The timer behind it; a coat has none. */
  timer?: Timer;
}

const SECOND = 1000;
/** How long before it a coat's next state is counted down [ms]. [practice] an evening */
const AHEAD_MS = 3 * 3_600_000;
/** How long what is over stays on the page [ms]. [practice] */
const STAYS_MS = 10 * 60_000;

export function useDue(studio: string): Due[] {
  const timers = useTimers();
  const outlook = useQuery(outlookQuery(studio));
  const [local, setLocal] = useState(() => Date.now());
  // Nothing ticks while nothing is due: what was just laid is newer than the last tick.
  const now = Math.max(local, outlook.dataUpdatedAt) + (clockAhead() ?? 0);
  const coats = (outlook.data?.pictures ?? []).flatMap((picture): Due[] => {
    const tops = picture.coats.filter((coat) => coat.on_top);
    const next = tops.flatMap((coat) => {
      const of = `${start(coat.title)}, ${picture.title}`;
      return [
        { what: `Sets: ${of}`, at: coat.if_left.setting_at },
        { what: `Dry to the touch: ${of}`, at: coat.if_left.touch_dry_at },
        ...(coat.seals ? [{ what: `Next coat of varnish: ${of}`, at: coat.seal_from }] : []),
      ];
    });
    return next.flatMap(({ what, at }) => {
      const left = at === null ? NaN : Date.parse(at) - now;
      return left > -STAYS_MS && left < AHEAD_MS ? [{ id: `${what} ${at}`, what, left }] : [];
    });
  });
  const begun = timers.map((timer) => ({
    id: timer.id,
    what: timer.what,
    // A moment may pass before the clock of the page is looked at.
    left: Math.min(timer.left ?? timer.ends - local, timer.whole),
    timer,
  }));
  const due = [...begun, ...coats.sort((a, b) => a.left - b.left)];
  const running = due.length > 0;
  useEffect(() => {
    if (!running) return undefined;
    const timer = setInterval(() => setLocal(Date.now()), SECOND);
    return () => clearInterval(timer);
  }, [running]);
  // What goes from before to after while it is looked at, rings; what was over already does not.
  const before = useRef(new Map<string, boolean>());
  useEffect(() => {
    const seen = new Map<string, boolean>();
    for (const one of due) {
      const over = one.left <= 0;
      seen.set(one.id, over);
      if (over && before.current.get(one.id) === false) ring(one.what);
    }
    before.current = seen;
  });
  return due;
}
