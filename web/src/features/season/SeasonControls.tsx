import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link } from 'react-router';
import { calendarUrl } from '../../api/edits';
import { MoveButtons, SpanButtons } from '../../components/TimeButtons';
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
        <SpanButtons spans={ZOOMS} span={view.zoom} onSpan={view.setZoom} sx={LEAN} />
      </Box>
      <MoveButtons
        earlier={() => view.move(-0.5)}
        toNow={view.toNow}
        later={() => view.move(0.5)}
        shifted={view.shifted}
        sx={LEAN}
      />
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
