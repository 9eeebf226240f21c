import { act, renderHook } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { useStale } from './useStale';

afterEach(() => vi.useRealTimers());

describe('an answer that grows old', () => {
  it('is said to be old after a minute, with since when, and no longer once another came', () => {
    vi.useFakeTimers();
    const heard = Date.now();
    const view = renderHook(({ at }) => useStale(at), { initialProps: { at: heard } });
    act(() => void vi.advanceTimersByTime(55_000));
    expect(view.result.current).toBeUndefined();
    act(() => void vi.advanceTimersByTime(15_000));
    expect(view.result.current).toBe(heard);
    view.rerender({ at: Date.now() });
    expect(view.result.current).toBeUndefined();
  });

  it('is not said before anything was heard at all', () => {
    expect(renderHook(() => useStale(0)).result.current).toBeUndefined();
  });
});
