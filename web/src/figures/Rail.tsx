import Tooltip from '@mui/material/Tooltip';
import { useTheme } from '@mui/material/styles';
import type { Schemas } from '../api/client';
import { clock, day, upToMinute } from '../format/time';
import { FONT } from '../theme/theme';
import { placeRow } from './railLabels';

export interface Mark {
  id: string;
  at: number;
  /** Round for a change of the film, square for work. */
  shape: 'film' | 'work';
  /** Short, beside the mark. */
  short: string;
  /** Whole, on hover and for those who do not see the figure. */
  full: string;
  /** What a rule says of it. */
  warns?: string;
  weight: number;
  /** What opens is on this page; otherwise it leads to another. */
  here?: boolean;
  open: () => void;
}

interface Props {
  from: number;
  to: number;
  now: number;
  zone: string;
  sessions: Schemas['SpanOut'][];
  air: Schemas['AirOut'][];
  marks: Mark[];
  width: number;
}

const TOP = 26;
const HIGH = 40;
const HEIGHT = TOP + HIGH + 26;
const HOUR = 3_600_000;

/** The thin strip of time that is always there. */
export function Rail({ from, to, now, zone, sessions, air, marks, width }: Props) {
  const { greys } = useTheme();
  const x = (t: number) => ((t - from) / (to - from)) * width;
  const inside = (t: number) => t >= from && t <= to;
  const shown = marks.filter((m) => inside(m.at));
  // What is past keeps its mark; the room for words belongs to what is coming.
  const wanted = shown
    .filter((m) => m.at > now)
    .map((m) => ({
      id: m.id,
      x: x(m.at),
      wide: (m.short.length + 6) * 7.1 + 8,
      weight: m.weight,
    }));
  const rows = placeRow(wanted, width);
  const hours = (to - from) / HOUR;
  const every = hours <= 26 ? 3 : hours <= 80 ? 12 : 24;
  const ticks: number[] = [];
  for (let t = Math.ceil(from / HOUR) * HOUR; t <= to; t += HOUR) {
    if (Number(clock(t, zone).slice(0, 2)) % every === 0) ticks.push(t);
  }
  const line = (value: (a: Schemas['AirOut']) => number, low: number, high: number) =>
    air
      .map((a) => ({ t: Date.parse(a.at), v: value(a) }))
      .filter(({ t }) => t >= from - HOUR && t <= to + HOUR)
      .map(({ t, v }) => {
        const share = Math.min(Math.max((v - low) / (high - low), 0.05), 0.95);
        return `${x(t).toFixed(1)} ${(TOP + HIGH * (1 - share)).toFixed(1)}`;
      })
      .join('L');
  const clip = (t: number) => Math.min(Math.max(x(t), 0), width);
  const isOpen = (t: number) =>
    sessions.some((s) => Date.parse(s.from) <= t && t < Date.parse(s.to));
  return (
    <svg
      width={width}
      height={HEIGHT}
      style={{ display: 'block' }}
      role="group"
      aria-label="Drying rail"
    >
      <rect x={0} y={TOP} width={width} height={HIGH} fill={greys.sunk} />
      {sessions.map((s) => {
        const [a, b] = [clip(Date.parse(s.from)), clip(Date.parse(s.to))];
        return b > a ? (
          <rect key={s.from} x={a} y={TOP} width={b - a} height={HIGH} fill={greys.raised} />
        ) : null;
      })}
      <path
        d={`M${line((a) => a.temperature_c, 10, 30)}`}
        fill="none"
        stroke={greys.soft}
        strokeWidth={1.3}
      />
      <path
        d={`M${line((a) => a.relative_humidity, 0.2, 0.9)}`}
        fill="none"
        stroke={greys.soft}
        strokeWidth={1.3}
        strokeDasharray="5 3"
      />
      {shown.map((m) => {
        const row = rows.get(m.id);
        const up = row?.row !== 1;
        const px = x(m.at);
        const end = up ? TOP : TOP + HIGH;
        const full = m.warns ? `${m.full}. Think again: ${m.warns}` : m.full;
        return (
          <g key={m.id}>
            <Tooltip title={full} describeChild>
              <g
                role={m.here ? 'button' : 'link'}
                tabIndex={0}
                aria-label={full}
                style={{ cursor: 'pointer' }}
                onClick={m.open}
                onKeyDown={(e) => (e.key === 'Enter' || (m.here && e.key === ' ')) && m.open()}
              >
                <rect x={px - 12} y={TOP - 8} width={24} height={HIGH + 16} fill="transparent" />
                <line
                  x1={px}
                  x2={px}
                  y1={TOP}
                  y2={TOP + HIGH}
                  stroke={greys.text}
                  strokeWidth={1.6}
                />
                {m.shape === 'film' ? (
                  <circle cx={px} cy={end} r={4.5} fill={greys.text} />
                ) : (
                  <rect
                    x={px - 5}
                    y={end - 5}
                    width={10}
                    height={10}
                    fill={greys.ground}
                    stroke={greys.text}
                    strokeWidth={2}
                  />
                )}
                {m.warns && (
                  <>
                    <rect x={px + 4} y={TOP + 9} width={14} height={22} fill={greys.harm} />
                    <text
                      x={px + 11}
                      y={TOP + 25}
                      textAnchor="middle"
                      fontFamily={FONT}
                      fontSize={16}
                      fontWeight={800}
                      fill={greys.ground}
                    >
                      !
                    </text>
                  </>
                )}
              </g>
            </Tooltip>
            {row && (
              <text
                x={row.x}
                y={up ? TOP - 10 : TOP + HIGH + 20}
                fontFamily={FONT}
                fontSize={14.5}
                fill={greys.text}
                pointerEvents="none"
              >
                <tspan fontWeight={700}>{clock(upToMinute(m.at), zone)}</tspan> {m.short}
              </text>
            )}
          </g>
        );
      })}
      {ticks.map((t) => (
        <text
          key={t}
          x={x(t)}
          y={TOP + HIGH - 5}
          textAnchor="middle"
          fontFamily={FONT}
          fontSize={13.5}
          fill={greys.soft}
          stroke={isOpen(t) ? greys.raised : greys.sunk}
          strokeWidth={5}
          paintOrder="stroke"
          pointerEvents="none"
        >
          {every === 24 ? day(t, now, zone, true) : clock(t, zone).slice(0, 2)}
        </text>
      ))}
      {inside(now) && (
        <line
          x1={x(now)}
          x2={x(now)}
          y1={TOP - 14}
          y2={TOP + HIGH + 12}
          stroke={greys.text}
          strokeWidth={3}
        />
      )}
    </svg>
  );
}
