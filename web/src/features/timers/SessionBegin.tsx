import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { typed } from '../../format/number';
import { useCatalogue } from '../../components/catalogue';
import { beginTimer, useTimers } from './timers';

interface Props {
  /** What is left of the hours [ms]. */
  left: number;
}

const MINUTE = 60_000;
/** Longest timer of one's own [min]: a day. */
const MOST_MIN = 24 * 60;

/** Begins the session with its misting, or a timer of one's own. */
export function SessionBegin({ left }: Props) {
  const running = useTimers().some((timer) => timer.kind === 'session');
  const mistEvery = useCatalogue().mist_every_min;
  const [own, setOwn] = useState(false);
  const [minutes, setMinutes] = useState('20');
  const [what, setWhat] = useState('');
  const number = typed(minutes);
  const bad = !(number > 0 && number <= MOST_MIN);
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
      {!running && left > 0 && (
        <Button
          onClick={() => {
            beginTimer('session', 'Until the hours end', left);
            beginTimer('misting', 'Mist the palette, not the picture', mistEvery * MINUTE);
          }}
        >
          Begin the session
        </Button>
      )}
      <Button variant="text" aria-expanded={own} onClick={() => setOwn(!own)}>
        {own ? 'No timer' : 'Set a timer'}
      </Button>
      {own && (
        <Box
          component="form"
          sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center' }}
          onSubmit={(e) => {
            e.preventDefault();
            if (bad) return;
            beginTimer('own', what.trim() || 'Timer', number * MINUTE);
            setOwn(false);
            setWhat('');
          }}
        >
          <TextField
            label="Minutes"
            value={minutes}
            inputMode="decimal"
            error={bad}
            onChange={(e) => setMinutes(e.target.value)}
            sx={{ width: 110 }}
          />
          <TextField label="For what" value={what} onChange={(e) => setWhat(e.target.value)} />
          <Button type="submit" disabled={bad}>
            Start it
          </Button>
        </Box>
      )}
    </Box>
  );
}
