import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { dueDay } from '../../format/time';
import { Holds } from './Holds';
import { Sittings } from './Sittings';
import type { SeasonState } from './useSeason';
import { Ways } from './Ways';
import { dateWords, oddsWords } from './words';
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
const ODDS_ROOM = { minHeight: { xs: 96, md: 56 } };

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
      <Typography sx={{ fontSize: 18, mt: 0.5 }}>{dateWords(picture, zone)}</Typography>
      <Box sx={view.named || picture.done ? undefined : ODDS_ROOM}>
        {!picture.done && odds && (
          <Typography sx={{ mt: 1 }} data-testid="odds">
            {odds.on_day != null && picture.due && (
              <>
                Odds for {dueDay(picture.due, now)}: <b>{oddsWords(odds.on_day)}</b>
                {odds.day_earlier != null && `, a day earlier ${oddsWords(odds.day_earlier)}`}
                {odds.day_later != null && `, a day later ${oddsWords(odds.day_later)}`}.{' '}
              </>
            )}
            {odds.day_90
              ? `The day that has 90 %: ${dueDay(odds.day_90, now)}.`
              : 'In more than one of ten futures it is not finished at all.'}
          </Typography>
        )}
        <LongWait what="Sampling the odds" long={view.odds} />
      </Box>
      <Box sx={PARTS}>
        <Box sx={{ gridArea: 'holds' }}>
          <Holds picture={picture} zone={zone} now={now} />
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
