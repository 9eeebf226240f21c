import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { fromField, toField } from '../format/time';
import { plain } from '../format/words';
import { fieldError, otherError } from './fieldError';
import { RadioLine } from './RadioLine';

export interface LogEntry {
  at: string;
  wet_film_um?: number;
  amount_ml?: number;
}

interface Props {
  title: string;
  /** The planned wet film [um]; undefined for a step that leaves none. */
  planned?: number;
  zone: string;
  now: number;
  pending: boolean;
  error: unknown;
  onLog: (entry: LogEntry) => void;
  onClose: () => void;
}

type How = 'planned' | 'um' | 'ml';

/** What really happened: when, and how much. */
export function LogDialog({ title, planned, zone, now, pending, error, onLog, onClose }: Props) {
  const [when, setWhen] = useState(() => toField(now, zone));
  const [how, setHow] = useState<How>('planned');
  const [amount, setAmount] = useState('');
  const at = fromField(when, zone);
  const number = Number(amount.replace(',', '.'));
  const needs = planned !== undefined && how !== 'planned';
  const bad = needs && (amount.trim() === '' || !Number.isFinite(number));
  const fields = ['at', 'wet_film_um', 'amount_ml'];
  const other = otherError(error, (path) => fields.includes(path));
  const submit = () => {
    if (!at || bad) return;
    onLog({
      at,
      ...(needs && how === 'um' ? { wet_film_um: number } : {}),
      ...(needs && how === 'ml' ? { amount_ml: number } : {}),
    });
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby="log-title" fullWidth maxWidth="xs">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          submit();
        }}
      >
        <DialogTitle id="log-title" component="h2" sx={{ fontWeight: 700 }}>
          {planned === undefined ? 'Done' : 'Coat laid'}: {title}
        </DialogTitle>
        <DialogContent>
          <Stack spacing={2.5} sx={{ pt: 1 }}>
            <TextField
              label={planned === undefined ? 'When it was done' : 'When the coat was there'}
              type="datetime-local"
              value={when}
              onChange={(e) => setWhen(e.target.value)}
              error={!at || !!fieldError(error, 'at')}
              helperText={at ? fieldError(error, 'at') : 'Give a day and a time.'}
              slotProps={{ inputLabel: { shrink: true } }}
            />
            {planned !== undefined && (
              <>
                <RadioLine
                  label="How thick it really was"
                  value={how}
                  onChange={setHow}
                  options={[
                    { value: 'planned', word: `As planned, ${plain(planned)} µm` },
                    { value: 'um', word: 'Measured, µm' },
                    { value: 'ml', word: 'Amount used, ml' },
                  ]}
                />
                {how !== 'planned' && (
                  <TextField
                    label={how === 'um' ? 'Wet film, µm' : 'Mix on the picture, ml'}
                    value={amount}
                    inputMode="decimal"
                    onChange={(e) => setAmount(e.target.value)}
                    error={
                      (bad && amount !== '') ||
                      !!fieldError(error, how === 'um' ? 'wet_film_um' : 'amount_ml')
                    }
                    helperText={
                      fieldError(error, how === 'um' ? 'wet_film_um' : 'amount_ml') ??
                      (bad && amount !== '' ? 'Give a number.' : undefined)
                    }
                  />
                )}
              </>
            )}
            {other && (
              <Typography role="alert" color="error" sx={{ fontWeight: 600 }}>
                {other}
              </Typography>
            )}
          </Stack>
        </DialogContent>
        <DialogActions sx={{ p: 2 }}>
          <Button onClick={onClose}>Not now</Button>
          <Button type="submit" variant="contained" disabled={pending || !at || bad}>
            {pending ? 'Logging…' : 'Log it'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
