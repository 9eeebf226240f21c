import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../api/client';
import { plain } from '../format/words';

interface Props {
  parts: Schemas['PouredOut'][];
  /** What the tub is called that it is painted from. */
  tub: string | null;
  /** In one line, for a list. */
  short?: boolean;
}

/** What goes into the cup. */
export function Recipe({ parts, tub, short }: Props) {
  if (parts.length === 0) return null;
  const whole = parts.reduce((sum, part) => sum + part.ml, 0);
  if (short && !tub && parts.length === 1 && parts[0]) {
    return <Typography color="text.secondary">{parts[0].said}</Typography>;
  }
  if (tub || short) {
    const from = tub ? `from the tub “${tub}”` : parts.map((part) => part.said).join(' + ');
    return (
      <Typography color="text.secondary">
        {plain(whole)} ml: {from}
      </Typography>
    );
  }
  return (
    <Box component="ul" aria-label="In the cup" sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
      {parts.map((part) => (
        <Typography component="li" key={part.said} sx={{ fontSize: 20 }}>
          {part.said}
        </Typography>
      ))}
      {parts.length > 1 && (
        <Typography component="li" color="text.secondary">
          {plain(whole)} ml in all
        </Typography>
      )}
    </Box>
  );
}
