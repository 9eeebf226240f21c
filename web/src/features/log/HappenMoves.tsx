import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Happened, Happening } from './useHappening';

/** What the last entry changed, where it was, and the way back. */
export function HappenMoves({ happening }: { happening: Happening }) {
  const { last, error } = happening;
  return (
    <Box role="status">
      {error && (
        <Typography color="error" sx={{ mt: 1, fontWeight: 600 }}>
          {error.message}
        </Typography>
      )}
      {last && (
        <Box sx={{ border: 1, p: 1.5, my: 1.5, maxWidth: 760 }}>
          <Typography sx={{ fontWeight: 700 }}>{last.title}</Typography>
          {last.said.map((sentence) => (
            <Typography key={sentence}>{sentence}</Typography>
          ))}
          {last.entry && <More key={last.title} last={last} happening={happening} />}
          <Box sx={{ display: 'flex', gap: 1, mt: 1, flexWrap: 'wrap' }}>
            {last.entry && (
              <Button
                disabled={happening.pending}
                onClick={() => last.entry && happening.retell(last.picture, last.entry, undefined)}
              >
                Take it back
              </Button>
            )}
            <Button variant="text" onClick={happening.close}>
              Close
            </Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}

/** Where it was and a word on it, when there is time for that. */
function More({ last, happening }: { last: Happened; happening: Happening }) {
  const entry = last.entry;
  const [place, setPlace] = useState(entry?.place ?? '');
  const [words, setWords] = useState(entry?.words ?? '');
  if (!entry) return null;
  const same = place === (entry.place ?? '') && words === (entry.words ?? '');
  return (
    <Box
      component="form"
      onSubmit={(e) => {
        e.preventDefault();
        const { at, material } = entry;
        happening.retell(last.picture, entry, { at, material, place, words });
      }}
      sx={{ display: 'flex', gap: 1, mt: 1.5, flexWrap: 'wrap', alignItems: 'center' }}
    >
      <TextField
        label="Where"
        placeholder="sky, lower left glass"
        value={place}
        onChange={(e) => setPlace(e.target.value)}
        slotProps={{ inputLabel: { shrink: true } }}
        sx={{ width: { xs: '100%', sm: 200 } }}
      />
      <TextField
        label="A word on it"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        sx={{ flex: 1, minWidth: 200 }}
      />
      <Button type="submit" disabled={same || happening.pending}>
        Keep
      </Button>
    </Box>
  );
}
