import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../api/client';
import { plain } from '../format/words';

/** Below this a part is counted in drops too [ml]. [practice] */
const DROPS_BELOW_ML = 1;

/** One part as it is poured: small ones in drops too. */
export function poured({ name, ml, drops }: Schemas['PouredOut']): string {
  const counted = Math.max(Math.round(drops), 1);
  const said = counted === 1 ? '1 drop' : `${counted} drops`;
  return ml < DROPS_BELOW_ML ? `${plain(ml, 2)} ml ${name}, ${said}` : `${plain(ml)} ml ${name}`;
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
