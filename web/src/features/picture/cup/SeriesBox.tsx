import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import { seriesQuery } from '../../../api/queries';
import { typed } from '../../../format/number';
import { moment, span } from '../../../format/time';
import { marked, plain } from '../../../format/words';
import type { Part } from './turns';

interface Props {
  id: string;
  materials: Schemas['MaterialDoc'][];
  /** Wet film of the coat [um]. */
  film: number;
  /** The step the cups are for. */
  step: string;
  /** What is in its cup now: the series begins with its own paint and medium. */
  mix: Part[];
  now: number;
  zone: string;
  onTake: (mix: Part[]) => void;
}

const FIELDS = [
  { key: 'from', label: 'First cup, %' },
  { key: 'to', label: 'Last cup, %' },
  { key: 'cups', label: 'Cups' },
  { key: 'ml', label: 'Each, ml' },
] as const;

/** A row of cups from light to strong, to swatch before one is chosen. */
export function SeriesBox({ id, materials, film, step, mix, now, zone, onTake }: Props) {
  const of = (kind: string) => materials.filter((m) => m.kind === kind && !m.archived);
  const [open, setOpen] = useState(false);
  const inCup = (kind: string) =>
    mix.find((p) => p.parts > 0 && materials.find((m) => m.id === p.material)?.kind === kind)
      ?.material;
  const [strong, setStrong] = useState(inCup('paint') ?? of('paint')[0]?.id ?? '');
  const [thin, setThin] = useState(inCup('medium') ?? of('medium')[0]?.id ?? '');
  const [row, setRow] = useState({ from: '5', to: '30', cups: '6', ml: '10' });
  const ask: Schemas['SeriesAsk'] = {
    strong,
    thin,
    from: typed(row.from) / 100,
    to: typed(row.to) / 100,
    cups: typed(row.cups),
    ml: typed(row.ml),
    wet_film_um: film,
    step,
  };
  const sound =
    Object.values(row).every((text) => typed(text) >= 0) &&
    Number.isInteger(typed(row.cups)) &&
    film > 0;
  const answer = useQuery({ ...seriesQuery(id, ask), enabled: open && sound });
  const name = (material: string) => materials.find((m) => m.id === material)?.name ?? material;
  const choose = (label: string, value: string, set: (v: string) => void, kinds: string[]) => (
    <TextField
      select
      label={label}
      value={value}
      onChange={(e) => set(e.target.value)}
      sx={{ width: { xs: '100%', sm: 250 } }}
    >
      {kinds.flatMap(of).map((m) => (
        <MenuItem key={m.id} value={m.id}>
          {m.name}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <Box component="section" aria-label="Dilution series" sx={{ mt: 4 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h3">Dilution series</Typography>
        <Button aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Put it away' : 'Lay out a row of cups'}
        </Button>
      </Box>
      {open && (
        <>
          <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mt: 1.5 }}>
            {choose('Strong', strong, setStrong, ['paint'])}
            {choose('Thinned with', thin, setThin, ['medium', 'water'])}
            {FIELDS.map(({ key, label }) => (
              <TextField
                key={key}
                label={label}
                value={row[key]}
                onChange={(e) => setRow((was) => ({ ...was, [key]: e.target.value }))}
                error={!(typed(row[key]) >= 0)}
                slotProps={{ htmlInput: { inputMode: 'decimal' } }}
                sx={{ width: 118 }}
              />
            ))}
          </Box>
          {!sound && (
            <Typography role="alert" color="error" sx={{ mt: 1, fontWeight: 600 }}>
              Give whole cups, and shares and amounts of 0 or more.
            </Typography>
          )}
          {sound && answer.error && (
            <Typography role="alert" color="error" sx={{ mt: 1, fontWeight: 600 }}>
              {answer.error.message}
            </Typography>
          )}
          {answer.data && (
            <Box component="ol" aria-label="Cups" sx={{ p: 0, m: 0, mt: 1, listStyle: 'none' }}>
              {answer.data.map((cup, i) => {
                const broken = cup.limits.filter((l) => !l.kept);
                return (
                  <Box
                    component="li"
                    key={i}
                    sx={{
                      display: 'grid',
                      gridTemplateColumns: { xs: '1fr auto', md: '90px 1fr 300px auto' },
                      columnGap: 2,
                      alignItems: 'center',
                      py: 0.75,
                      borderBottom: 1,
                      borderColor: 'divider',
                    }}
                  >
                    <Typography sx={{ fontSize: 20, fontWeight: 700 }}>
                      {cup.parts.map((p) => plain(p.share * 100)).join(' : ')}
                    </Typography>
                    <Typography sx={{ gridColumn: { xs: '1 / -1', md: 'auto' } }}>
                      {cup.parts.map((p) => `${plain(p.ml, 2)} ml ${name(p.material)}`).join(' + ')}
                      {broken.map((l) => (
                        <Box component="b" key={l.what} sx={{ color: 'error.main' }}>
                          {' '}
                          {l.what}: {marked(l.why)}
                        </Box>
                      ))}
                    </Typography>
                    <Typography color="text.secondary">
                      {cup.working_min === null ? '' : `works ${span(cup.working_min)}`}
                      {cup.paintable_at === null
                        ? ''
                        : `, paintable ${moment(Date.parse(cup.paintable_at), now, zone)}`}
                    </Typography>
                    <Button
                      aria-label={`Take cup ${i + 1}`}
                      // While the next row is worked out the one before it stands: it is not to be taken.
                      disabled={answer.isPlaceholderData}
                      onClick={() => onTake(cup.mix)}
                      sx={{ justifySelf: 'end' }}
                    >
                      Take it
                    </Button>
                  </Box>
                );
              })}
            </Box>
          )}
        </>
      )}
    </Box>
  );
}
