import { useTheme } from '@mui/material/styles';
import { useId, useMemo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { Schemas } from '../api/client';
import { clock, exact } from '../format/time';
import { start } from '../format/words';
import { FONT } from '../theme/theme';
import { frameAt, niceStep, placeLabels, totals, type Layers } from './geometry';
import { Face, faceHeight } from './Face';
import { elastic, even } from './scale';
import { StrataBands } from './StrataBands';

const AXIS = 48;
const GROUND = 24;
/** Room for the labels of the coats, below the flag and the face. */
const LABELS = 82;
const FLAG = 26;
const LABEL_LINE = 17;

interface Props {
  strata: Schemas['Strata'];
  /** The coats that lie at the place that is shown. */
  coats: Schemas['CoatOut'][];
  /** What fingertips felt. */
  tests?: Schemas['TouchDoc'][];
  all: Layers;
  zone: string;
  now: number;
  cursor: number;
  onCursor: (t: number) => void;
  mode: 'elastic' | 'even';
  width: number;
  height: number;
  /** What the cursor says, for those who do not see the figure. */
  spoken: string;
}

/** States of the last laid coat whose time is told as a band: from when they are likely to when they are sure. */
const BANDS = [
  { state: 'touch_dry_at', word: 'Touch-dry' },
  { state: 'paintable_at', word: 'Paintable' },
  { state: 'dry_through_at', word: 'Dry through' },
  { state: 'ready_to_seal_at', word: 'Cured for a seal' },
] as const;

/** What is drawn on the ground, which is light in both surrounds. */
const ON_GROUND = '#3d3d3d';

const plainText = { fontFamily: FONT, fontSize: 14 } as const;

/** The film of a picture over time: the picture's main figure. */
export function Strata(props: Props) {
  const { strata, coats, all, zone, now, cursor, onCursor, mode, width, height } = props;
  const { greys } = useTheme();
  const id = useId();
  const svg = useRef<SVGSVGElement>(null);
  const top = coats.findLast((coat) => !coat.planned);
  const headroom = FLAG + faceHeight(strata.face) + LABELS;
  const first = all.frames[0] ?? now;
  const last = all.frames.at(-1) ?? now;
  const inner = Math.max(width - AXIS - 4, 10);

  const scale = useMemo(() => {
    const starts = coats.map((c) => Date.parse(c.laid_at));
    return mode === 'elastic' ? elastic(starts, last, inner) : even(first, last, inner);
  }, [coats, mode, first, last, inner]);
  const x = (t: number) => AXIS + scale.x(Math.min(Math.max(t, first), last));

  const sums = useMemo(() => totals(all), [all]);
  const max = Math.max(...sums, 40);
  const base = height - GROUND;
  const y = (um: number) => base - (um / max) * (base - headroom);
  const step = niceStep(max, 4);
  const ticks = Array.from({ length: Math.floor(max / step) + 1 }, (_, i) => i * step);

  const labels = useMemo(() => {
    const tops = sums.map((um) => base - (um / max) * (base - headroom));
    const xs = all.frames.map((t) => AXIS + scale.x(t));
    const boxes = coats.map((coat) => {
      const left = AXIS + scale.x(Date.parse(coat.laid_at));
      const w = Math.max(coat.name.length * 8.2, 80) + 8;
      const h = 2 * LABEL_LINE + 3;
      // It stands above whatever the film does over its width.
      const under = tops.filter((_, k) => (xs[k] ?? 0) >= left && (xs[k] ?? 0) <= left + w);
      return { x: left, y: Math.min(...under, base) - h - 3, w, h };
    });
    return placeLabels(boxes, headroom - LABELS, width);
  }, [coats, sums, all, scale, base, max, width, headroom]);

  const pick = (event: PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return;
    onCursor(scale.t(Math.min(Math.max(event.clientX - box.left - AXIS, 0), inner)));
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const px = (by: number) =>
      onCursor(scale.t(Math.min(Math.max(scale.x(cursor) + by, 0), inner)));
    const jump = (by: 1 | -1) => {
      const starts = coats.map((c) => Date.parse(c.laid_at));
      const to = by > 0 ? starts.find((s) => s > cursor) : starts.findLast((s) => s < cursor);
      onCursor(to ?? (by > 0 ? last : first));
    };
    const moves: Record<string, () => void> = {
      ArrowRight: () => (event.shiftKey ? jump(1) : px(4)),
      ArrowLeft: () => (event.shiftKey ? jump(-1) : px(-4)),
      Home: () => onCursor(first),
      End: () => onCursor(last),
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    move();
  };

  const cx = x(cursor);
  const flag = Math.abs(cursor - now) < 60_000 ? `now ${clock(now, zone)}` : exact(cursor, zone);
  const flagWide = flag.length * 7.2 + 14;
  const flagX = Math.min(Math.max(cx - flagWide / 2, 0), width - flagWide);
  return (
    <svg
      ref={svg}
      width={width}
      height={height}
      role="slider"
      tabIndex={0}
      aria-label="Film of the picture over time"
      aria-valuemin={0}
      aria-valuemax={Math.max(all.frames.length - 1, 0)}
      aria-valuenow={Math.max(frameAt(all.frames, cursor), 0)}
      aria-valuetext={props.spoken}
      onKeyDown={onKeyDown}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        pick(e);
      }}
      onPointerMove={(e) => {
        if (e.buttons & 1) pick(e);
      }}
      style={{ display: 'block', touchAction: 'pan-y', cursor: 'ew-resize', userSelect: 'none' }}
    >
      {strata.sessions.map((s) => {
        const [from, to] = [Date.parse(s.from), Date.parse(s.to)];
        if (to < first || from > last) return null;
        const left = x(from);
        return (
          <rect
            key={s.from}
            x={left}
            y={headroom - 8}
            width={Math.max(x(to) - left, 0.5)}
            height={base - headroom + 8}
            fill={greys.raised}
          />
        );
      })}
      {ticks.map((um) => (
        <g key={um}>
          <line x1={AXIS - 5} x2={AXIS} y1={y(um)} y2={y(um)} stroke={greys.soft} />
          <text {...plainText} x={AXIS - 9} y={y(um) + 4} textAnchor="end" fill={greys.soft}>
            {um}
          </text>
        </g>
      ))}
      <text {...plainText} x={AXIS - 9} y={y(max) - 12} textAnchor="end" fill={greys.soft}>
        µm
      </text>
      <Face face={strata.face} coats={coats} x={x} top={FLAG} from={AXIS} to={AXIS + inner} />
      <StrataBands
        id={id}
        coats={coats}
        all={all}
        x={x}
        y={y}
        base={base}
        width={width}
        ground={GROUND}
      />
      {top &&
        BANDS.map(({ state, word }, row) => {
          const [from, to] = [top.likely?.[state], top.if_left[state]].map((time) =>
            time ? Date.parse(time) : undefined,
          );
          if (from === undefined || to === undefined || from > last) return null;
          const said = `${word} likely from ${exact(from, zone)}, surely by ${exact(to, zone)}`;
          return (
            <rect
              key={state}
              data-band={state}
              x={x(from)}
              y={base + 3 + row * 5}
              width={Math.max(x(to) - x(from), 2)}
              height={3.5}
              fill={ON_GROUND}
            >
              <title>{said}</title>
            </rect>
          );
        })}
      {coats.map((coat, n) => {
        const box = labels[n];
        if (!box) return null;
        const peak = y(sums[all.films[n]?.from ?? 0] ?? 0);
        return (
          <g key={coat.step} opacity={coat.planned ? 0.86 : 1}>
            {peak - (box.y + box.h) > 8 && (
              <line
                x1={x(Date.parse(coat.laid_at))}
                x2={x(Date.parse(coat.laid_at))}
                y1={box.y + box.h}
                y2={peak}
                stroke={greys.line}
                strokeDasharray="1 3"
              />
            )}
            <text
              x={box.x + 2}
              y={box.y + 14}
              fontFamily={FONT}
              fontSize={15}
              fontWeight={coat.planned ? 500 : 700}
              fill={greys.text}
            >
              {start(coat.name)}
            </text>
            <text {...plainText} x={box.x + 2} y={box.y + 14 + LABEL_LINE - 1} fill={greys.soft}>
              {exact(Date.parse(coat.laid_at), zone).replace(/ \d+ \w+,/, '')}
            </text>
          </g>
        );
      })}
      <line
        x1={x(now)}
        x2={x(now)}
        y1={headroom - 8}
        y2={height}
        stroke={greys.text}
        strokeDasharray="2 4"
        strokeWidth={1.5}
      />
      <g>
        <line x1={cx} x2={cx} y1={22} y2={height} stroke={greys.text} strokeWidth={2.5} />
        <rect x={flagX} y={0} width={flagWide} height={23} fill={greys.text} />
        <text
          x={flagX + flagWide / 2}
          y={16}
          textAnchor="middle"
          fontFamily={FONT}
          fontSize={15}
          fontWeight={600}
          fill={greys.ground}
        >
          {flag}
        </text>
      </g>
      {props.tests?.map((test) => {
        const at = x(Date.parse(test.at));
        return (
          <g key={`${test.at} ${test.step} ${test.felt}`} data-touched={test.felt}>
            <title>{`${exact(Date.parse(test.at), zone)}: ${test.felt} to a fingertip`}</title>
            <circle cx={at} cy={base + 13} r={9} fill={greys.ground} stroke={greys.text} />
            <text {...plainText} x={at} y={base + 18} textAnchor="middle" fill={greys.text}>
              {start(test.felt).charAt(0)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
