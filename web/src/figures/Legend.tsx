import Box from '@mui/material/Box';
import { useTheme } from '@mui/material/styles';
import { useId } from 'react';
import { STATES, type FilmState } from '../format/words';
import { Textures, textureFill } from './Textures';

const SHOWN: FilmState[] = [
  'workable',
  'setting',
  'touch_dry',
  'paintable',
  'dry_through',
  'ready_to_seal',
];

/** The one legend of dryness. */
export function Legend() {
  const id = useId();
  const { greys } = useTheme();
  return (
    <Box
      component="ul"
      aria-label="Legend of dryness"
      sx={{ display: 'flex', flexWrap: 'wrap', gap: '6px 18px', listStyle: 'none', p: 0, m: 0 }}
    >
      {SHOWN.map((state) => (
        <Box
          component="li"
          key={state}
          sx={{ display: 'flex', alignItems: 'center', gap: 1, fontSize: 15 }}
        >
          <svg width={30} height={20} aria-hidden>
            <Textures id={id} />
            <rect x={1} y={3} width={28} height={16} fill="#777" />
            <rect x={1} y={3} width={28} height={16} fill={textureFill(id, state) ?? 'none'} />
            {state === 'dry_through' && (
              <line x1={1} x2={29} y1={3} y2={3} stroke={greys.text} strokeWidth={3} />
            )}
            {state === 'ready_to_seal' &&
              [1, 4.5].map((y) => (
                <line key={y} x1={1} x2={29} y1={y} y2={y} stroke={greys.text} strokeWidth={1.6} />
              ))}
          </svg>
          {STATES[state].word}
        </Box>
      ))}
    </Box>
  );
}
