import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { Schemas } from '../api/client';
import { moment } from '../format/time';
import { plain } from '../format/words';

interface Props {
  shortages: Schemas['ShortageOut'][];
  now: number;
  zone: string;
}

/** What planned work needs more of than there is; nothing when all is there. */
export function Shortages({ shortages, now, zone }: Props) {
  if (shortages.length === 0) return null;
  return (
    <Box component="section" aria-label="Runs short" sx={{ mb: 4 }}>
      <Typography variant="h3">Runs short</Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {shortages.map((s) => (
          <Typography component="li" key={`${s.tub}-${s.of}`} sx={{ my: 0.5 }}>
            <b>
              {s.tub ? `The tub “${s.name}”` : s.name}: {plain(s.left_ml)} ml left,{' '}
              {plain(s.needs_ml)} ml needed
            </b>{' '}
            {s.at ? `by ${moment(Date.parse(s.at), now, zone)}` : ''} for {s.title} of{' '}
            <Box component={Link} to={`/pictures/${s.picture}`} sx={{ color: 'text.primary' }}>
              {s.picture_title}
            </Box>
            .
          </Typography>
        ))}
      </Box>
    </Box>
  );
}
