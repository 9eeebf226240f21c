import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useCreatePicture } from '../../api/edits';
import { studioQuery } from '../../api/queries';
import { groundWord, useCatalogue } from '../../components/catalogue';
import { FormDialog } from '../../components/FormDialog';
import { GroundField } from '../../components/GroundField';

/** The ten-minute swatch: one coat on one's own ground, touched three times. */
export function Swatch({ studio, known }: { studio: string; known: boolean }) {
  const [open, setOpen] = useState(false);
  return (
    <Box sx={{ border: 1, p: 2, mt: 3, maxWidth: 760 }}>
      <Typography sx={{ fontWeight: 700 }}>
        {known ? 'Another swatch' : 'Begin with a ten-minute swatch'}
      </Typography>
      <Typography>
        Brush one ordinary coat of a paint you use, a hand wide, on the ground you use, and log it
        as laid. Touch it after some three, six and ten minutes, each time in a fresh spot, and say
        what you felt: that tells how fast your room dries and what your ground takes up.
      </Typography>
      <Button
        variant={known ? 'outlined' : 'contained'}
        sx={{ mt: 1.5 }}
        onClick={() => setOpen(true)}
      >
        Begin a swatch
      </Button>
      {open && <SwatchDialog studio={studio} onClose={() => setOpen(false)} />}
    </Box>
  );
}

/** Side of a swatch [cm] and its wet film [um]. [practice] a hand wide, an ordinary coat */
const SIDE_CM = 10;
const FILM_UM = 80;

function SwatchDialog({ studio, onClose }: { studio: string; onClose: () => void }) {
  const create = useCreatePicture(studio);
  const navigate = useNavigate();
  const shelf = useQuery(studioQuery(studio));
  const paints = (shelf.data?.materials ?? []).filter((m) => m.kind === 'paint' && !m.archived);
  const { grounds, first_ground } = useCatalogue();
  const [ground, setGround] = useState(first_ground);
  const [paint, setPaint] = useState<string>();
  const chosen = paint ?? paints[0]?.id ?? '';
  const name = paints.find((m) => m.id === chosen)?.name ?? '';
  const begin = () =>
    create.mutate(
      {
        id: 'new',
        title: `Swatch: ${name} on ${groundWord(grounds, ground.absorbs_um ?? 0).toLowerCase()}`,
        width_cm: SIDE_CM,
        height_cm: SIDE_CM,
        weight: 1,
        ground,
        ready_by: 'sealed',
        steps: [
          {
            id: 'swatch',
            kind: 'tone',
            name: 'swatch',
            hands_on_min: 2,
            wet_film_um: FILM_UM,
            mix: [{ material: chosen, parts: 1 }],
          },
        ],
      },
      { onSuccess: (made) => void navigate(`/pictures/${made.id}`) },
    );
  return (
    <FormDialog
      title="A swatch"
      send="Begin it"
      sending="Beginning it…"
      pending={create.isPending}
      disabled={!chosen}
      trouble={create.error?.message}
      onSend={begin}
      onClose={onClose}
    >
      <Stack spacing={2}>
        {shelf.data && paints.length === 0 ? (
          <Typography>No paint is on the shelf: put one there first.</Typography>
        ) : (
          <TextField select label="Paint" value={chosen} onChange={(e) => setPaint(e.target.value)}>
            {paints.map((m) => (
              <MenuItem key={m.id} value={m.id}>
                {m.name}
              </MenuItem>
            ))}
          </TextField>
        )}
        <GroundField ground={ground} onChange={setGround} />
      </Stack>
    </FormDialog>
  );
}
