import { useId } from 'react';
import type { Schemas } from '../api/client';
import { clock, dayOfMonth, weekdayShort } from '../format/time';

interface Props {
  air: Schemas['AirAhead'];
  width: number;
  zone: string;
  now: number;
}

const HOUR = 3_600_000;
/** Room for the words at the left [px]. */
const LEFT = 58;
const RH = { top: 18, height: 92, low: 0.2, high: 0.9 };
const WARM = { top: 128, height: 56, low: 14, high: 28 };
const MARKS = { top: 200, height: 26 };
const HEIGHT = 254;

/** The room for ten days: humidity and temperature with the range varnish wants, good hours below. */
export function GoodHours({ air, width, zone, now }: Props) {
  const id = useId();
  const { hours } = air;
  const first = hours[0];
  const last = hours.at(-1);
  if (!first || !last || width < 120) return null;
  const from = Date.parse(first.at);
  const to = Date.parse(last.at) + HOUR;
  const x = (at: number) => LEFT + ((at - from) / (to - from)) * (width - LEFT - 8);
  const y = (panel: typeof RH, value: number) => {
    const share = (value - panel.low) / (panel.high - panel.low);
    return panel.top + panel.height * (1 - Math.min(1, Math.max(0, share)));
  };
  const line = (panel: typeof RH, of: (h: Schemas['HourOut']) => number) =>
    hours
      .map((h) => {
        const at = Date.parse(h.at);
        const level = y(panel, of(h)).toFixed(1);
        return `${x(at).toFixed(1)},${level} ${x(at + HOUR).toFixed(1)},${level}`;
      })
      .join(' ');
  const band = (panel: typeof RH, low: number, high: number) => (
    <rect
      x={LEFT}
      width={width - LEFT - 8}
      y={y(panel, high)}
      height={y(panel, low) - y(panel, high)}
      fill="currentColor"
      opacity={0.1}
    />
  );
  /** Runs of hours for which `of` holds. */
  const runs = (of: (h: Schemas['HourOut']) => boolean) => {
    const found: [number, number][] = [];
    for (const h of hours.filter(of)) {
      const at = Date.parse(h.at);
      const before = found.at(-1);
      if (before?.[1] === at) before[1] = at + HOUR;
      else found.push([at, at + HOUR]);
    }
    return found;
  };
  const midnights = hours.filter((h) => clock(Date.parse(h.at), zone) === '00:00');
  const noons = hours.filter((h) => clock(Date.parse(h.at), zone) === '12:00');
  const text = { fontSize: 15, fill: 'currentColor' } as const;
  return (
    <svg
      width={width}
      height={HEIGHT}
      role="img"
      aria-label="The room for ten days, with the hours that are fit for varnish; the list below says the same"
      style={{ display: 'block' }}
    >
      <defs>
        <pattern id={`${id}-bad`} width="7" height="7" patternUnits="userSpaceOnUse">
          <path d="M0 7 L7 0" stroke="currentColor" strokeWidth="1.4" />
        </pattern>
      </defs>
      {midnights.map((h) => (
        <line
          key={h.at}
          x1={x(Date.parse(h.at))}
          x2={x(Date.parse(h.at))}
          y1={RH.top - 8}
          y2={MARKS.top + MARKS.height}
          stroke="currentColor"
          opacity={0.3}
        />
      ))}
      {band(RH, air.wanted_rh.low, air.wanted_rh.high)}
      {band(WARM, air.wanted_c.low, air.wanted_c.high)}
      <polyline
        points={line(RH, (h) => h.relative_humidity)}
        fill="none"
        stroke="currentColor"
        strokeWidth={2.2}
      />
      <polyline
        points={line(WARM, (h) => h.temperature_c)}
        fill="none"
        stroke="currentColor"
        strokeWidth={1.6}
        strokeDasharray="5 3"
      />
      <text x={0} y={y(RH, air.wanted_rh.high) + 5} {...text}>
        {Math.round(air.wanted_rh.high * 100)} %
      </text>
      <text x={0} y={y(RH, air.wanted_rh.low) + 5} {...text}>
        {Math.round(air.wanted_rh.low * 100)} %
      </text>
      <text x={0} y={y(WARM, air.wanted_c.high) + 5} {...text}>
        {air.wanted_c.high} °C
      </text>
      <text x={0} y={y(WARM, air.wanted_c.low) + 5} {...text}>
        {air.wanted_c.low} °C
      </text>
      <text x={0} y={MARKS.top + 18} {...text}>
        hours
      </text>
      {runs((h) => h.open && h.fit).map(([a, b]) => (
        <rect
          key={`good ${a}`}
          x={x(a)}
          width={Math.max(2, x(b) - x(a))}
          y={MARKS.top}
          height={MARKS.height}
          fill="currentColor"
        />
      ))}
      {runs((h) => h.open && !h.fit).map(([a, b]) => (
        <rect
          key={`bad ${a}`}
          x={x(a)}
          width={Math.max(2, x(b) - x(a))}
          y={MARKS.top + 0.5}
          height={MARKS.height - 1}
          fill={`url(#${id}-bad)`}
          stroke="currentColor"
        />
      ))}
      {noons.map((h) => {
        const at = Date.parse(h.at);
        const wide = width > 620;
        return (
          <text
            key={h.at}
            x={x(at)}
            y={HEIGHT - 8}
            textAnchor="middle"
            {...text}
            fontSize={wide ? 15 : 13}
          >
            {wide
              ? `${weekdayShort(at, zone)} ${dayOfMonth(at, zone)}`
              : weekdayShort(at, zone).slice(0, 2)}
          </text>
        );
      })}
      <line
        x1={x(now)}
        x2={x(now)}
        y1={6}
        y2={MARKS.top + MARKS.height}
        stroke="currentColor"
        strokeWidth={3}
      />
    </svg>
  );
}
