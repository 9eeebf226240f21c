import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link } from 'react-router';
import { calendarUrl } from '../../api/edits';
import { ZOOMS } from '../../figures/seasonAxis';
import type { SeasonState } from './useSeason';

/** Padding of the buttons above, so that those of one kind stand in one row on a phone. */
const LEAN = { px: { xs: 1, sm: 2 }, minWidth: 44 };

/** What the season shows, how much of it, and what can be asked of it. */
export function SeasonControls({ view, onLose }: { view: SeasonState; onLose: () => void }) {
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 1.5, alignItems: 'center' }}>
      <Box
        role="group"
        aria-label="How much time is shown"
        sx={{ display: 'flex', flexWrap: 'wrap' }}
      >
        {ZOOMS.map((z) => (
          <Button
            key={z.value}
            variant="text"
            aria-pressed={z.value === view.zoom}
            onClick={() => view.setZoom(z.value)}
            sx={{
              ...LEAN,
              fontWeight: z.value === view.zoom ? 700 : 400,
              textDecoration: z.value === view.zoom ? 'underline' : 'none',
              textUnderlineOffset: 5,
            }}
          >
            {z.word}
          </Button>
        ))}
      </Box>
      <Button variant="text" sx={LEAN} onClick={() => view.move(-0.5)}>
        Earlier
      </Button>
      <Button variant="text" sx={LEAN} onClick={view.toNow} disabled={!view.shifted}>
        Now
      </Button>
      <Button variant="text" sx={LEAN} onClick={() => view.move(0.5)}>
        Later
      </Button>
      <Box sx={{ flex: 1, minWidth: { xs: '100%', sm: 0 } }} />
      <Button variant="outlined" sx={LEAN} onClick={onLose}>
        What if I lose days?
      </Button>
      <Button variant="outlined" sx={LEAN} component={Link} to="/season/week">
        Week sheet
      </Button>
      <Button variant="outlined" sx={LEAN} href={calendarUrl(view.id)}>
        Calendar
      </Button>
    </Box>
  );
}
