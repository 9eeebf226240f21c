import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { moment } from '../../format/time';

interface Props {
  prepare: Schemas['PrepareOut'][];
  now: number;
  zone: string;
}

/** What to prepare for the coming hours; nothing when there is nothing. */
export function Prepare({ prepare, now, zone }: Props) {
  if (prepare.length === 0) return null;
  return (
    <Box component="section" aria-label="Prepare" sx={{ mb: 4 }}>
      <Typography variant="h3">Prepare</Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {prepare.map((p) => (
          <Typography component="li" key={`${p.picture} ${p.said}`} sx={{ my: 0.5 }}>
            {moment(Date.parse(p.by), now, zone)}: <b>{p.said}</b>,{' '}
            <Box component={Link} to={`/pictures/${p.picture}`} sx={{ color: 'text.primary' }}>
              {p.picture_title}
            </Box>
            .
          </Typography>
        ))}
      </Box>
    </Box>
  );
}
