import Typography from '@mui/material/Typography';

/** While something is read or computed. */
export function Loading({ what }: { what: string }) {
  return (
    <Typography role="status" color="text.secondary" sx={{ py: 4 }}>
      {what}…
    </Typography>
  );
}
