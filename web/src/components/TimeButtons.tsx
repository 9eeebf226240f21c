import Button from '@mui/material/Button';
import type { SxProps } from '@mui/material/styles';

interface SpanProps<T extends string | number> {
  spans: readonly { value: T; word: string }[];
  span: T;
  onSpan: (span: T) => void;
  sx: SxProps & object;
}

/** How much time is shown, one button each. */
export function SpanButtons<T extends string | number>({ spans, span, onSpan, sx }: SpanProps<T>) {
  return spans.map(({ value, word }) => (
    <Button
      key={value}
      variant="text"
      aria-pressed={value === span}
      onClick={() => onSpan(value)}
      sx={{
        ...sx,
        fontWeight: value === span ? 700 : 400,
        textDecoration: value === span ? 'underline' : 'none',
        textUnderlineOffset: 5,
      }}
    >
      {word}
    </Button>
  ));
}

interface MoveProps {
  earlier: () => void;
  toNow: () => void;
  later: () => void;
  /** Whether what is shown was moved away from now. */
  shifted: boolean;
  sx: SxProps;
}

/** Which time is shown. */
export function MoveButtons({ earlier, toNow, later, shifted, sx }: MoveProps) {
  return (
    <>
      <Button variant="text" sx={sx} onClick={earlier}>
        Earlier
      </Button>
      <Button variant="text" sx={sx} onClick={toNow} disabled={!shifted}>
        Now
      </Button>
      <Button variant="text" sx={sx} onClick={later}>
        Later
      </Button>
    </>
  );
}
