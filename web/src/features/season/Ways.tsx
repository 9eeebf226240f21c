import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { waysQuery } from '../../api/queries';
import { inDanger } from '../../components/useDates';
import type { SeasonState } from './useSeason';
import { LongWait } from './LongWait';
import { useLong } from '../../components/useLong';
import { shiftWords } from './words';

interface Props {
  view: SeasonState;
  picture: Schemas['SeasonPicture'];
}

/** Ways to make the date: each planned anew, the least harmful that meet it first. */
export function Ways({ view, picture }: Props) {
  const late = inDanger(view.dateOf(picture).standing);
  const [asked, setAsked] = useState(late);
  const ways = useLong(waysQuery(view.id, picture.id), asked);
  return (
    <Box component="section" aria-label="Ways to make the date" sx={{ mt: 3 }}>
      <Typography variant="h3">
        {late ? 'Ways to make the date' : 'Ways to be ready sooner'}
      </Typography>
      {view.named && <Typography sx={{ mt: 1 }}>Keep the draft or drop it first.</Typography>}
      {!asked && !view.named && (
        <Button variant="outlined" sx={{ mt: 1 }} onClick={() => setAsked(true)}>
          Work them out
        </Button>
      )}
      <LongWait what="Planning each of them" long={ways} />
      {ways.error && (
        <Typography role="alert" color="error">
          {ways.error.message}
        </Typography>
      )}
      {ways.data?.length === 0 && !view.named && (
        <Typography sx={{ mt: 1 }}>
          No change that is known here makes it ready on an earlier day. What is left is another
          date.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {(view.named ? [] : (ways.data ?? [])).map((way) => (
          <Box
            component="li"
            key={way.what}
            sx={{ py: 1.25, borderBottom: 1, borderColor: 'divider' }}
          >
            <Typography>
              <b>{way.what}</b>
              {way.gain_min !== null && `: ${shiftWords(-way.gain_min)}`}. {way.date.said}
            </Typography>
            <Typography color="text.secondary" sx={{ fontSize: 16 }}>
              {way.risk}
              {way.others_later > 0 && ' Other pictures become later.'}
            </Typography>
            <Button
              variant="outlined"
              sx={{ mt: 0.75 }}
              onClick={() =>
                view.open({ label: `${picture.title}: ${way.what}`, draft: way.draft })
              }
            >
              Open beside the plan
            </Button>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
