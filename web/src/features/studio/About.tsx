import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';

/** The version of the page, set by the build. */
declare const __VERSION__: string;

/** Which version this is, and under which licences it and the parts of its page may be used. */
export function About() {
  return (
    <Box component="section" aria-label="This version" sx={{ mt: 5 }}>
      <Typography variant="h3" sx={{ mb: 1 }}>
        This version
      </Typography>
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
        <Typography>Ulvek {__VERSION__}, under the MIT licence.</Typography>
        <Button component="a" href="/licences.txt" download="ulvek-licences.txt">
          Download the licences of the page&rsquo;s parts
        </Button>
      </Box>
    </Box>
  );
}
