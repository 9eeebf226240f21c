import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../../api/client';

const DAYS = [
  ['mon', 'Monday'],
  ['tue', 'Tuesday'],
  ['wed', 'Wednesday'],
  ['thu', 'Thursday'],
  ['fri', 'Friday'],
  ['sat', 'Saturday'],
  ['sun', 'Sunday'],
] as const;

const row = { display: 'flex', gap: 1, mb: 1, alignItems: 'flex-start', flexWrap: 'wrap' } as const;

interface HoursProps {
  hours: Schemas['HourDoc'][];
  error: (path: string) => string | undefined;
  onChange: (hours: Schemas['HourDoc'][]) => void;
}

/** Weekly hours. */
export function HoursEditor({ hours, error, onChange }: HoursProps) {
  const set = (i: number, part: Partial<Schemas['HourDoc']>) =>
    onChange(hours.map((h, k) => (k === i ? { ...h, ...part } : h)));
  const free = DAYS.find(([day]) => !hours.some((h) => h.day === day))?.[0] ?? 'sat';
  return (
    <Box role="group" aria-label="Hours">
      {hours.length === 0 && (
        <Typography sx={{ mb: 1 }}>No hours: nothing can be planned until you add some.</Typography>
      )}
      {hours.map((h, i) => {
        const wrong =
          error(`studio.hours[${i}]`) ??
          error(`studio.hours[${i}].from`) ??
          error(`studio.hours[${i}].to`);
        return (
          <Box key={i} sx={row}>
            <TextField
              select
              label="Day"
              value={h.day}
              onChange={(e) => set(i, { day: e.target.value })}
              sx={{ width: 150 }}
            >
              {DAYS.map(([day, word]) => (
                <MenuItem key={day} value={day}>
                  {word}
                </MenuItem>
              ))}
            </TextField>
            {(['from', 'to'] as const).map((end) => (
              <TextField
                key={end}
                label={end === 'from' ? 'From' : 'To'}
                type="time"
                value={h[end] === '24:00' ? '00:00' : h[end]}
                // Midnight at the end of hours is the end of the day.
                onChange={(e) =>
                  set(i, {
                    [end]: end === 'to' && e.target.value === '00:00' ? '24:00' : e.target.value,
                  })
                }
                error={!!wrong}
                helperText={end === 'to' ? wrong : undefined}
                slotProps={{ inputLabel: { shrink: true } }}
                sx={{ width: 140 }}
              />
            ))}
            <Button
              variant="text"
              aria-label={`Remove hours ${i + 1}`}
              onClick={() => onChange(hours.filter((_, k) => k !== i))}
            >
              Remove
            </Button>
          </Box>
        );
      })}
      <Button onClick={() => onChange([...hours, { day: free, from: '10:00', to: '16:00' }])}>
        Add hours
      </Button>
    </Box>
  );
}

interface ClosedProps {
  closed: Schemas['ClosedDoc'][];
  today: string;
  error: (path: string) => string | undefined;
  onChange: (closed: Schemas['ClosedDoc'][]) => void;
}

/** Days off. */
export function ClosedEditor({ closed, today, error, onChange }: ClosedProps) {
  const set = (i: number, part: Partial<Schemas['ClosedDoc']>) =>
    onChange(closed.map((c, k) => (k === i ? { ...c, ...part } : c)));
  return (
    <Box role="group" aria-label="Days off">
      {closed.map((c, i) => (
        <Box key={i} sx={row}>
          {(['from', 'to'] as const).map((end) => (
            <TextField
              key={end}
              label={end === 'from' ? 'First day off' : 'Last day off'}
              type="date"
              value={c[end]}
              onChange={(e) => set(i, { [end]: e.target.value })}
              error={!!error(`studio.closed[${i}]`)}
              helperText={end === 'to' ? error(`studio.closed[${i}]`) : undefined}
              slotProps={{ inputLabel: { shrink: true } }}
            />
          ))}
          <Button
            variant="text"
            aria-label={`Remove days off ${i + 1}`}
            onClick={() => onChange(closed.filter((_, k) => k !== i))}
          >
            Remove
          </Button>
        </Box>
      ))}
      <Button onClick={() => onChange([...closed, { from: today, to: today }])}>
        Add days off
      </Button>
    </Box>
  );
}
