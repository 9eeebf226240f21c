import Box from '@mui/material/Box';

interface Props {
  /** The two colours that are compared, without a gap. */
  colours: [string, string];
  /** What is seen, for those who do not see it. */
  label: string;
  height?: number;
  width?: number;
}

/** Two colours side by side on the surround, large enough to judge. */
export function Pair({ colours, label, height = 64, width = 128 }: Props) {
  return (
    <Box
      role="img"
      aria-label={label}
      title={label}
      sx={{ display: 'flex', width, height, flexShrink: 0 }}
    >
      {colours.map((colour, n) => (
        <Box key={n} sx={{ flex: 1, background: colour }} />
      ))}
    </Box>
  );
}
