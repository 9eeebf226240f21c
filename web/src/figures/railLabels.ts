/** Which marks of the rail get a label, and where: none overlaps, the weightiest come first. */

export interface Wanted {
  id: string;
  x: number;
  wide: number;
  weight: number;
}

export interface Placed {
  /** Left end [px]. */
  x: number;
  /** 0 above the strip, 1 below. */
  row: 0 | 1;
}

export function placeRow(wanted: Wanted[], width: number): Map<string, Placed> {
  const placed = new Map<string, Placed>();
  const taken: [number, number][][] = [[], []];
  const order = [...wanted].sort((a, b) => b.weight - a.weight || a.x - b.x);
  for (const want of order) {
    const x = Math.max(0, Math.min(want.x - 4, width - want.wide));
    for (const row of [0, 1] as const) {
      const free = taken[row]?.every(([a, b]) => x >= b + 8 || x + want.wide + 8 <= a);
      if (!free) continue;
      taken[row]?.push([x, x + want.wide]);
      placed.set(want.id, { x, row });
      break;
    }
  }
  return placed;
}
