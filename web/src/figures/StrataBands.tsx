import { useTheme } from '@mui/material/styles';
import { memo } from 'react';
import type { Schemas } from '../api/client';
import { bandPath, facePath, runs, type Layers } from './geometry';
import { Textures, textureFill } from './Textures';

interface Props {
  id: string;
  coats: Schemas['CoatOut'][];
  all: Layers;
  x: (t: number) => number;
  y: (um: number) => number;
  base: number;
  width: number;
  ground: number;
}

/** The coats as bands on their ground: laid ones solid, planned ones outlined. */
export const StrataBands = memo(function StrataBands(props: Props) {
  const { id, coats, all, x, y, base, width, ground } = props;
  const { greys } = useTheme();
  const left = x(all.frames[0] ?? 0);
  return (
    <g>
      <Textures id={id} />
      <rect x={left} y={base} width={width - left - 4} height={ground} fill="#efefef" />
      <rect
        x={left}
        y={base}
        width={width - left - 4}
        height={ground}
        fill={`url(#${id}-ground)`}
      />
      {coats.map((coat, n) => {
        const film = all.films[n];
        if (!film) return null;
        const whole: [number, number] = [0, film.um.length - 1];
        const outline = bandPath(all, n, whole, x, y);
        if (coat.planned) {
          return (
            <path
              key={coat.step}
              d={outline}
              fill={coat.swatch}
              fillOpacity={0.16}
              stroke={greys.text}
              strokeWidth={1.2}
              strokeDasharray="5 4"
            />
          );
        }
        // The edge of dryness is drawn while the coat is on top.
        const next = all.films[n + 1];
        const onTop = next ? next.from - film.from : film.um.length;
        return (
          <g key={coat.step}>
            <path
              d={outline}
              fill={coat.swatch}
              stroke="#000"
              strokeOpacity={0.7}
              strokeWidth={0.9}
            />
            {runs(film.state).map((run) => {
              const fill = textureFill(id, run.state);
              const part: [number, number] = [run.from, run.to];
              const top: [number, number] = [run.from, Math.min(run.to, onTop)];
              const lifts =
                run.state === 'dry_through' ? [1] : run.state.startsWith('ready') ? [1, 4.5] : [];
              return (
                <g key={run.from}>
                  {fill && <path d={bandPath(all, n, part, x, y)} fill={fill} />}
                  {top[1] > top[0] &&
                    lifts.map((lift) => (
                      <path
                        key={lift}
                        d={facePath(all, n, top, x, y, lift)}
                        fill="none"
                        stroke={greys.text}
                        strokeWidth={lifts.length > 1 ? 1.4 : 2.6}
                      />
                    ))}
                </g>
              );
            })}
          </g>
        );
      })}
    </g>
  );
});
