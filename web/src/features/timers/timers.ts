/** Timers of the session: kept in this browser, so that they survive a reload and a closed laptop. */
import { useSyncExternalStore } from 'react';
import { v4 as newId } from 'uuid';

export interface Timer {
  id: string;
  /** What it says. */
  what: string;
  kind: 'session' | 'misting' | 'own';
  /** When it rings, by this machine's clock [ms]. */
  ends: number;
  /** What is left while it is paused [ms]. */
  left?: number | undefined;
  /** How long it runs when it is begun again [ms]. */
  whole: number;
  /** When it was begun, by this machine's clock [ms]. */
  began?: number;
}

const KEPT = 'ulvek.timers';

const listeners = new Set<() => void>();
let text = '';
let known: Timer[] = [];

function isTimer(value: unknown): value is Timer {
  const timer = value as Timer;
  return (
    typeof timer === 'object' &&
    timer !== null &&
    typeof timer.id === 'string' &&
    typeof timer.what === 'string' &&
    Number.isFinite(timer.ends) &&
    Number.isFinite(timer.whole)
  );
}

/** What is kept; nothing of what another program may have left there. */
function read(): Timer[] {
  const now = localStorage.getItem(KEPT) ?? '[]';
  if (now !== text) {
    text = now;
    try {
      const all: unknown = JSON.parse(now);
      known = Array.isArray(all) ? all.filter(isTimer) : [];
    } catch {
      known = [];
    }
  }
  return known;
}

function write(change: (timers: Timer[]) => Timer[]) {
  localStorage.setItem(KEPT, JSON.stringify(change(read())));
  listeners.forEach((tell) => tell());
}

function listen(tell: () => void) {
  listeners.add(tell);
  // Another page of the same browser.
  window.addEventListener('storage', tell);
  return () => {
    listeners.delete(tell);
    window.removeEventListener('storage', tell);
  };
}

export const useTimers = () => useSyncExternalStore(listen, read);

/** Begins a timer of `whole` [ms]; one of the same kind is begun anew, but for the painter's own. */
export function beginTimer(kind: Timer['kind'], what: string, whole: number) {
  const timer = { id: newId(), what, kind, ends: Date.now() + whole, whole, began: Date.now() };
  write((all) => [...all.filter((t) => kind === 'own' || t.kind !== kind), timer]);
}

const change = (id: string, how: (timer: Timer) => Timer) =>
  write((all) => all.map((t) => (t.id === id ? how(t) : t)));

export const pauseTimer = (id: string) =>
  change(id, (t) => ({ ...t, left: Math.max(t.ends - Date.now(), 0) }));

export const resumeTimer = (id: string) =>
  change(id, (t) => ({ ...t, left: undefined, ends: Date.now() + (t.left ?? 0) }));

export const againTimer = (id: string) =>
  change(id, (t) => ({ ...t, left: undefined, ends: Date.now() + t.whole }));

export const endTimer = (id: string) => write((all) => all.filter((t) => t.id !== id));

/** Ends the session and the misting with it. */
export const endSession = () => write((all) => all.filter((t) => t.kind === 'own'));

/** Shorter than this it was no session [ms]. [practice] a touch by mistake */
const LEAST_SESSION_MS = 60_000;

/** From when to when a session was, ended now: not beyond the hours it was for. By this machine's
 * clock [ms]. */
export function worked({ began, ends, left }: Timer): { from: number; to: number } | undefined {
  const to = left === undefined ? Math.min(Date.now(), ends) : Date.now();
  return began !== undefined && to - began >= LEAST_SESSION_MS ? { from: began, to } : undefined;
}

/** `1:04:05`, `4:05` */
export function leftSaid(ms: number): string {
  const whole = Math.max(0, Math.ceil(ms / 1000));
  const two = (n: number) => String(n).padStart(2, '0');
  const minutes = Math.floor(whole / 60);
  const rest = `${two(minutes % 60)}:${two(whole % 60)}`;
  return minutes >= 60 ? `${Math.floor(minutes / 60)}:${rest}` : `${minutes}:${two(whole % 60)}`;
}
