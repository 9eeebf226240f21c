import { useTheme } from '@mui/material/styles';
import type { Schemas } from '../api/client';
import { start } from '../format/words';
import { FONT } from '../theme/theme';

const ROW = 22;
const GAP = 6;

const WORDS: Record<string, string> = { lights: 'lights', darks: 'darks', all: 'face' };

/** Height of the face [px]. */
export const faceHeight = (face: Schemas['PlaceOut'][]) =>
  face.length === 0 ? 0 : face.length * ROW + GAP;

interface Props {
  face: Schemas['PlaceOut'][];
  coats: Schemas['CoatOut'][];
  x: (t: number) => number;
  top: number;
  from: number;
  to: number;
}

/** What is seen from the front as each coat is laid, over the same time as the strata below it. */
export function Face({ face, coats, x, top, from, to }: Props) {
  const { greys } = useTheme();
  return (
    <g>
      {face.map((place, row) => {
        const y = top + row * ROW;
        return (
          <g key={place.place} data-face={place.place}>
            <text
              x={from - 9}
              y={y + 15}
              textAnchor="end"
              fontFamily={FONT}
              fontSize={14}
              fill={greys.soft}
            >
              {WORDS[place.place] ?? place.place}
            </text>
            {coats.map((coat, n) => {
              const next = coats[n + 1];
              const left = Math.max(x(Date.parse(coat.laid_at)), from);
              const right = next ? x(Date.parse(next.laid_at)) : to;
              const where = place.place === 'all' ? '' : ` over the ${place.place}`;
              return (
                <rect
                  key={coat.step}
                  x={left}
                  y={y}
                  width={Math.max(right - left, 0)}
                  height={ROW}
                  fill={place.seen[n]}
                  shapeRendering="crispEdges"
                >
                  <title>{`After ${start(coat.name)}${where}: ${place.seen[n] ?? ''}`}</title>
                </rect>
              );
            })}
          </g>
        );
      })}
    </g>
  );
}
