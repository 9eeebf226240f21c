import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { FormDialog } from '../../components/FormDialog';
import { isoDay } from '../../format/time';
import type { SeasonState } from './useSeason';

const DAY = 86_400_000;

/** What if I lose this week? Days without hours, tried first. */
export function LostDays({ view, onClose }: { view: SeasonState; onClose: () => void }) {
  const [from, setFrom] = useState(() => isoDay(view.now, view.zone));
  const [to, setTo] = useState(() => isoDay(view.now + 6 * DAY, view.zone));
  const wrong =
    !from || !to ? 'Give both days.' : to < from ? 'The last day is before the first.' : '';
  return (
    <FormDialog
      title="What if I lose days?"
      send="Try it"
      sending="Planning…"
      pending={false}
      disabled={wrong !== ''}
      width="xs"
      onSend={() => {
        view.trySettings(`lose ${from} to ${to}`, (studio) => ({
          ...studio,
          closed: [...(studio.closed ?? []), { from, to }],
        }));
        onClose();
      }}
      onClose={onClose}
    >
      <Typography>The plan without these days. Nothing is kept until you say so.</Typography>
      <Stack direction="row" spacing={2}>
        <TextField
          label="First day"
          type="date"
          value={from}
          onChange={(e) => setFrom(e.target.value)}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <TextField
          label="Last day"
          type="date"
          value={to}
          onChange={(e) => setTo(e.target.value)}
          error={wrong !== ''}
          helperText={wrong}
          slotProps={{ inputLabel: { shrink: true } }}
        />
      </Stack>
    </FormDialog>
  );
}
