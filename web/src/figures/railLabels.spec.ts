import { expect, it } from 'vitest';
import { placeRow, type Wanted } from './railLabels';

const label = (id: string, x: number, weight: number): Wanted => ({ id, x, wide: 100, weight });

it('two labels that would meet stand above and below, a third is left out', () => {
  const placed = placeRow([label('a', 50, 1), label('b', 60, 3), label('c', 70, 2)], 800);
  expect(placed.get('b')?.row).toBe(0);
  expect(placed.get('c')?.row).toBe(1);
  expect(placed.has('a')).toBe(false);
});

it('no label leaves the rail on either side', () => {
  const placed = placeRow([label('a', 0, 1), label('b', 795, 1)], 800);
  expect(placed.get('a')?.x).toBe(0);
  expect(placed.get('b')?.x).toBe(700);
});

it('labels never overlap, however many there are', () => {
  const many = Array.from({ length: 60 }, (_, i) => label(`m${i}`, (i * 137) % 800, i % 5));
  const placed = [...placeRow(many, 800).values()];
  for (const row of [0, 1]) {
    const lefts = placed
      .filter((p) => p.row === row)
      .map((p) => p.x)
      .sort((a, b) => a - b);
    lefts.slice(1).forEach((x, i) => {
      expect(x - (lefts[i] ?? 0)).toBeGreaterThanOrEqual(100);
    });
  }
});
