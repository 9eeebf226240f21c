import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { fieldError, otherError } from '../../components/fieldError';
import { FormDialog } from '../../components/FormDialog';
import { NumberField } from '../../components/NumberField';
import { useNumbers } from '../../components/numbers';
import { fromField, toField } from '../../format/time';

const AIR = {
  temperature_c: { field: 'temperature_c', label: 'Temperature', open: true },
  relative_humidity: { field: 'relative_humidity', label: 'Humidity', open: true },
} as const;

interface Props {
  zone: string;
  now: number;
  pending: boolean;
  error: unknown;
  onKeep: (reading: { at: string; temperature_c: number; relative_humidity: number }) => void;
  onClose: () => void;
}

/** One reading that the painter took off an instrument of their own. */
export function TypeDialog({ zone, now, pending, error, onKeep, onClose }: Props) {
  const numbers = useNumbers(AIR, {});
  const [when, setWhen] = useState(() => toField(now, zone));
  const [first] = useState(when);
  const typedAt = fromField(when, zone);
  const at = when === first ? new Date(now).toISOString() : typedAt;
  const empty = numbers.texts.temperature_c === '' || numbers.texts.relative_humidity === '';
  return (
    <FormDialog
      title="Type a reading"
      send="Keep"
      sending="Keeping…"
      pending={pending}
      disabled={!at || empty || Object.keys(numbers.wrong).length > 0}
      trouble={otherError(error, (p) => p in AIR || p === 'at')}
      onSend={() =>
        at &&
        onKeep({
          at,
          temperature_c: numbers.value('temperature_c'),
          relative_humidity: numbers.value('relative_humidity'),
        })
      }
      onClose={onClose}
    >
      <NumberField
        numbers={numbers}
        name="temperature_c"
        refused={fieldError(error, 'temperature_c')}
      />
      <NumberField
        numbers={numbers}
        name="relative_humidity"
        refused={fieldError(error, 'relative_humidity')}
      />
      <TextField
        label="When"
        type="datetime-local"
        value={when}
        onChange={(e) => setWhen(e.target.value)}
        error={!at || !!fieldError(error, 'at')}
        helperText={
          at
            ? (fieldError(error, 'at') ??
              'It stands for an hour. Where the hygrometer measured too, its reading counts, and the two are compared.')
            : 'Give a day and a time.'
        }
        slotProps={{ inputLabel: { shrink: true } }}
      />
    </FormDialog>
  );
}
