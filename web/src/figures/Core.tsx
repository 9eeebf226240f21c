import { useTheme } from '@mui/material/styles';
import { useId } from 'react';
import type { Schemas } from '../api/client';
import { groundWord, useCatalogue } from '../components/catalogue';
import { start, STATES } from '../format/words';
import { FONT } from '../theme/theme';
import { spread, type Sample } from './geometry';
import { Textures, textureFill } from './Textures';

const WIDE = 78;
const GROUND = 30;
const LINE = 24;

interface Props {
  coats: Schemas['CoatOut'][];
  sample: Sample[];
  absorbs: number;
  width: number;
  height: number;
}

/** A vertical sample of the film at one instant, each coat named with its state. */
export function Core({ coats, sample, absorbs, width, height }: Props) {
  const { greys } = useTheme();
  const { grounds } = useCatalogue();
  const id = useId();
  const base = height - GROUND;
  const total = sample.reduce((sum, s) => sum + s.um, 0);
  const scale = total > 0 ? (base - 14) / total : 0;
  // Labels from the top down; coats too thin for a line of their own share the last one.
  const lines = Math.max(Math.floor((base - 14) / LINE), 2);
  const fit = sample.length <= lines ? sample.length : lines - 1;
  const cells = sample.map((s, n) => {
    const below = sample.slice(0, n).reduce((sum, other) => sum + other.um, 0);
    const top = base - (below + s.um) * scale;
    return { ...s, top, h: s.um * scale, middle: top + (s.um * scale) / 2 };
  });
  const named = cells.slice(cells.length - fit).reverse();
  const heights = spread(
    named.map((cell) => cell.middle),
    LINE,
    base + 4,
  );
  const labels = named.map((cell, i) => ({ cell, at: heights[i] ?? cell.middle }));
  const rest = cells.slice(0, cells.length - fit);
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label="Core of the film, listed in the table below"
      style={{ display: 'block' }}
    >
      <Textures id={id} />
      {cells.map((cell) => {
        const coat = coats[cell.coat];
        const texture = textureFill(id, cell.state);
        return (
          <g key={cell.coat}>
            <rect
              x={1}
              y={cell.top}
              width={WIDE}
              height={Math.max(cell.h, 0.5)}
              fill={coat?.swatch}
              fillOpacity={coat?.planned ? 0.45 : 1}
              stroke="#000"
              strokeWidth={0.9}
              strokeDasharray={coat?.planned ? '4 3' : undefined}
            />
            {texture && <rect x={1} y={cell.top} width={WIDE} height={cell.h} fill={texture} />}
          </g>
        );
      })}
      {labels.map(({ cell, at }, i) => (
        <g key={cell.coat}>
          <path
            d={`M${WIDE + 2} ${cell.middle}L${WIDE + 12} ${at}`}
            stroke={greys.line}
            fill="none"
          />
          <Label
            title={start(coats[cell.coat]?.name ?? '')}
            state={STATES[cell.state].word}
            room={width - WIDE - 17}
            y={at}
            tall={roomFor(heights, i, base)}
            strong={i === 0}
          />
        </g>
      ))}
      {rest.length > 0 && (
        <text x={WIDE + 17} y={base - 6} fontFamily={FONT} fontSize={16} fill={greys.soft}>
          and {rest.length} more below
        </text>
      )}
      <rect
        x={1}
        y={base}
        width={WIDE}
        height={GROUND - 2}
        fill="#efefef"
        stroke="#000"
        strokeWidth={0.9}
      />
      <rect x={1} y={base} width={WIDE} height={GROUND - 2} fill={`url(#${id}-ground)`} />
      <text x={WIDE + 17} y={base + 20} fontFamily={FONT} fontSize={16} fill={greys.soft}>
        {groundWord(grounds, absorbs)}
      </text>
    </svg>
  );
}

/** Whether a label has the height for two lines. */
function roomFor(heights: number[], i: number, base: number): boolean {
  const here = heights[i] ?? 0;
  const above = here - (heights[i - 1] ?? -LINE);
  const below = (heights[i + 1] ?? base + LINE) - here;
  return above >= 2 * LINE - 8 && below >= 2 * LINE - 8;
}

interface LabelProps {
  title: string;
  state: string;
  room: number;
  y: number;
  tall: boolean;
  strong: boolean;
}

/** Name and state of a coat, on one line or on two; cut only where neither fits (the whole stands
 * in the table). */
function Label({ title, state, room, y, tall, strong }: LabelProps) {
  const { greys } = useTheme();
  const letters = Math.floor(room / 7.9);
  const two = tall && title.length + state.length + 1 > letters;
  const most = two ? letters : Math.max(letters - state.length - 1, 6);
  const said = title.length > most ? `${title.slice(0, most - 1)}…` : title;
  const x = WIDE + 17;
  return (
    <text
      y={two ? y - 4 : y + 5}
      fontFamily={FONT}
      fontSize={16}
      fontWeight={strong ? 700 : 400}
      fill={greys.text}
    >
      <tspan x={x}>{said}</tspan>
      <tspan
        x={two ? x : undefined}
        dx={two ? undefined : 5}
        dy={two ? 19 : undefined}
        fill={strong ? greys.text : greys.soft}
      >
        {state}
      </tspan>
    </text>
  );
}
