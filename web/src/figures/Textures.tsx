import type { FilmState } from '../format/words';

/** Dryness as a texture, the same in every figure. White marks carry a dark rim, so that they show
 * on light and on dark paint, and to everybody. */
export function Textures({ id }: { id: string }) {
  const dot = (x: number, y: number, r: number) => (
    <circle cx={x} cy={y} r={r} fill="#fff" stroke="#000" strokeOpacity={0.55} strokeWidth={0.6} />
  );
  return (
    <defs>
      <pattern id={`${id}-workable`} width={8} height={5} patternUnits="userSpaceOnUse">
        <line x1={0} x2={8} y1={1} y2={1} stroke="#fff" strokeOpacity={0.85} strokeWidth={1.2} />
        <line x1={0} x2={8} y1={2.2} y2={2.2} stroke="#000" strokeOpacity={0.4} strokeWidth={0.7} />
      </pattern>
      <pattern id={`${id}-setting`} width={6} height={6} patternUnits="userSpaceOnUse">
        {dot(3, 3, 1.3)}
      </pattern>
      <pattern id={`${id}-touch_dry`} width={14} height={14} patternUnits="userSpaceOnUse">
        {dot(3.5, 3.5, 1.4)}
        {dot(10.5, 10.5, 1.4)}
      </pattern>
      <pattern id={`${id}-ground`} width={6} height={6} patternUnits="userSpaceOnUse">
        <path
          d="M0 6L6 0M-1 1L1 -1M5 7L7 5M0 0L6 6"
          stroke="#000"
          strokeOpacity={0.28}
          strokeWidth={0.7}
        />
      </pattern>
    </defs>
  );
}

const TEXTURED: FilmState[] = ['workable', 'setting', 'touch_dry'];

/** The fill that lays a state's texture over a film; undefined where the film is plain. */
export const textureFill = (id: string, state: FilmState) =>
  TEXTURED.includes(state) ? `url(#${id}-${state})` : undefined;
