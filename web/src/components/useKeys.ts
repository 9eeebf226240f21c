/** Keys of the view that is open; every one is listed by `?`. */
import { useEffect, useRef, useSyncExternalStore } from 'react';

export interface Key {
  /** As `KeyboardEvent.key` has it. */
  key: string;
  /** What it does, for the list. */
  does: string;
  run: () => void;
}

let active: Key[][] = [];
const listeners = new Set<() => void>();
const changed = () => listeners.forEach((listener) => listener());

function typing(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return (
    target.isContentEditable ||
    /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) ||
    target.closest('[role="dialog"], [role="listbox"]') !== null
  );
}

function onKey(event: KeyboardEvent) {
  if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return;
  if (typing(event.target)) return;
  const found = active.flat().findLast((k) => k.key === event.key);
  if (!found) return;
  event.preventDefault();
  found.run();
}

/** Makes `keys` work while the component is there. */
export function useKeys(keys: Key[]) {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  const names = keys.map((k) => `${k.key} ${k.does}`).join('\n');
  useEffect(() => {
    const mine: Key[] = latest.current.map((k) => ({
      ...k,
      run: () => latest.current.find((now) => now.key === k.key)?.run(),
    }));
    if (active.length === 0) window.addEventListener('keydown', onKey);
    active = [...active, mine];
    changed();
    return () => {
      active = active.filter((set) => set !== mine);
      if (active.length === 0) window.removeEventListener('keydown', onKey);
      changed();
    };
  }, [names]);
}

/** Every key that works now. */
export function useActiveKeys(): Key[] {
  const sets = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => active,
  );
  return sets.flat();
}
