import Box from '@mui/material/Box';

interface Props {
  colour?: string | null;
  /** The same over a black card, in the right half. */
  overBlack?: string | null;
  size?: number;
  /** Whether words follow it on the same line. */
  gap?: boolean;
}

/** A patch of paint on its neutral surround. */
export function Chip({ colour, overBlack, size = 22, gap }: Props) {
  return (
    <Box
      aria-hidden
      component="span"
      sx={{
        display: 'inline-block',
        width: size,
        height: size,
        flexShrink: 0,
        mr: gap ? 0.75 : 0,
        verticalAlign: 'text-bottom',
        printColorAdjust: 'exact',
        border: 1,
        borderColor: 'text.primary',
        background:
          colour && overBlack
            ? `linear-gradient(90deg, ${colour} 50%, ${overBlack} 50%)`
            : (colour ?? 'transparent'),
      }}
    />
  );
}
