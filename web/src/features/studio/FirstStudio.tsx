import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useDemoStudio } from '../../api/edits';
import { BringStudio } from './BringStudio';
import { NewStudio } from './NewStudio';
import { TakenAway } from './TakenAway';

/** No studio is there: begin one, bring one, or bring one back. */
export function FirstStudio() {
  const demo = useDemoStudio();
  const [making, setMaking] = useState(false);
  return (
    <Box component="main" sx={{ p: { xs: 2, md: 4 }, maxWidth: 720 }}>
      <Typography variant="h1">No studio is open</Typography>
      <Typography sx={{ my: 2 }}>
        Begin your own: where and how you keep the room, and your hours. Or look around in the demo
        first, a north-light room in Varnholt with six small pictures, one of them drying right now.
      </Typography>
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap' }}>
        <Button variant="contained" onClick={() => setMaking(true)}>
          Begin a studio
        </Button>
        <Button disabled={demo.isPending} onClick={() => demo.mutate(undefined)}>
          {demo.isPending ? 'Setting it up…' : 'Open the demo studio'}
        </Button>
        <BringStudio />
      </Box>
      {demo.error && (
        <Typography role="alert" color="error" sx={{ mt: 2 }}>
          {demo.error.message}
        </Typography>
      )}
      <TakenAway />
      {making && <NewStudio onClose={() => setMaking(false)} />}
    </Box>
  );
}
