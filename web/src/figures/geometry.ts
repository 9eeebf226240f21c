/** The strata as shapes: pure functions from the server's numbers to points. */
import type { Schemas } from '../api/client';
import type { FilmState } from '../format/words';

interface Film {
  from: number;
  um: number[];
  state: FilmState[];
}

/** Where each coat begins and ends [um] at each frame it is there. */
export interface Layers {
  frames: number[];
  films: Film[];
  /** Lower face of coat `n` at frame `k`, counted from the coat's own first frame. */
  lower: number[][];
}

export function layers(strata: Schemas['Strata']): Layers {
  const frames = strata.frames.map((f) => Date.parse(f));
  const total = new Array<number>(frames.length).fill(0);
  const lower = strata.films.map((film) =>
    film.um.map((um, k) => {
      const at = film.from + k;
      const below = total[at] ?? 0;
      total[at] = below + um;
      return below;
    }),
  );
  return { frames, films: strata.films, lower };
}

/** Thickness of the whole stack at each frame [um]. */
export function totals({ frames, films }: Layers): number[] {
  const sum = new Array<number>(frames.length).fill(0);
  for (const film of films) {
    film.um.forEach((um, k) => {
      sum[film.from + k] = (sum[film.from + k] ?? 0) + um;
    });
  }
  return sum;
}

/** The last frame that is not after `t`; -1 before the first. */
export function frameAt(frames: number[], t: number): number {
  let low = 0;
  let high = frames.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if ((frames[mid] ?? Infinity) <= t) low = mid + 1;
    else high = mid;
  }
  return low - 1;
}

/** A coat at one moment, from the ground up. */
export interface Sample {
  coat: number;
  um: number;
  state: FilmState;
}

/** The film at `t`: every coat that is there, thickness interpolated between frames. */
export function sampleAt({ frames, films }: Layers, t: number): Sample[] {
  const k = frameAt(frames, t);
  if (k < 0) return [];
  const here = frames[k] ?? t;
  const next = frames[k + 1];
  const share = next === undefined || next === here ? 0 : (t - here) / (next - here);
  const found: Sample[] = [];
  films.forEach((film, coat) => {
    const i = k - film.from;
    const um = film.um[i];
    const state = film.state[i];
    if (um === undefined || state === undefined) return;
    const later = film.um[i + 1] ?? um;
    found.push({ coat, um: um + (later - um) * share, state });
  });
  return found;
}

/** A run of frames over which a coat has one state; ends overlap by one frame. */
export interface Run {
  state: FilmState;
  from: number;
  to: number;
}

export function runs(states: FilmState[]): Run[] {
  const found: Run[] = [];
  states.forEach((state, k) => {
    const last = found.at(-1);
    if (last?.state === state) last.to = k;
    else {
      if (last) last.to = k;
      found.push({ state, from: k, to: k });
    }
  });
  return found;
}

/** The outline of frames `from..to` of coat `n`, as an SVG path. */
export function bandPath(
  all: Layers,
  n: number,
  [from, to]: [number, number],
  x: (t: number) => number,
  y: (um: number) => number,
): string {
  const film = all.films[n];
  const lower = all.lower[n];
  if (!film || !lower) return '';
  const top: string[] = [];
  const bottom: string[] = [];
  for (let k = from; k <= to; k += 1) {
    const px = x(all.frames[film.from + k] ?? 0).toFixed(1);
    const low = lower[k] ?? 0;
    top.push(`${px} ${y(low + (film.um[k] ?? 0)).toFixed(1)}`);
    bottom.push(`${px} ${y(low).toFixed(1)}`);
  }
  return `M${top.join('L')}L${bottom.reverse().join('L')}Z`;
}

/** The upper face of frames `from..to` of coat `n`, `lift` px above itself. */
export function facePath(
  all: Layers,
  n: number,
  [from, to]: [number, number],
  x: (t: number) => number,
  y: (um: number) => number,
  lift = 0,
): string {
  const film = all.films[n];
  const lower = all.lower[n];
  if (!film || !lower) return '';
  const points: string[] = [];
  for (let k = from; k <= to; k += 1) {
    const px = x(all.frames[film.from + k] ?? 0).toFixed(1);
    points.push(`${px} ${(y((lower[k] ?? 0) + (film.um[k] ?? 0)) - lift).toFixed(1)}`);
  }
  return `M${points.join('L')}`;
}

export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

const overlap = (a: Box, b: Box) =>
  a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;

/** Moves each label up until it meets no other, or leaves it out when it would pass `top`. */
export function placeLabels(wanted: Box[], top: number, right: number): (Box | undefined)[] {
  const placed: Box[] = [];
  return wanted.map((want) => {
    const box = { ...want, x: Math.max(0, Math.min(want.x, right - want.w)) };
    for (;;) {
      const hit = placed.find((other) => overlap(box, other));
      if (!hit) break;
      box.y = hit.y - box.h - 1;
      if (box.y < top) return undefined;
    }
    if (box.y < top) return undefined;
    placed.push(box);
    return box;
  });
}

/** A round step for about `n` marks up to `max`. */
export function niceStep(max: number, n: number): number {
  const raw = max / n;
  const power = 10 ** Math.floor(Math.log10(raw));
  const lead = raw / power;
  return (lead > 5 ? 10 : lead > 2 ? 5 : lead > 1 ? 2 : 1) * power;
}

/** Moves label heights (from the top down) apart by `gap`, then back up above `floor`. */
export function spread(wanted: number[], gap: number, floor: number): number[] {
  const down: number[] = [];
  for (const at of wanted) down.push(Math.max(at, (down.at(-1) ?? -gap / 2) + gap));
  let roof = floor + gap / 2;
  return down
    .reverse()
    .map((at) => {
      roof = Math.min(at, roof - gap);
      return roof;
    })
    .reverse();
}
