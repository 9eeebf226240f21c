/** Time axes. Elastic: after each coat time runs logarithmically, so that half an hour of drying
 * and a week of curing are both readable. Even: every hour has the same width. */

export interface TimeScale {
  /** Position [px] of a time [ms]. */
  x: (t: number) => number;
  /** Time [ms] at a position [px]. */
  t: (x: number) => number;
}

/** Where logarithmic time turns from even to stretched after a coat [ms]. [practice] */
const BEND = 5 * 60_000;
/** Least weight of a stretch between two coats, so that none has no width. */
const LEAST = 0.15;

/** An even axis from `from` to `to` over `width`. */
export function even(from: number, to: number, width: number): TimeScale {
  const span = Math.max(to - from, 1);
  return {
    x: (t) => ((t - from) / span) * width,
    t: (x) => from + (x / width) * span,
  };
}

/** An axis that begins anew at each of `starts` (sorted) and ends at `to`. */
export function elastic(starts: number[], to: number, width: number): TimeScale {
  const first = starts[0];
  if (first === undefined) return even(to - 1, to, width);
  const ends = starts.map((_, i) => Math.max(starts[i + 1] ?? to, starts[i] ?? to));
  const bend = (dt: number) => Math.log1p(Math.max(dt, 0) / BEND);
  const weights = starts.map((s, i) => Math.max(bend((ends[i] ?? s) - s), LEAST));
  const unit = width / weights.reduce((a, b) => a + b, 0);
  const lefts: number[] = [];
  weights.reduce((left, weight) => {
    lefts.push(left);
    return left + weight * unit;
  }, 0);
  const piece = (i: number) => ({
    start: starts[i] ?? first,
    end: ends[i] ?? to,
    left: lefts[i] ?? 0,
    wide: (weights[i] ?? 0) * unit,
  });
  return {
    x: (t) => {
      const i = Math.max(
        starts.findLastIndex((s) => s <= t),
        0,
      );
      const { start, end, left, wide } = piece(i);
      const whole = bend(end - start);
      const share = whole > 0 ? bend(Math.min(t, end) - start) / whole : 0;
      return left + share * wide;
    },
    t: (x) => {
      const i = Math.max(
        lefts.findLastIndex((l) => l <= x),
        0,
      );
      const { start, end, left, wide } = piece(i);
      const share = Math.min(Math.max((x - left) / wide, 0), 1);
      return start + Math.expm1(share * bend(end - start)) * BEND;
    },
  };
}
