import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import type { Edits } from './useVersionedEdit';

interface Props {
  edits: Pick<Edits, 'conflict' | 'drop' | 'again' | 'pending'>;
  title: string;
}

/** Two people edited the same thing: both edits are kept until the painter decides. */
export function ConflictDialog({ edits, title }: Props) {
  const { conflict } = edits;
  if (!conflict) return null;
  return (
    <Dialog open aria-labelledby="conflict-title" maxWidth="sm">
      <DialogTitle id="conflict-title" component="h2" sx={{ fontWeight: 700 }}>
        “{title}” was edited elsewhere
      </DialogTitle>
      <DialogContent>
        <Typography>
          Your edit “{conflict.label}” was made on version {conflict.problem.given_version}; version{' '}
          {conflict.problem.current_version} is stored now. Nothing was overwritten.
        </Typography>
        <Typography sx={{ mt: 1 }}>
          Make your edit again on the stored version, or let yours go and look at what is stored.
        </Typography>
      </DialogContent>
      <DialogActions sx={{ p: 2, flexWrap: 'wrap', gap: 1 }}>
        <Button onClick={edits.drop}>Let mine go</Button>
        <Button variant="contained" disabled={edits.pending} onClick={() => void edits.again()}>
          Make mine again on it
        </Button>
      </DialogActions>
    </Dialog>
  );
}
