import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useRouteError } from 'react-router';

/** An address without a view, or a view that failed. */
export function NotHere() {
  const error = useRouteError();
  return (
    <Box sx={{ py: 4, px: 2 }} role="alert">
      <Typography variant="h1">{error ? 'This view failed' : 'Nothing is here'}</Typography>
      <Typography sx={{ my: 2 }}>
        {error
          ? 'Nothing you saved is lost. Open another view, or load the page again.'
          : 'The address leads to no view of the studio.'}
      </Typography>
      <Button component={Link} to="/">
        To what is next
      </Button>
    </Box>
  );
}
