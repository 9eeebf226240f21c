import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { ApiError } from '../api/client';

/** A view that could not be read: what happened, in a sentence, and a way on. */
export function Trouble({ error, retry }: { error: unknown; retry: () => void }) {
  const problem = error instanceof ApiError ? error.problem : undefined;
  return (
    <Box role="alert" sx={{ p: 3, border: 2, maxWidth: 640 }}>
      <Typography variant="h3">{problem?.title ?? 'Something went wrong'}</Typography>
      <Typography sx={{ my: 1 }}>{problem?.detail ?? String(error)}</Typography>
      <Button onClick={retry}>Try again</Button>
    </Box>
  );
}
