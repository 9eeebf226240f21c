import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { Holds } from './Holds';
import { Sittings } from './Sittings';
import type { SeasonState } from './useSeason';
import { Ways } from './Ways';
import { dateStyle } from '../../components/useDates';
import { beyondDate } from './words';
import { LongWait } from './LongWait';

interface Props {
  view: SeasonState;
  picture: Schemas['SeasonPicture'];
  odds?: Schemas['PictureOddsOut'];
  step?: string;
  onStep: (step?: string) => void;
  onClose: () => void;
}

/** Room for the odds or for waiting for them: what stands below must not move under a finger when they come. */
const ODDS_ROOM = { minHeight: 56 };

/** Nothing that comes later stands above the sittings. */
const PARTS = {
  display: 'grid',
  gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' },
  gridTemplateRows: { md: 'auto 1fr' },
  gridTemplateAreas: {
    xs: '"holds" "sittings" "ways"',
    md: '"holds sittings" "ways sittings"',
  },
  columnGap: 4,
  rowGap: { xs: 3, md: 0 },
  mt: 2.5,
};

/** One picture of the season: what its date hangs on, what would make it, its sittings. */
export function PicturePanel({ view, picture, odds, step, onStep, onClose }: Props) {
  const { zone, now } = view;
  const date = view.dateOf(picture);
  return (
    <Box
      component="section"
      aria-label={picture.title}
      sx={{ mt: 3, p: { xs: 1.5, md: 2.5 }, bgcolor: 'background.paper' }}
    >
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline', flexWrap: 'wrap' }}>
        <Typography variant="h2" sx={{ fontWeight: 700, flex: 1 }}>
          {picture.title}
        </Typography>
        <Button component={Link} to={`/pictures/${picture.id}`} variant="text">
          Open the picture
        </Button>
        <Button variant="text" onClick={onClose}>
          Close
        </Button>
      </Box>
      <Typography sx={{ fontSize: 18, mt: 0.5 }}>
        <Box component="span" sx={dateStyle(date.standing)} data-testid="date">
          {date.said}
        </Box>{' '}
        {beyondDate(picture, date.standing, zone)}
      </Typography>
      <Box sx={view.named || picture.done ? undefined : ODDS_ROOM}>
        {!picture.done && odds?.beside && (
          <Typography sx={{ mt: 1 }} data-testid="odds">
            {odds.beside}
          </Typography>
        )}
        <LongWait what="Sampling the odds" long={view.odds} />
      </Box>
      <Box sx={PARTS}>
        <Box sx={{ gridArea: 'holds' }}>
          <Holds picture={picture} zone={zone} now={now} tried={!!view.named} />
        </Box>
        <Box sx={{ gridArea: 'sittings' }}>
          <Sittings view={view} picture={picture} step={step} onStep={onStep} />
        </Box>
        {!picture.done && picture.work.length > 0 && (
          <Box sx={{ gridArea: 'ways' }}>
            <Ways key={picture.id} view={view} picture={picture} />
          </Box>
        )}
      </Box>
    </Box>
  );
}
