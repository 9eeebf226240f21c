import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { layers, placeLabels, runs, sampleAt, totals } from './geometry';
import { elastic, even } from './scale';

const HOUR = 3_600_000;

describe('time axes', () => {
  const starts = [0, 24 * HOUR, 24.5 * HOUR];
  const end = 30 * 24 * HOUR;

  it('lead back to the time they came from, and run only forward', () => {
    for (const scale of [elastic(starts, end, 800), even(0, end, 800)]) {
      let before = -1;
      for (const t of [0, 1, 300_000, HOUR, 23 * HOUR, 24 * HOUR, 24.2 * HOUR, 25 * HOUR, end]) {
        const x = scale.x(t);
        expect(x).toBeGreaterThanOrEqual(before);
        before = x;
        expect(scale.t(x)).toBeCloseTo(t, -2);
      }
      expect(scale.x(end)).toBeCloseTo(800, 6);
    }
  });

  it('give the first hour after a coat more room than the last day', () => {
    const { x } = elastic(starts, end, 800);
    expect(x(25.5 * HOUR) - x(24.5 * HOUR)).toBeGreaterThan(2 * (x(end) - x(end - 24 * HOUR)));
  });
});

const strata = {
  frames: [0, 10, 10, 20].map((s) => new Date(s * 1000).toISOString()),
  films: [
    {
      from: 0,
      um: [100, 50, 52, 48],
      state: ['workable', 'paintable', 'paintable', 'dry_through'],
    },
    { from: 2, um: [40, 20], state: ['workable', 'setting'] },
  ],
} as unknown as Schemas['Strata'];

describe('layers', () => {
  const all = layers(strata);

  it('stand on each other', () => {
    expect(all.lower[1]).toEqual([52, 48]);
    expect(totals(all)).toEqual([100, 50, 92, 68]);
  });

  it('are sampled between frames, and only where a coat is there', () => {
    expect(sampleAt(all, 5000)).toEqual([{ coat: 0, um: 75, state: 'workable' }]);
    expect(sampleAt(all, 15_000).map((s) => s.um)).toEqual([50, 30]);
    expect(sampleAt(all, -1)).toEqual([]);
  });

  it('fall into runs of one state that meet', () => {
    expect(runs(['workable', 'workable', 'setting'])).toEqual([
      { state: 'workable', from: 0, to: 2 },
      { state: 'setting', from: 2, to: 2 },
    ]);
  });
});

it('labels never overlap: they move up, or are left out at the top', () => {
  const want = { x: 0, y: 50, w: 60, h: 20 };
  const placed = placeLabels(
    [want, { ...want, x: 30 }, { ...want, x: 40 }, { ...want, x: 20 }],
    0,
    500,
  );
  expect(placed.map((b) => b?.y)).toEqual([50, 29, 8, undefined]);
});
