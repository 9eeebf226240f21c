import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { fromField, toField } from '../format/time';
import { plain } from '../format/words';
import { typed } from '../format/number';
import { fieldError, otherError } from './fieldError';
import { FormDialog } from './FormDialog';
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
  const number = typed(amount);
  const needs = planned !== undefined && how !== 'planned';
  const bad = needs && !Number.isFinite(number);
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
    <FormDialog
      title={`${planned === undefined ? 'Done' : 'Coat laid'}: ${title}`}
      send="Log it"
      sending="Logging…"
      width="xs"
      pending={pending}
      disabled={!at || bad}
      trouble={other}
      onSend={submit}
      onClose={onClose}
    >
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
    </FormDialog>
  );
}
