import Box from '@mui/material/Box';

/** A patch of paint on its neutral surround. */
export function Chip({ colour, size = 22 }: { colour?: string | null; size?: number }) {
  return (
    <Box
      aria-hidden
      component="span"
      sx={{
        display: 'inline-block',
        width: size,
        height: size,
        flexShrink: 0,
        border: 1,
        borderColor: 'text.primary',
        background: colour ?? 'transparent',
      }}
    />
  );
}
