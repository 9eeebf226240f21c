import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { fieldError, otherError } from '../../components/fieldError';
import { FormDialog } from '../../components/FormDialog';
import { fromField, toField } from '../../format/time';

const HOUR = 3_600_000;

interface Props {
  /** Whether what was taken back is given back. */
  give: boolean;
  zone: string;
  now: number;
  pending: boolean;
  error: unknown;
  onKeep: (span: { from: string; to: string }) => void;
  onClose: () => void;
}

/** A stretch of readings that is taken back, or given back. */
export function SpanDialog({ give, zone, now, pending, error, onKeep, onClose }: Props) {
  const [from, setFrom] = useState(() => toField(now - HOUR, zone));
  const [to, setTo] = useState(() => toField(now, zone));
  const span = { from: fromField(from, zone), to: fromField(to, zone) };
  const field = (name: 'from' | 'to', label: string, value: string, set: (v: string) => void) => (
    <TextField
      label={label}
      type="datetime-local"
      value={value}
      onChange={(e) => set(e.target.value)}
      error={!span[name] || !!fieldError(error, name)}
      helperText={span[name] ? fieldError(error, name) : 'Give a day and a time.'}
      slotProps={{ inputLabel: { shrink: true } }}
    />
  );
  return (
    <FormDialog
      title={give ? 'Give measured readings back' : 'Take readings back'}
      send={give ? 'Give back' : 'Take back'}
      sending="Keeping…"
      pending={pending}
      disabled={!span.from || !span.to}
      trouble={otherError(error, (p) => p === 'from' || p === 'to')}
      onSend={() => {
        if (span.from && span.to) onKeep({ from: span.from, to: span.to });
      }}
      onClose={onClose}
    >
      <Typography>
        {give
          ? 'What the hygrometer measured between these times counts again.'
          : 'What was measured, typed or brought between these times counts no longer: the plan is worked out without it. What was measured can be given back, the rest comes back with undo.'}
      </Typography>
      {field('from', 'From', from, setFrom)}
      {field('to', 'Until', to, setTo)}
    </FormDialog>
  );
}
