import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useTroubleFound } from '../../api/edits';
import { exact } from '../../format/time';
import { start } from '../../format/words';
import { useSealing } from './Sealing';

type Trouble = Schemas['TroubleOut']['trouble'];

const WORDS: Record<Trouble, string> = {
  drip: 'A drip',
  puddle: 'A puddle',
  missed: 'A missed place',
  hair: 'A hair or dust',
  cloud: 'A cloud over darks',
  white: 'It turned white',
  bubbles: 'Bubbles',
  streaks: 'Streaks',
};

/** Trouble on the last sealing coat: what to do now, and what it changes in the plan. */
export function Troubles() {
  const { id, gate, zone, now } = useSealing();
  const [open, setOpen] = useState(false);
  const found = useTroubleFound(id);
  const last = gate.sealed.at(-1);
  if (!last) return null;
  const set = last.setting_at != null && Date.parse(last.setting_at) <= now;
  const advice = gate.advice.find((t) => t.trouble === found.variables?.trouble);
  return (
    <Box>
      {gate.troubles.map((t) => (
        <Typography key={t.at} color="text.secondary">
          {exact(Date.parse(t.at), zone)}: {WORDS[t.trouble].toLowerCase()} was found.
        </Typography>
      ))}
      {found.isSuccess && advice && (
        <Box role="status" sx={{ border: 2, p: 2, my: 1.5 }}>
          <Typography sx={{ fontWeight: 700 }}>{WORDS[advice.trouble]}</Typography>
          <Typography sx={{ fontSize: 20 }}>{set ? advice.when_set : advice.while_wet}</Typography>
          {found.data.changed.map((line) => (
            <Typography key={line}>{line}</Typography>
          ))}
          {found.data.changed.length === 0 && (
            <Typography>
              The plan stays as it is: a coat is still to come, or none is needed.
            </Typography>
          )}
        </Box>
      )}
      {found.error && (
        <Typography role="alert" color="error">
          {found.error.message}
        </Typography>
      )}
      <Button sx={{ mt: 1 }} onClick={() => setOpen(!open)} aria-expanded={open}>
        Trouble found on {last.title}
      </Button>
      {open && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
          {gate.advice.map((t) => (
            <Button
              key={t.trouble}
              disabled={found.isPending}
              title={start(t.looks_like)}
              onClick={() =>
                found.mutate(
                  { version: gate.version, step: last.step, trouble: t.trouble },
                  { onSuccess: () => setOpen(false) },
                )
              }
            >
              {WORDS[t.trouble]}
            </Button>
          ))}
        </Box>
      )}
    </Box>
  );
}
