import Box from '@mui/material/Box';
import type { MouseEvent } from 'react';
import type { Place } from '../api/queries';

interface Props {
  src: string;
  /** What is to be touched, said of the photograph. */
  label: string;
  /** What was touched already, each with its sign. */
  marks: (Place & { sign: string })[];
  disabled?: boolean;
  onTouch: (place: Place) => void;
}

const SIGN = 26;

/** A photograph in which one points at places. */
export function PointAt({ src, label, marks, disabled, onTouch }: Props) {
  const touch = (e: MouseEvent<HTMLElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    // From the keyboard the middle is meant.
    const byKey = e.detail === 0 && e.clientX === 0 && e.clientY === 0;
    const share = (at: number, from: number, size: number) =>
      byKey ? 0.5 : Math.min(Math.max((at - from) / size, 0), 1);
    onTouch({
      x: share(e.clientX, box.left, box.width),
      y: share(e.clientY, box.top, box.height),
    });
  };
  return (
    <Box
      component="button"
      type="button"
      aria-label={label}
      disabled={disabled}
      onClick={touch}
      sx={{
        position: 'relative',
        display: 'inline-block',
        maxWidth: '100%',
        p: 0,
        border: 1,
        lineHeight: 0,
        background: 'none',
        cursor: disabled ? 'default' : 'crosshair',
      }}
    >
      <Box component="img" src={src} alt="" sx={{ maxWidth: '100%', maxHeight: 420 }} />
      {marks.map(({ x, y, sign }) => (
        <Box
          key={sign}
          component="span"
          sx={{
            position: 'absolute',
            left: `${x * 100}%`,
            top: `${y * 100}%`,
            width: SIGN,
            height: SIGN,
            ml: `${-SIGN / 2}px`,
            mt: `${-SIGN / 2}px`,
            borderRadius: '50%',
            border: '2px solid #fff',
            outline: '2px solid #000',
            color: '#fff',
            textShadow: '0 0 3px #000, 0 0 3px #000',
            fontWeight: 700,
            fontSize: 15,
            lineHeight: `${SIGN - 4}px`,
            textAlign: 'center',
          }}
        >
          {sign}
        </Box>
      ))}
    </Box>
  );
}
