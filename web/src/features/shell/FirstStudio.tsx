import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useDemoStudio } from '../../api/edits';

/** No studio is there yet. */
export function FirstStudio() {
  const demo = useDemoStudio();
  return (
    <Box component="main" sx={{ p: { xs: 2, md: 4 }, maxWidth: 640 }}>
      <Typography variant="h1">No studio yet</Typography>
      <Typography sx={{ my: 2 }}>
        Begin with the demo: a north-light room in Varnholt with six small pictures, one of them
        drying right now. Your own studio is made in the Studio view, or read from a studio
        document.
      </Typography>
      <Button variant="contained" disabled={demo.isPending} onClick={() => demo.mutate(undefined)}>
        {demo.isPending ? 'Setting it up…' : 'Open the demo studio'}
      </Button>
      {demo.error && (
        <Typography role="alert" color="error" sx={{ mt: 2 }}>
          {demo.error.message}
        </Typography>
      )}
    </Box>
  );
}
