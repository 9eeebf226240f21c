import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../../api/client';
import { calendarUrl, documentUrl, useDemoStudio, useTakeStudioAway } from '../../api/edits';
import { studiosQuery } from '../../api/queries';
import { useCurrentStudio } from '../../components/currentStudio';
import { exact } from '../../format/time';
import { BringStudio } from './BringStudio';
import { TakenAway } from './TakenAway';

interface Props {
  studio: Schemas['StudioOut'];
  onNew: () => void;
}

/** What goes out and comes in: calendar, studio document, other studios. */
export function StudioExchange({ studio, onNew }: Props) {
  const { id, choose } = useCurrentStudio();
  const studios = useQuery(studiosQuery);
  const demo = useDemoStudio();
  const away = useTakeStudioAway();
  const address = new URL(calendarUrl(id), window.location.href).href;
  const opened = (made: Schemas['StudioOut']) => choose(made.id);
  const row = { display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'center' } as const;
  return (
    <>
      <Box component="section" aria-label="Calendar" sx={{ mt: 6 }}>
        <Typography variant="h3" sx={{ mb: 1 }}>
          Calendar
        </Typography>
        <Typography sx={{ mb: 1.5 }}>
          One event for each sitting, with an alarm when the film gets paintable or ready to seal. A
          calendar that subscribes to this address follows the plan.
        </Typography>
        <Box sx={row}>
          <TextField
            label="Address to subscribe to"
            value={address}
            slotProps={{
              htmlInput: {
                readOnly: true,
                onFocus: (e: React.FocusEvent<HTMLInputElement>) => e.target.select(),
              },
            }}
            sx={{ flex: 1, minWidth: 260 }}
          />
          <Button component="a" href={calendarUrl(id)} download="ulvek.ics">
            Download the calendar
          </Button>
        </Box>
      </Box>
      <Box component="section" aria-label="Studio document" sx={{ mt: 5 }}>
        <Typography variant="h3" sx={{ mb: 1 }}>
          Studio document
        </Typography>
        <Typography sx={{ mb: 1.5 }}>
          The whole studio in one open file. A file that is read in becomes a studio of its own;
          nothing is overwritten.
        </Typography>
        <Box sx={row}>
          <Button component="a" href={documentUrl(id)} download="studio.ulvek.json">
            Export this studio
          </Button>
          <BringStudio onMade={choose} />
        </Box>
      </Box>
      <Box component="section" aria-label="Studios" sx={{ mt: 5 }}>
        <Typography variant="h3" sx={{ mb: 1.5 }}>
          Studios
        </Typography>
        <Box sx={row}>
          <TextField
            select
            label="Open studio"
            value={id}
            onChange={(e) => choose(e.target.value)}
            sx={{ minWidth: 300 }}
          >
            {(studios.data ?? [{ id, name: studio.studio.name, created_at: '' }]).map((s) => (
              <MenuItem key={s.id} value={s.id}>
                {s.name}
                {s.created_at &&
                  `, since ${exact(Date.parse(s.created_at), studio.studio.time_zone)}`}
              </MenuItem>
            ))}
          </TextField>
          <Button onClick={onNew}>New studio</Button>
          <Button
            disabled={demo.isPending}
            onClick={() => demo.mutate(undefined, { onSuccess: opened })}
          >
            A fresh demo studio
          </Button>
          <Button
            disabled={away.isPending}
            onClick={() => away.mutate({ id, version: studio.version })}
          >
            Take this studio away
          </Button>
        </Box>
        {demo.error && (
          <Typography role="alert" color="error" sx={{ mt: 1 }}>
            {demo.error.message}
          </Typography>
        )}
        {away.error && (
          <Typography role="alert" color="error" sx={{ mt: 1 }}>
            {away.error.message}
          </Typography>
        )}
        <TakenAway onBack={choose} zone={studio.studio.time_zone} />
      </Box>
    </>
  );
}
