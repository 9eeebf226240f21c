import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import type { Schemas } from '../../../api/client';
import { matchQuery } from '../../../api/queries';
import { plain } from '../../../format/words';
import { MixRow } from './MixRow';
import { WishPhoto } from './WishPhoto';

interface Props {
  id: string;
  step: string;
  film: number;
  zone: string;
  materials: Schemas['MaterialDoc'][];
  onTake: (mix: Schemas['PartDoc'][]) => void;
}

const LOOKS = {
  colour: 'A colour',
  like: 'What stands in for a paint',
  neutral: 'What takes the cast out',
} as const;
type Look = keyof typeof LOOKS;

/** Which mix to take for a colour, for a paint that is lacking, or against a cast. */
export function MatchBox({ id, step, film, zone, materials, onTake }: Props) {
  const [open, setOpen] = useState(false);
  const [look, setLook] = useState<Look>('colour');
  const [colour, setColour] = useState('#7a5a48');
  const paints = materials.filter((m) => m.kind === 'paint');
  const mediums = materials.filter((m) => m.kind === 'medium' && !m.archived && m.solids > 0);
  const [like, setLike] = useState(paints[0]?.id ?? '');
  const [medium, setMedium] = useState('');
  // A cast is taken out with a glaze.
  const clear = look === 'neutral' ? medium || (mediums[0]?.id ?? '') : medium;
  const ask = useDeferredValue<Schemas['MatchAsk']>({
    ...(look === 'colour' ? { colour } : look === 'like' ? { like } : { neutral: true }),
    ...(clear ? { medium: clear } : {}),
    wet_film_um: film,
    step,
  });
  const answer = useQuery({ ...matchQuery(id, ask), enabled: open && film > 0 });
  return (
    <Box component="section" aria-label="A mix for a colour" sx={{ mt: 4 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h3">A mix for a colour</Typography>
        <Button aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Put it away' : 'Find a mix'}
        </Button>
      </Box>
      {open && (
        <>
          <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mt: 1.5 }}>
            <TextField
              select
              label="Look for"
              value={look}
              onChange={(e) => setLook(e.target.value as Look)}
              sx={{ width: { xs: '100%', sm: 270 } }}
            >
              {Object.entries(LOOKS).map(([value, said]) => (
                <MenuItem key={value} value={value}>
                  {said}
                </MenuItem>
              ))}
            </TextField>
            {look === 'colour' && (
              <TextField
                label="The colour"
                type="color"
                value={colour}
                onChange={(e) => setColour(e.target.value)}
                sx={{ width: 130 }}
              />
            )}
            {look === 'like' && (
              <TextField
                select
                label="The paint that is lacking"
                value={like}
                onChange={(e) => setLike(e.target.value)}
                sx={{ width: { xs: '100%', sm: 300 } }}
              >
                {paints.map((m) => (
                  <MenuItem key={m.id} value={m.id}>
                    {m.name}
                  </MenuItem>
                ))}
              </TextField>
            )}
            <TextField
              select
              label="As"
              value={clear}
              onChange={(e) => setMedium(e.target.value)}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
              sx={{ width: { xs: '100%', sm: 300 } }}
            >
              {look !== 'neutral' && <MenuItem value="">Paint alone</MenuItem>}
              {mediums.map((m) => (
                <MenuItem key={m.id} value={m.id}>
                  A glaze in {m.name}
                </MenuItem>
              ))}
            </TextField>
          </Box>
          {look === 'colour' && <WishPhoto picture={id} zone={zone} onColour={setColour} />}
          {answer.isFetching && (
            <Typography role="status" sx={{ mt: 1 }}>
              Looking through the shelf…
            </Typography>
          )}
          {answer.error && (
            <Typography role="alert" color="error" sx={{ mt: 1, fontWeight: 600 }}>
              {answer.error.message}
            </Typography>
          )}
          {answer.data && (
            <>
              <Typography sx={{ mt: 1.5 }}>
                {look === 'neutral'
                  ? 'On the left what is seen there now, on the right after one coat.'
                  : 'On the left what you look for, on the right what the mix gives.'}
              </Typography>
              {answer.data.found.length === 0 && (
                <Typography role="status">No sound mix of this shelf comes near.</Typography>
              )}
              <Box component="ol" aria-label="Mixes" sx={{ p: 0, m: 0, listStyle: 'none' }}>
                {answer.data.found.map((found, n) => {
                  const left = look === 'neutral' ? answer.data.under : answer.data.wanted;
                  return (
                    <MixRow
                      key={n}
                      colours={[left, found.seen]}
                      label={`${left} and ${found.seen}`}
                      mix={found.mix}
                      materials={materials}
                      said={
                        look === 'neutral'
                          ? `${plain(found.apart)} of the cast and the lightness lost`
                          : `${found.said} (CIEDE2000 ${plain(found.apart)})${found.lines ? `; ${found.lines}` : ''}`
                      }
                      take={`Take mix ${n + 1}`}
                      onTake={onTake}
                    />
                  );
                })}
              </Box>
              <Typography color="text.secondary" sx={{ mt: 1 }}>
                A screen is not paint: make a swatch of it first.
              </Typography>
            </>
          )}
        </>
      )}
    </Box>
  );
}
