import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import { photographsQuery, valuesQuery } from '../../../api/queries';
import { exact } from '../../../format/time';
import { plain } from '../../../format/words';
import { MixRow } from './MixRow';

interface Props {
  id: string;
  step: string;
  film: number;
  zone: string;
  mix: Schemas['PartDoc'][];
  materials: Schemas['MaterialDoc'][];
  onTake: (mix: Schemas['PartDoc'][]) => void;
}

const COUNTS = [3, 4, 5, 6, 7, 8, 9];

/** A string of values from a dark to a light paint: even, or those of a reference photograph. */
export function ValuesBox({ id, step, film, zone, mix, materials, onTake }: Props) {
  const [open, setOpen] = useState(false);
  const paints = materials.filter((m) => m.kind === 'paint' && !m.archived && m.over_white);
  const [dark, setDark] = useState('');
  const [light, setLight] = useState('');
  const [count, setCount] = useState(5);
  const [photograph, setPhotograph] = useState('');
  const photographs = useQuery({ ...photographsQuery(id), enabled: open });
  const ask: Schemas['ValuesAsk'] = {
    dark: dark ? [{ material: dark, parts: 1 }] : mix,
    light: light ? [{ material: light, parts: 1 }] : [],
    count,
    wet_film_um: film,
    step,
    ...(photograph ? { photograph } : {}),
  };
  const answer = useQuery({ ...valuesQuery(id, ask), enabled: open && film > 0 });
  const choose = (
    label: string,
    value: string,
    set: (v: string) => void,
    options: { value: string; said: string }[],
  ) => (
    <TextField
      select
      label={label}
      value={value}
      onChange={(e) => set(e.target.value)}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      sx={{ width: { xs: '100%', sm: 260 } }}
    >
      {options.map((option) => (
        <MenuItem key={option.value} value={option.value}>
          {option.said}
        </MenuItem>
      ))}
    </TextField>
  );
  const named = paints.map((m) => ({ value: m.id, said: m.name }));
  return (
    <Box component="section" aria-label="A string of values" sx={{ mt: 4 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h3">A string of values</Typography>
        <Button aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Put it away' : 'Mix dark to light'}
        </Button>
      </Box>
      {open && (
        <>
          <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mt: 1.5 }}>
            {choose('Dark end', dark, setDark, [
              { value: '', said: 'What is in this cup' },
              ...named,
            ])}
            {choose('Light end', light, setLight, [
              { value: '', said: 'The lightest paint' },
              ...named,
            ])}
            {choose(
              'How many',
              String(count),
              (v) => setCount(Number(v)),
              COUNTS.map((n) => ({ value: String(n), said: `${n} values` })),
            )}
            {choose('Values of', photograph, setPhotograph, [
              { value: '', said: 'Even steps' },
              ...(photographs.data ?? []).map((p) => ({
                value: p.id,
                said: p.caption || `the photograph of ${exact(Date.parse(p.taken_at), zone)}`,
              })),
            ])}
          </Box>
          {answer.error && (
            <Typography role="alert" color="error" sx={{ mt: 1, fontWeight: 600 }}>
              {answer.error.message}
            </Typography>
          )}
          {answer.data && (
            <Box
              component="ol"
              aria-label="Values"
              sx={{
                p: 0,
                m: 0,
                mt: 1.5,
                listStyle: 'none',
                opacity: answer.isPlaceholderData ? 0.6 : 1,
              }}
            >
              {answer.data.map((value, n) => (
                <MixRow
                  key={n}
                  colours={[value.patch?.colour ?? value.seen, value.seen]}
                  label={
                    value.patch
                      ? `${value.patch.colour} in the photograph, ${value.seen} mixed`
                      : value.seen
                  }
                  mix={value.mix}
                  materials={materials}
                  said={
                    <>
                      {value.early ? 'For the early passes. ' : ''}Value {plain(value.l, 0)}
                      {value.patch &&
                        ` for ${plain(value.patch.l, 0)}, ${plain(value.patch.share * 100, 0)} % of the picture`}
                    </>
                  }
                  take={`Take value ${n + 1}`}
                  onTake={onTake}
                >
                  {!value.reached && (
                    <Typography role="note" sx={{ fontWeight: 600 }}>
                      Out of reach: choose another end.
                    </Typography>
                  )}
                  {value.ml !== null && (
                    <Typography sx={{ fontSize: 20, fontWeight: 700 }}>
                      {plain(value.ml)} ml
                    </Typography>
                  )}
                </MixRow>
              ))}
            </Box>
          )}
        </>
      )}
    </Box>
  );
}
