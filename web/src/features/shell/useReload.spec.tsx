import { renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { isLost, useReload } from './useReload';

beforeEach(() => {
  sessionStorage.clear();
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

test('the page is loaded again when Ulvek answers, not before, and not twice in a row', async () => {
  let there = false;
  vi.stubGlobal('fetch', () =>
    there ? Promise.resolve(new Response('{}')) : Promise.reject(new Error('away')),
  );
  const reload = vi.fn();
  renderHook(() => useReload(true, reload));
  await vi.advanceTimersByTimeAsync(10_000);
  expect(reload).not.toHaveBeenCalled();
  there = true;
  await vi.advanceTimersByTimeAsync(10_000);
  expect(reload).toHaveBeenCalledTimes(1);
});

test('a file that did not come is told from a view that failed', () => {
  const lost = new TypeError('Failed to fetch dynamically imported module: /assets/Season-1.js');
  expect([isLost(lost), isLost(new Error('x is undefined')), isLost(undefined)]).toEqual([
    true,
    false,
    false,
  ]);
});
