import { cleanup, render } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { GoodHours } from './GoodHours';

const HOUR = 3_600_000;
const START = Date.parse('2027-01-14T00:00:00Z');

/** Ten days of hours; `of` says whether each is fit and open. */
function air(of: (hour: number) => { fit: boolean; open: boolean }): Schemas['AirAhead'] {
  return {
    now: '2027-01-14T12:00:00Z',
    time_zone: 'UTC',
    version: 1,
    history: { undo: null, redo: null },
    source: 'constant',
    room: { held_c: 20, warmer_k: 3, lag_h: 12, changes_per_h: 0.5, moisture_g_m3_h: 1 },
    wanted_c: { low: 18, high: 24 },
    wanted_rh: { low: 0.3, high: 0.65 },
    hours: Array.from({ length: 240 }, (_, h) => ({
      at: new Date(START + h * HOUR).toISOString(),
      temperature_c: 20,
      relative_humidity: 0.5,
      ...of(h),
    })),
    days: [],
  };
}

function bars(of: Parameters<typeof air>[0], width = 1000) {
  const drawn = render(
    <GoodHours air={air(of)} width={width} zone="UTC" now={START + 12 * HOUR} />,
  ).container;
  const marks = [...drawn.querySelectorAll('rect')].filter((r) =>
    ['26', '25'].includes(r.getAttribute('height') ?? ''),
  );
  return marks.map((r) => ({
    hours: Math.round((Number(r.getAttribute('width')) / (width - 66)) * 240),
    good: r.getAttribute('fill') === 'currentColor',
  }));
}

afterEach(cleanup);

describe('the good hours', () => {
  it('draws each stretch of open hours once, solid where it is fit, hatched where not', () => {
    const found = bars((h) => ({ fit: h < 20, open: (h >= 10 && h < 24) || (h >= 34 && h < 38) }));
    expect(found).toEqual([
      { hours: 10, good: true },
      { hours: 4, good: false },
      { hours: 4, good: false },
    ]);
  });

  it('shows an hour on a phone too, and nothing where there is no room', () => {
    expect(bars((h) => ({ fit: true, open: h === 5 }), 340)).toHaveLength(1);
    cleanup();
    expect(bars(() => ({ fit: true, open: true }), 80)).toEqual([]);
  });
});
