import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useAddInstrument } from '../../api/edits';
import { optionsOf, useCatalogue } from '../../components/catalogue';
import { fieldError, otherError } from '../../components/fieldError';
import { FormDialog } from '../../components/FormDialog';
import { CopyToken } from './CopyToken';

type Kind = Schemas['NewInstrument']['kind'];

/** An instrument of one's own; its token is shown once. */
export function AddDialog({ studio, onClose }: { studio: string; onClose: () => void }) {
  const { instrument_kinds: kinds } = useCatalogue();
  const add = useAddInstrument(studio);
  const [kind, setKind] = useState<Kind>('hygrometer');
  const [name, setName] = useState('');
  if (add.data) return <Token token={add.data.token} kind={kind} onClose={onClose} />;
  return (
    <FormDialog
      title="Add an instrument"
      send="Add"
      sending="Adding…"
      pending={add.isPending}
      disabled={name.trim() === ''}
      trouble={otherError(add.error, (p) => p === 'name')}
      onSend={() => add.mutate({ kind, name })}
      onClose={onClose}
    >
      <TextField
        select
        label="What it measures"
        value={kind}
        onChange={(e) => setKind(e.target.value as Kind)}
      >
        {optionsOf<Kind>(kinds).map((o) => (
          <MenuItem key={o.value} value={o.value}>
            {o.word}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="What you call it"
        value={name}
        onChange={(e) => setName(e.target.value)}
        error={!!fieldError(add.error, 'name')}
        helperText={fieldError(add.error, 'name') ?? 'Where it stands, for example: north wall.'}
      />
    </FormDialog>
  );
}

/** What each kind sends. */
const EXAMPLES: Record<Kind, string> = {
  hygrometer:
    '{"readings": [{"at": "2027-01-14T17:34:00+01:00", "temperature_c": 20.4, "relative_humidity": 0.47}]}',
  scale: '{"grams": 31.20}',
  forecast:
    '{"hours": [{"at": "2027-01-14T18:00:00+01:00", "temperature_c": 2.5, "relative_humidity": 0.88}]}',
};

function Token({ token, kind, onClose }: { token: string; kind: Kind; onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="token-title" fullWidth maxWidth="sm">
      <DialogTitle id="token-title" component="h2" sx={{ fontWeight: 700 }}>
        Its token
      </DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 1.5 }}>
          Give this to the device: it sends with it, and with nothing else. It is shown once and
          kept nowhere; when it is lost, take the instrument away and add it again.
        </Typography>
        <Box
          component="code"
          sx={{ display: 'block', border: 1, p: 1.5, fontSize: 17, overflowWrap: 'anywhere' }}
        >
          {token}
        </Box>
        <Typography sx={{ mt: 1.5 }}>It sends by POST, as JSON, to</Typography>
        <Box component="code" sx={{ display: 'block', overflowWrap: 'anywhere' }}>
          {window.location.origin}/api/instruments/readings
        </Box>
        <Typography sx={{ mt: 1 }}>
          with the token as “Authorization: Bearer”, for example
        </Typography>
        <Box component="code" sx={{ display: 'block', overflowWrap: 'anywhere' }}>
          {EXAMPLES[kind]}
        </Box>
      </DialogContent>
      <DialogActions sx={{ p: 2 }}>
        <CopyToken token={token} />
        <Button variant="contained" onClick={onClose}>
          It has it
        </Button>
      </DialogActions>
    </Dialog>
  );
}
