import { useId } from 'react';
import type { Schemas } from '../api/client';
import { clock, dayOfMonth, monthWord, startOfDay } from '../format/time';

interface Props {
  past: Schemas['AirPast'];
  width: number;
}

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Room for the words at the left [px]. */
const LEFT = 58;
const HUMID = { top: 10, height: 96 };
const WARM = { top: 126, height: 76 };
const FROM = { top: 216, height: 14 };
const HEIGHT = 256;
/** Least range of a panel: humidity [-] and temperature [K]. */
const LEAST = { relative_humidity: 0.1, temperature_c: 4 };

type Panel = typeof HUMID;
type Key = keyof typeof LEAST;

/** The room as it was: humidity and temperature with their extremes, and below where that is from. */
export function RoomPast({ past, width }: Props) {
  const id = useId();
  const from = Date.parse(past.from);
  const to = Date.parse(past.to);
  if (past.points.length === 0 || width < 120) return null;
  const right = width - 8;
  const x = (at: number) => LEFT + ((at - from) / (to - from)) * (right - LEFT);
  const shown = (key: Key) => {
    const lows = past.points.map((p) => p[key][0] ?? 0);
    const highs = past.points.map((p) => p[key][2] ?? 0);
    const [low, high] = [Math.min(...lows), Math.max(...highs)];
    const spare = Math.max(0, LEAST[key] - (high - low)) / 2;
    return { low: low - spare, high: high + spare };
  };
  const steps = (panel: Panel, key: Key) => {
    const range = shown(key);
    const y = (value: number) =>
      panel.top + panel.height * (1 - (value - range.low) / (range.high - range.low));
    const at = past.points.map((p, n) => {
      const next = past.points[n + 1];
      return [x(Date.parse(p.at)), x(next ? Date.parse(next.at) : to)] as const;
    });
    const line = (of: 0 | 1 | 2) =>
      past.points.map((p, n) => {
        const level = y(p[key][of] ?? 0).toFixed(1);
        return `${at[n]?.[0].toFixed(1)},${level} ${at[n]?.[1].toFixed(1)},${level}`;
      });
    return {
      range,
      y,
      middle: line(1).join(' '),
      area: [...line(0), ...mirrored(line(2))].join(' '),
    };
  };
  const humid = steps(HUMID, 'relative_humidity');
  const warm = steps(WARM, 'temperature_c');
  const text = { fontSize: 15, fill: 'currentColor' } as const;
  const ends = (panel: Panel, high: string, low: string) => (
    <>
      <text x={0} y={panel.top + 12} {...text}>
        {high}
      </text>
      <text x={0} y={panel.top + panel.height} {...text}>
        {low}
      </text>
    </>
  );
  return (
    <svg
      width={width}
      height={HEIGHT}
      role="img"
      aria-label="The room as it was; the lines below say where that is from"
      style={{ display: 'block' }}
    >
      <defs>
        <pattern id={id} width="7" height="7" patternUnits="userSpaceOnUse">
          <path d="M0 7 L7 0" stroke="currentColor" strokeWidth="1.4" />
        </pattern>
      </defs>
      {ticks(from, to, past.time_zone, width)
        .filter(({ at, word }) => x(at) + 3 + word.length * LETTER < width)
        .map(({ at, word }) => (
          <g key={at}>
            <line x1={x(at)} x2={x(at)} y1={4} y2={FROM.top} stroke="currentColor" opacity={0.25} />
            <text x={x(at) + 3} y={HEIGHT - 6} {...text}>
              {word}
            </text>
          </g>
        ))}
      <polygon points={humid.area} fill="currentColor" opacity={0.25} />
      <polyline points={humid.middle} fill="none" stroke="currentColor" strokeWidth={2.2} />
      <polygon points={warm.area} fill="currentColor" opacity={0.25} />
      <polyline
        points={warm.middle}
        fill="none"
        stroke="currentColor"
        strokeWidth={1.8}
        strokeDasharray="5 3"
      />
      {ends(
        HUMID,
        `${Math.round(humid.range.high * 100)} %`,
        `${Math.round(humid.range.low * 100)} %`,
      )}
      {ends(WARM, `${Math.round(warm.range.high)} °C`, `${Math.round(warm.range.low)} °C`)}
      {past.origins.map((o) => (
        <rect
          key={o.from}
          x={x(Date.parse(o.from))}
          width={Math.max(1, x(Date.parse(o.to)) - x(Date.parse(o.from)))}
          y={FROM.top}
          height={FROM.height}
          fill={FILL[o.origin] ?? `url(#${id})`}
          stroke="currentColor"
        />
      ))}
    </svg>
  );
}

/** Solid where it was read off, empty where it was foreseen, hatched where nothing is known. */
const FILL: Record<string, string | undefined> = {
  measured: 'currentColor',
  typed: 'currentColor',
  readings: 'currentColor',
  forecast: 'none',
};

/** A line of points the other way round, to close an area. */
const mirrored = (line: string[]) =>
  line.map((pair) => pair.split(' ').reverse().join(' ')).reverse();

/** Widest letter of a tick [px]: what does not fit beside the edge is not said. */
const LETTER = 8.5;

/** Where time is said, so that the words have room. */
function ticks(from: number, to: number, zone: string, width: number) {
  const most = Math.max(2, Math.floor((width - LEFT) / 90));
  if (to - from <= 2 * DAY) {
    const every = [1, 2, 3, 6, 12].find((h) => (to - from) / (h * HOUR) <= most) ?? 12;
    const first = startOfDay(from, zone);
    const at = Array.from({ length: 80 }, (_, n) => first + n * every * HOUR);
    return at.filter((t) => t >= from && t < to).map((t) => ({ at: t, word: clock(t, zone) }));
  }
  const days = Math.ceil((to - from) / DAY / most);
  const first = startOfDay(from + DAY, zone);
  const at = Array.from({ length: most + 1 }, (_, n) => first + n * days * DAY);
  return at
    .filter((t) => t < to)
    .map((t) => ({ at: t, word: `${dayOfMonth(t, zone)} ${monthWord(t, zone)}` }));
}
