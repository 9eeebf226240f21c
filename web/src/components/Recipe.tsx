import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../api/client';
import { plain } from '../format/words';

/** One part as it is poured: small ones in drops too. */
export function poured({ name, ml, drops }: Schemas['PouredOut']): string {
  if (drops === null) return `${plain(ml)} ml ${name}`;
  return `${plain(ml, 2)} ml ${name}, ${drops === 1 ? '1 drop' : `${drops} drops`}`;
}

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
    return <Typography color="text.secondary">{poured(parts[0])}</Typography>;
  }
  if (tub || short) {
    const from = tub ? `from the tub “${tub}”` : parts.map(poured).join(' + ');
    return (
      <Typography color="text.secondary">
        {plain(whole)} ml: {from}
      </Typography>
    );
  }
  return (
    <Box component="ul" aria-label="In the cup" sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
      {parts.map((part) => (
        <Typography component="li" key={part.name} sx={{ fontSize: 20 }}>
          {poured(part)}
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
