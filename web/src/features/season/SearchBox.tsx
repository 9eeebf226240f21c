import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../../api/client';
import { plain } from '../../format/words';
import type { SeasonState } from './useSeason';
import { useSearchRun } from './useSearchRun';
import { days, shiftWords } from './words';

const LENGTHS = [
  { seconds: 10, word: '10 seconds' },
  { seconds: 60, word: 'A minute' },
  { seconds: 300, word: '5 minutes' },
] as const;

type Objective = Schemas['ObjectiveOut'];

/** What is better about `best`, in words. */
function better(start: Objective, best: Objective): string {
  const late = start.weighted_days_late - best.weighted_days_late;
  const minutes = start.sum_of_finish_min - best.sum_of_finish_min;
  const said: string[] = [];
  if (late > 0) said.push(`${days(Number(plain(late)))} less late`);
  if (minutes >= 1) said.push(`all finishes together ${shiftWords(-minutes)}`);
  if (said.length === 0 && best.set_ups < start.set_ups)
    said.push(`${start.set_ups - best.set_ups} fewer set-ups`);
  return said.length > 0 ? said.join(', ') : 'fewer coats from a tub past its last good day';
}

/** Looks for a better order of work while the painter does something else. */
export function SearchBox({ view }: { view: SeasonState }) {
  const { search, running, begin, stop } = useSearchRun(view.id);
  const found = search?.better ? better(search.start, search.best) : undefined;
  const stale = search && !running && search.version !== view.season.data?.version;
  const open = () => {
    if (!search) return;
    view.trySettings('a better order of work', (studio) => ({ ...studio, order: search.order }));
  };
  return (
    <Box component="section" aria-label="A better order of work" sx={{ mt: 4 }}>
      <Typography variant="h3">A better order of work</Typography>
      {!running && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center', mt: 1 }}>
          <Typography>Look for</Typography>
          {LENGTHS.map((l) => (
            <Button
              key={l.seconds}
              variant="outlined"
              disabled={begin.isPending}
              onClick={() => begin.mutate(l.seconds)}
            >
              {l.word}
            </Button>
          ))}
        </Box>
      )}
      {begin.error && (
        <Typography role="alert" color="error">
          {begin.error.message}
        </Typography>
      )}
      {running && search && (
        <Box sx={{ mt: 1, maxWidth: 720 }}>
          <LinearProgress
            variant="determinate"
            value={Math.min(100, (search.took_s / search.seconds) * 100)}
            aria-label="Time of the search that is over"
          />
          <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', mt: 1 }}>
            <Typography sx={{ flex: 1 }}>
              {search.tried} orders tried. {found ? `Found: ${found}.` : 'None better yet.'}
            </Typography>
            <Button variant="outlined" onClick={() => stop.mutate()} disabled={stop.isPending}>
              Stop
            </Button>
          </Box>
        </Box>
      )}
      {!running && search && (
        <Box role="status" sx={{ mt: 1.5 }}>
          <Typography>
            {search.tried} orders tried in {plain(search.took_s, 0)} s.{' '}
            {found
              ? `The best one: ${found}.`
              : search.at_bound
                ? 'No better order was found, and none is known to be possible.'
                : 'No better order was found.'}
            {stale && ' The studio was changed since; look again.'}
          </Typography>
          <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
            {found && !stale && (
              <Button variant="contained" onClick={open}>
                Open beside the plan
              </Button>
            )}
            <Button variant="text" onClick={() => stop.mutate()}>
              Let go of it
            </Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}
