import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { clockAhead } from '../../api/clock';
import { outlookQuery } from '../../api/queries';
import { useStale } from '../../components/useStale';
import { clock } from '../../format/time';

/** Things that are named in the notice. [practice] two lines on a phone each */
const NAMED = 2;

/** What of the studio cannot be read: it is left out, or stands as it was kept last. */
function LeftOut({ unread }: { unread: string[] }) {
  const [all, setAll] = useState(false);
  const named = all ? unread : unread.slice(0, NAMED);
  const more = unread.length - named.length;
  return (
    <Box
      role="alert"
      sx={{ border: 2, borderColor: 'error.main', p: 1.5, mt: 1.5, mx: { xs: 2, md: 3 } }}
    >
      <Typography sx={{ fontWeight: 700 }}>
        {unread.length === 1 ? 'One thing' : `${unread.length} things`} kept here cannot be read.
      </Typography>
      <Typography>
        Left out of what is shown, or shown as it was kept before: {named.join('; ')}. It is not
        lost: ask who looks after Ulvek.
      </Typography>
      {more > 0 && (
        <Button variant="text" sx={{ px: 0 }} onClick={() => setAll(true)}>
          Name the other {more}
        </Button>
      )}
    </Box>
  );
}

/** What may no longer hold is dimmed, and says since when: a coat goes on drying while nobody answers. */
export function Trusted({ studio, children }: { studio: string; children: ReactNode }) {
  const outlook = useQuery(outlookQuery(studio));
  const since = useStale(outlook.dataUpdatedAt);
  const zone = outlook.data?.time_zone ?? 'UTC';
  return (
    <>
      {since !== undefined && (
        <Box
          role="alert"
          sx={{ border: 2, borderColor: 'error.main', p: 1.5, mt: 1.5, mx: { xs: 2, md: 3 } }}
        >
          <Typography sx={{ fontWeight: 700 }}>
            Nothing heard from Ulvek since {clock(since + (clockAhead() ?? 0), zone)}.
          </Typography>
          <Typography>
            What stands below was true then and may no longer hold. It is asked for again and again;
            go by your fingertip meanwhile.
          </Typography>
        </Box>
      )}
      {outlook.data && outlook.data.unread.length > 0 && <LeftOut unread={outlook.data.unread} />}
      <Box sx={since === undefined ? undefined : { opacity: 0.5 }} data-stale={since !== undefined}>
        {children}
      </Box>
    </>
  );
}
