import { act, renderHook } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { catalogue, InCatalogue } from '../renderInStudio';
import { useNumbers, faultOf, rangeOf } from './numbers';

const TABLE = {
  share: { field: 'share_of_area', label: 'Share' },
  gap: { field: 'earliest_gap_min', label: 'Wait', open: true },
} as const;

const fault = (key: keyof typeof TABLE, text: string) =>
  faultOf(TABLE[key], rangeOf(catalogue, TABLE[key].field), text);

describe('a table of numbers', () => {
  it('says a number in the unit in which it is spoken, and stores it in that of the formats', () => {
    const { result } = renderHook(() => useNumbers(TABLE, { share: 0.35 }), {
      wrapper: InCatalogue,
    });
    expect(result.current.texts).toEqual({ share: '35', gap: '' });
    expect(result.current.label('share')).toBe('Share, %');
    act(() => result.current.set('share', '62,5'));
    expect(result.current.value('share')).toBeCloseTo(0.625, 12);
    expect(result.current.open('gap')).toBeUndefined();
    expect(result.current.changed({ share: 0.35 })).toBe(true);
    act(() => result.current.fill({ share: 0.35 }));
    expect(result.current.changed({ share: 0.35 })).toBe(false);
  });

  it('leaves a number as it is stored that nobody touched, also where fewer digits are shown', () => {
    const { result } = renderHook(() => useNumbers(TABLE, { share: 1 / 3 }), {
      wrapper: InCatalogue,
    });
    expect(result.current.texts.share).toBe('33.33');
    expect(result.current.value('share')).toBe(1 / 3);
    act(() => result.current.set('share', '33.4'));
    expect(result.current.value('share')).toBeCloseTo(0.334, 12);
  });

  it('refuses what is outside of the range of the catalogue, its bounds not', () => {
    expect(fault('share', '101')).toBe('Share must be from 0 to 100 %, not 101 %.');
    expect([fault('share', '0'), fault('share', '100')]).toEqual([undefined, undefined]);
  });

  it('takes nothing for an open number only, and a word for none', () => {
    expect(fault('gap', ' ')).toBeUndefined();
    expect(fault('gap', 'soon')).toBe('Minutes must be a number.');
    expect(fault('share', '')).toBe('Share must be a number.');
  });
});
