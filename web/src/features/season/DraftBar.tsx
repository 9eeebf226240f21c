import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { exact } from '../../format/time';
import { start } from '../../format/words';
import type { SeasonState } from './useSeason';
import { days, shiftWords } from './words';

/** What is tried, what it does to every picture, and the way on: keep it or drop it. */
export function DraftBar({ view }: { view: SeasonState }) {
  const { named, effects, zone } = view;
  if (!named && !view.trouble && !view.kept) return null;
  const wrong = view.trouble ?? view.tried.error ?? view.keepError ?? view.takeBackError;
  return (
    <Box
      component="section"
      aria-label="Draft"
      // In sight wherever one is: what is tried elsewhere on the page shows its consequences here.
      sx={{
        border: 2,
        p: 2,
        mb: 2,
        bgcolor: 'background.paper',
        position: named ? 'sticky' : 'static',
        top: 0,
        zIndex: 3,
      }}
    >
      {view.kept && !named && (
        <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
          <Typography role="status" sx={{ flex: 1 }}>
            Kept: {view.kept.label}.
          </Typography>
          <Button variant="outlined" onClick={view.takeBack} disabled={view.takingBack}>
            Undo: {view.kept.label}
          </Button>
          <Button variant="text" onClick={view.forgetKept}>
            Put this away
          </Button>
        </Box>
      )}
      {named && (
        <>
          <Typography variant="h3">Tried, not kept: {named.label}</Typography>
          <Box role="status" sx={{ my: 1 }}>
            {!effects && !wrong && <Typography>Planning it…</Typography>}
            {effects?.length === 0 && <Typography>No finish changes.</Typography>}
            {view.pins.map((said) => (
              <Typography key={said} sx={{ color: 'error.main', fontWeight: 600 }}>
                {said}.
              </Typography>
            ))}
            {effects && effects.length > 0 && (
              <Box component="ul" aria-label="What it changes" sx={{ m: 0, pl: 2.5 }}>
                {effects.map((e) => (
                  <Typography component="li" key={e.id}>
                    <b>{e.title}</b>:{' '}
                    {e.after === null
                      ? 'can no longer be finished'
                      : `ready ${exact(Date.parse(e.after), zone)}`}
                    {e.later !== undefined && `, ${shiftWords(e.later)}`}
                    {e.lateAfter > 0 && (
                      <Box component="b" sx={{ color: 'error.main' }}>
                        {' '}
                        · {days(e.lateAfter)} late
                      </Box>
                    )}
                    {e.lateBefore > 0 && e.lateAfter === 0 && e.after !== null && (
                      <b> · makes its date</b>
                    )}
                  </Typography>
                ))}
              </Box>
            )}
          </Box>
          <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap' }}>
            <Button
              variant="contained"
              onClick={view.keep}
              disabled={view.keeping || !effects || !!view.tried.error}
            >
              {view.keeping ? 'Keeping…' : 'Keep it'}
            </Button>
            <Button variant="outlined" onClick={view.drop} disabled={view.keeping}>
              Drop it
            </Button>
          </Box>
        </>
      )}
      {wrong && (
        <Typography role="alert" color="error" sx={{ mt: 1 }}>
          {start(wrong.message)}
        </Typography>
      )}
    </Box>
  );
}
