import { useTheme } from '@mui/material/styles';
import { FONT } from '../theme/theme';

interface CupLayer {
  id: string;
  name: string;
  /** Share of the cup by volume. */
  share: number;
  colour?: string | null;
}

interface Props {
  layers: CupLayer[];
  totalMl: number;
  /** Share from the rim down that retarder may fill at most, when there is some in the cup. */
  retarder?: { share: number; limit: number };
  width?: number;
  height?: number;
}

const RIM = 26;
const FOOT = 34;
/** How much narrower the cup is at its foot, on each side [px]. */
const TAPER = 22;

/** A measuring cup, filled by parts; where a limit bites it is drawn on the cup itself. */
export function Cup({ layers, totalMl, retarder, width = 250, height = 350 }: Props) {
  const { greys } = useTheme();
  const wide = 150;
  const left = 20;
  const deep = height - RIM - FOOT;
  // The cup is drawn nine tenths full, whatever it holds.
  const brim = RIM + deep * 0.1;
  const y = (share: number) => RIM + deep - share * (RIM + deep - brim);
  const inset = (at: number) => ((at - RIM) / deep) * TAPER;
  const edges = (at: number): [number, number] => [left + inset(at), left + wide - inset(at)];
  const starts = layers.map((_, i) => layers.slice(0, i).reduce((sum, l) => sum + l.share, 0));
  const [footLeft, footRight] = edges(RIM + deep);
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`A cup of ${totalMl.toFixed(1)} ml: ${layers
        .map((l) => `${(l.share * 100).toFixed(1)} % ${l.name}`)
        .join(', ')}`}
      style={{ display: 'block' }}
    >
      {layers.map((layer, i) => {
        const bottom = y(starts[i] ?? 0);
        const top = y((starts[i] ?? 0) + layer.share);
        const [bl, br] = edges(bottom);
        const [tl, tr] = edges(top);
        return (
          <polygon
            key={layer.id}
            points={`${bl},${bottom} ${br},${bottom} ${tr},${top} ${tl},${top}`}
            fill={layer.colour ?? '#8d8d8d'}
            stroke="#000"
            strokeWidth={0.9}
          />
        );
      })}
      <path
        d={`M${left} ${RIM}L${footLeft} ${RIM + deep}L${footRight} ${RIM + deep}L${left + wide} ${RIM}`}
        fill="none"
        stroke={greys.text}
        strokeWidth={3}
      />
      {[0.25, 0.5, 0.75, 1].map((share) => {
        const [, right] = edges(y(share));
        return (
          <g key={share}>
            <line
              x1={right - 14}
              x2={right}
              y1={y(share)}
              y2={y(share)}
              stroke={greys.text}
              strokeWidth={1.6}
            />
            <text x={right + 8} y={y(share) + 5} fontFamily={FONT} fontSize={15} fill={greys.text}>
              {(totalMl * share).toFixed(1)} ml
            </text>
          </g>
        );
      })}
      {retarder && retarder.share > 0 && (
        <g>
          <line
            x1={left - 14}
            x2={left + wide}
            y1={y(1 - retarder.limit)}
            y2={y(1 - retarder.limit)}
            stroke={retarder.share > retarder.limit ? greys.harm : greys.text}
            strokeWidth={3}
            strokeDasharray="8 4"
          />
          <text x={left} y={height - 6} fontFamily={FONT} fontSize={14} fill={greys.text}>
            dashed: retarder at most down to here
          </text>
        </g>
      )}
    </svg>
  );
}
