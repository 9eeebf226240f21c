import { useEffect, useState } from 'react';
import { clockAhead } from '../../api/clock';

/** How often the timer moves [ms]. */
const TICK_MS = 500;

/** Seconds since a coat was begun; the moment is kept, so that it survives a reload. */
export function useBench(key: string) {
  const kept = `ulvek.bench.${key}`;
  const [began, setBegan] = useState(() => Number(localStorage.getItem(kept)) || undefined);
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (began === undefined) return undefined;
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, [began]);
  const begin = () => {
    const at = Date.now();
    localStorage.setItem(kept, String(at));
    setNow(at);
    setBegan(at);
  };
  const drop = () => {
    localStorage.removeItem(kept);
    setBegan(undefined);
  };
  return {
    seconds: began === undefined ? undefined : Math.max(0, (now - began) / 1000),
    begin,
    drop,
  };
}

/** The server's time [ms], second by second while it is `running`. */
export function useSeconds(running: boolean): number {
  const [local, setLocal] = useState(() => Date.now());
  useEffect(() => {
    if (!running) return undefined;
    const timer = setInterval(() => setLocal(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, [running]);
  return local + (clockAhead() ?? 0);
}

/** `4:05` */
export function minutesSeconds(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
