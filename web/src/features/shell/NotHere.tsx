import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useRouteError } from 'react-router';
import { isLost, useReload } from './useReload';

const reload = () => window.location.reload();

/** What is said of an address without a view, of a view that did not come, and of one that failed. */
function said(error: unknown, lost: boolean): [string, string] {
  if (lost) {
    return [
      'This view has not come',
      'Ulvek does not answer just now. It opens by itself when it does; nothing you entered is lost.',
    ];
  }
  return error
    ? ['This view failed', 'Nothing you saved is lost. Open another view, or load the page again.']
    : ['Nothing is here', 'The address leads to no view of the studio.'];
}

/** Stands where a view cannot. */
export function NotHere() {
  const error = useRouteError();
  const lost = isLost(error);
  useReload(lost, reload);
  const [title, words] = said(error, lost);
  return (
    <Box sx={{ py: 4, px: 2 }} role="alert">
      <Typography variant="h1">{title}</Typography>
      <Typography sx={{ my: 2 }}>{words}</Typography>
      <Button component={Link} to="/">
        To what is next
      </Button>
    </Box>
  );
}
