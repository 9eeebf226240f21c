import { useTheme } from '@mui/material/styles';
import { useId, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Schemas } from '../api/client';
import { dueDay, exact, startOfDay } from '../format/time';
import { STATES, type FilmState } from '../format/words';
import { FONT } from '../theme/theme';
import { runs } from './geometry';
import { textureFill, Textures } from './Textures';

const TOP = 20;
const FILM = 40;
const NOTCH = 16;
const RIBBON_HEIGHT = TOP + FILM + NOTCH + 6;
/** What a finger hits [px]. */
const HIT = 26;
const DAY = 86_400_000;
/** The paint of a ribbon: a grey between both surrounds, since its colour is not the subject. */
const PAINT = '#8c8c8c';

interface Props {
  picture: Schemas['SeasonPicture'];
  from: number;
  to: number;
  now: number;
  zone: string;
  width: number;
  sessions: Schemas['SpanOut'][];
  /** Thickness that fills the ribbon's height [um]. */
  most: number;
  /** Probability of the date, which stands at the ribbon's end. */
  odds?: string;
  /** Whether the chain that fixes its end is drawn. */
  chain: boolean;
  /** The step that is being looked at. */
  chosen?: string;
  onChoose: (step: string) => void;
  /** A sitting is held over another time; `drop` when it is let go. */
  onMove: (step: string, at: number, drop: boolean) => void;
}

/** Width of a bold letter of the date, at most on average [px]. [practice] */
const LETTER = 8.2;

/** One picture to its date: the film as a ribbon, its dryness as texture, hands-on work as notches. */
export function Ribbon(props: Props) {
  const { picture, from, to, now, zone, width, sessions, most, odds } = props;
  const { greys } = useTheme();
  const id = useId();
  const x = (t: number) => ((t - from) / (to - from)) * width;
  const span = to - from;
  const clip = (t: number) => Math.min(Math.max(t, from), to);
  const base = TOP + FILM;
  const y = (um: number) => base - Math.max(2, (um / most) * (FILM - 4));
  const film = picture.film.map((f) => ({ ...f, t: Date.parse(f.at) }));
  const states: FilmState[] = film.map((f) => f.state);
  const due = picture.due
    ? startOfDay(Date.parse(`${picture.due}T12:00:00Z`), zone) + DAY
    : undefined;
  const finish = picture.finish ? Date.parse(picture.finish) : undefined;
  const late = due !== undefined && finish !== undefined && finish > due && !picture.done;
  const shown = sessions
    .map((s) => ({ from: Date.parse(s.from), to: Date.parse(s.to) }))
    .filter((s) => s.to > from && s.from < to);
  const dueX = due === undefined ? undefined : x(due);
  const dueWord = picture.due ? `due ${dueDay(picture.due, now)}` : '';
  const onRight = dueX !== undefined && dueX + 7 + dueWord.length * LETTER > width;
  return (
    <svg
      width={width}
      height={RIBBON_HEIGHT}
      role="group"
      aria-label={`${picture.title} over time`}
      style={{ display: 'block', fontFamily: FONT, touchAction: 'pan-y' }}
    >
      <Textures id={id} />
      <defs>
        <pattern id={`${id}-late`} width={7} height={7} patternUnits="userSpaceOnUse">
          <path d="M0 7L7 0M-1 1L1 -1M6 8L8 6" stroke={greys.harm} strokeWidth={1.6} />
        </pattern>
      </defs>
      {shown.map((s) => (
        <rect
          key={s.from}
          x={x(clip(s.from))}
          y={TOP - 6}
          width={Math.max(1, x(clip(s.to)) - x(clip(s.from)))}
          height={FILM + NOTCH + 6}
          fill={greys.raised}
        />
      ))}
      <line x1={0} x2={width} y1={base} y2={base} stroke={greys.line} />
      {runs(states).map((run) => {
        const part = film.slice(run.from, run.to + 1).filter((f, k, all) => {
          const next = all[k + 1];
          const before = all[k - 1];
          return (next?.t ?? f.t) >= from && (before?.t ?? f.t) <= to;
        });
        if (part.length < 2) return null;
        const top = part.map((f) => `${x(clip(f.t)).toFixed(1)} ${y(f.um).toFixed(1)}`);
        const left = x(clip(part[0]?.t ?? from)).toFixed(1);
        const right = x(clip(part.at(-1)?.t ?? to)).toFixed(1);
        const area = `M${left} ${base}L${top.join('L')}L${right} ${base}Z`;
        const texture = textureFill(id, run.state);
        const face = `M${top.join('L')}`;
        return (
          <g key={run.from}>
            <path d={area} fill={PAINT} />
            {texture && <path d={area} fill={texture} />}
            {run.state === 'dry_through' && (
              <path d={face} fill="none" stroke={greys.text} strokeWidth={2.6} />
            )}
            {run.state.startsWith('ready') &&
              [0, -3.5].map((lift) => (
                <path
                  key={lift}
                  d={face}
                  transform={`translate(0 ${lift})`}
                  fill="none"
                  stroke={greys.text}
                  strokeWidth={1.4}
                />
              ))}
          </g>
        );
      })}
      {finish !== undefined && !picture.done && finish < to && (
        <rect
          x={Math.max(0, x(finish))}
          y={TOP - 6}
          width={width - Math.max(0, x(finish))}
          height={FILM + 5.5}
          fill={greys.ground}
          fillOpacity={0.6}
        />
      )}
      {finish !== undefined &&
        odds !== undefined &&
        !picture.done &&
        finish > from &&
        finish < to - span / 20 && (
          <text
            x={x(finish) + 9}
            y={base + NOTCH}
            fontSize={14}
            fontWeight={600}
            fill={late ? greys.harm : greys.text}
          >
            {odds}
          </text>
        )}
      {late && due !== undefined && finish !== undefined && (
        <rect
          x={x(clip(due))}
          y={TOP - 6}
          width={Math.max(3, x(clip(finish)) - x(clip(due)))}
          height={FILM + 6}
          fill={`url(#${id}-late)`}
        />
      )}
      {now >= from && now <= to && (
        <line
          x1={x(now)}
          x2={x(now)}
          y1={TOP - 10}
          y2={RIBBON_HEIGHT}
          stroke={greys.text}
          strokeWidth={2}
        />
      )}
      {props.chain &&
        picture.held_by.map((link, n) => {
          const start = Date.parse(link.from);
          const before = n === 0 ? now : Date.parse(picture.held_by[n - 1]?.to ?? link.from);
          const until = Math.min(start, Math.max(before, link.until ? Date.parse(link.until) : 0));
          const line = (a: number, b: number, dashed: boolean) =>
            b > a && b > from && a < to ? (
              <line
                x1={x(clip(a))}
                x2={x(clip(b))}
                y1={base + NOTCH + 2}
                y2={base + NOTCH + 2}
                stroke={greys.text}
                strokeWidth={4}
                strokeDasharray={dashed ? '2 4' : undefined}
              />
            ) : null;
          return (
            <g key={link.step}>
              <title>{link.because ?? link.title}</title>
              {line(before, until, false)}
              {line(until, start, true)}
            </g>
          );
        })}
      {picture.laid
        .map((l) => ({ ...l, t: Date.parse(l.at) }))
        .filter((l) => l.t >= from && l.t <= to)
        .map((l) => (
          <path
            key={l.step}
            d={`M${x(l.t) - 4} ${base + NOTCH - 2}L${x(l.t)} ${base + 4}L${x(l.t) + 4} ${base + NOTCH - 2}Z`}
            fill="none"
            stroke={greys.text}
            strokeWidth={1.2}
          >
            <title>{`${l.title}: done ${exact(l.t, zone)}`}</title>
          </path>
        ))}
      {picture.work.map((w) => (
        <Notch key={`${w.step} ${w.sitting}`} {...props} work={w} x={x} base={base} />
      ))}
      {dueX !== undefined && dueX >= 0 && dueX <= width && (
        <g>
          <line
            x1={dueX}
            x2={dueX}
            y1={4}
            y2={base + NOTCH}
            stroke={late ? greys.harm : greys.text}
            strokeWidth={4}
          />
          <text
            x={dueX + (onRight ? -7 : 7)}
            y={13}
            textAnchor={onRight ? 'end' : 'start'}
            fontSize={14}
            fontWeight={600}
            fill={late ? greys.harm : greys.text}
          >
            {dueWord}
          </text>
        </g>
      )}
      {due !== undefined && due > to && (
        <text x={width - 4} y={13} textAnchor="end" fontSize={14} fill={greys.soft}>
          {dueWord} ›
        </text>
      )}
    </svg>
  );
}

interface NotchProps extends Props {
  work: Schemas['WorkOut'];
  x: (t: number) => number;
  base: number;
}

/** A quarter of an hour: what a sitting is moved by [ms]. */
const QUARTER = 900_000;

/** One sitting: it can be taken and held over another time. */
function Notch({ work, x, base, from, to, width, zone, chosen, onChoose, onMove }: NotchProps) {
  const { greys } = useTheme();
  const start = Date.parse(work.from);
  const end = Date.parse(work.to);
  const [held, setHeld] = useState<number>();
  const origin = useRef<{ px: number; start: number; moved: boolean }>(undefined);
  if (end < from || start > to) return null;
  const left = x(Math.max(start, from));
  const wide = Math.max(5, x(Math.min(end, to)) - left);
  const at = (event: PointerEvent) => {
    const by = ((event.clientX - (origin.current?.px ?? event.clientX)) / width) * (to - from);
    // Where it was taken up: what is shown follows the hand meanwhile.
    return Math.round(((origin.current?.start ?? start) + by) / QUARTER) * QUARTER;
  };
  const on = chosen === work.step;
  const part = work.of > 1 ? `, ${work.sitting} of ${work.of}` : '';
  const pinned = work.pinned_at ? ', pinned' : '';
  const moving = held === undefined ? 0 : x(held) - x(start);
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${work.title}${part}, ${exact(start, zone)}${pinned}`}
      aria-pressed={on}
      style={{ cursor: work.of > 1 ? 'pointer' : 'grab' }}
      onClick={() => onChoose(work.step)}
      onPointerDown={(event) => {
        if (work.of > 1) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        origin.current = { px: event.clientX, start, moved: false };
      }}
      onPointerMove={(event) => {
        if (!origin.current) return;
        if (Math.abs(event.clientX - origin.current.px) < 4 && !origin.current.moved) return;
        origin.current.moved = true;
        const next = at(event);
        if (next !== held) {
          setHeld(next);
          onMove(work.step, next, false);
        }
      }}
      onPointerUp={(event) => {
        if (origin.current?.moved) onMove(work.step, at(event), true);
        origin.current = undefined;
        setHeld(undefined);
      }}
      onPointerCancel={() => {
        origin.current = undefined;
        setHeld(undefined);
      }}
      onKeyDown={(event: KeyboardEvent) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault();
          onChoose(work.step);
        }
      }}
    >
      <title>{`${work.title}${part}: ${exact(start, zone)}`}</title>
      <rect
        x={left + wide / 2 - Math.max(HIT, wide) / 2}
        y={TOP - 6}
        width={Math.max(HIT, wide)}
        height={FILM + NOTCH + 6}
        fill="transparent"
      />
      <rect
        x={left}
        y={base - 9}
        width={wide}
        height={NOTCH + 7}
        fill={greys.text}
        stroke={on ? greys.text : greys.ground}
        strokeWidth={on ? 4 : 1}
      />
      {work.pinned_at && <circle cx={left + wide / 2} cy={base - 14} r={4.5} fill={greys.text} />}
      {held !== undefined && (
        <g pointerEvents="none">
          <rect
            x={left + moving}
            y={TOP - 2}
            width={wide}
            height={FILM + NOTCH}
            fill="none"
            stroke={greys.text}
            strokeWidth={2}
            strokeDasharray="4 3"
          />
          <text
            x={Math.min(Math.max(left + moving, 4), width - 130)}
            y={13}
            fontSize={14}
            fontWeight={600}
            fill={greys.text}
          >
            {exact(held, zone)}
          </text>
        </g>
      )}
    </g>
  );
}

/** The film at `t` in words, for those who do not see the figure. */
export function filmWords(picture: Schemas['SeasonPicture'], t: number): string {
  const at = picture.film.findLast((f) => Date.parse(f.at) <= t);
  return at ? `${Math.round(at.um)} µm, ${STATES[at.state].word}` : 'no film yet';
}
