import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { minutesSeconds, useBench } from './useBench';

describe('the timer of the bench', () => {
  beforeEach(() => {
    vi.useFakeTimers({ now: 1_000_000 });
    localStorage.clear();
  });
  afterEach(() => vi.useRealTimers());

  it('counts from the first stroke and goes on after a reload', () => {
    const first = renderHook(() => useBench('p.s'));
    expect(first.result.current.seconds).toBeUndefined();
    act(() => first.result.current.begin());
    act(() => vi.advanceTimersByTime(65_000));
    expect(minutesSeconds(first.result.current.seconds ?? NaN)).toBe('1:05');
    first.unmount();
    act(() => vi.advanceTimersByTime(60_000));
    const again = renderHook(() => useBench('p.s'));
    expect(again.result.current.seconds).toBe(125);
    act(() => again.result.current.drop());
    expect(again.result.current.seconds).toBeUndefined();
    expect(renderHook(() => useBench('p.s')).result.current.seconds).toBeUndefined();
  });
});
