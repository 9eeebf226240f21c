import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { useLogLaid } from '../../api/edits';
import { outlookQuery } from '../../api/queries';
import { fieldError, otherError } from '../../components/fieldError';
import { exact, span } from '../../format/time';
import { start } from '../../format/words';
import { useSealing } from './Sealing';
import { Troubles } from './Troubles';
import { minutesSeconds, useBench, useSeconds } from './useBench';

/** The bench sheet: what to do before, during and after the next sealing coat, with its timer. */
export function BenchView() {
  const { gate, zone } = useSealing();
  const { sheet, brief, step } = gate;
  return (
    <Box>
      {gate.sealed.length > 0 && (
        <Box component="section" aria-label="Coats that are on" sx={{ mb: 3 }}>
          {gate.sealed.map((coat) => (
            <Typography key={coat.step}>
              <b>{coat.title}</b> is on since {exact(Date.parse(coat.at), zone)}.
            </Typography>
          ))}
          <OnYet />
          <Troubles />
        </Box>
      )}
      {!sheet || !step ? (
        <Typography>
          {brief.stage === 'unplanned' || gate.no_varnish ? (
            <>
              {gate.no_varnish ? `${start(gate.no_varnish)}. ` : 'No sealing coat is planned. '}
              <Link to="../varnish" style={{ color: 'inherit' }}>
                Choose a varnish
              </Link>
              .
            </>
          ) : (
            'Every sealing coat is on.'
          )}
        </Typography>
      ) : (
        <Sheet key={step} sheet={sheet} step={step} />
      )}
    </Box>
  );
}

/** The last coat while it must not be touched: the timer goes on until it is dry to the touch. */
function OnYet() {
  const { id, gate, picture: stored } = useSealing();
  const outlook = useQuery(outlookQuery(stored.studio));
  const picture = outlook.data?.pictures.find((p) => p.id === id);
  const last = gate.sealed.at(-1)?.step;
  const coat = picture?.coats.find((c) => c.step === last && !c.planned);
  const { setting_at: sets, touch_dry_at: dry } = coat?.if_left ?? {};
  const now = useSeconds(typeof dry === 'string');
  if (!coat || typeof sets !== 'string' || typeof dry !== 'string') return null;
  const [toSet, toDry] = [sets, dry].map((at) => (Date.parse(at) - now) / 1000) as [number, number];
  if (toDry <= 0) return null;
  return (
    <Box component="section" aria-label="Timer" sx={{ border: 2, p: 2, my: 2 }}>
      <Typography sx={{ fontSize: 20, fontWeight: 700 }}>{start(coat.title)}</Typography>
      <Typography sx={{ fontSize: 40, fontWeight: 700, lineHeight: 1.2 }} role="timer">
        {toSet > 0
          ? `${minutesSeconds(toSet)} left to touch it`
          : `Leave it: dry to the touch in ${minutesSeconds(toDry)}`}
      </Typography>
      {toSet <= 0 && (
        <Typography>
          Going over it now turns it white. The next coat catches what was missed.
        </Typography>
      )}
    </Box>
  );
}

function Sheet({ sheet, step }: { sheet: Schemas['SheetOut']; step: string }) {
  const { id, gate } = useSealing();
  const { seconds, begin, drop } = useBench(`${id}.${step}`);
  const [why, setWhy] = useState('');
  const log = useLogLaid();
  const { brief } = gate;
  const open = brief.stage === 'open';
  const stop = (sheet.stop_after_min ?? 0) * 60;
  const left = seconds === undefined ? undefined : stop - seconds;
  const over = left !== undefined && left <= 0;
  const refused = fieldError(log.error, 'anyway');
  const other = otherError(log.error, (p) => p === 'anyway');
  const laid = () =>
    log.mutate(
      {
        id,
        version: gate.version,
        said: `${brief.coat} is on`,
        step,
        ...(why.trim() ? { anyway: why.trim() } : {}),
      },
      { onSuccess: drop },
    );
  return (
    <>
      <Box
        component="section"
        aria-label="Timer"
        sx={{
          border: 2,
          p: 2,
          mb: 3,
          bgcolor: over ? 'text.primary' : 'background.paper',
          color: over ? 'background.default' : 'text.primary',
        }}
      >
        <Typography sx={{ fontSize: 20, fontWeight: 700 }}>{brief.coat}</Typography>
        {left === undefined ? (
          <Typography sx={{ fontSize: 20 }}>
            Begin with the first stroke. You have <b>{span(sheet.stop_after_min ?? 0)}</b> before it
            sets; touch-dry after {span(sheet.touch_dry_min ?? 0)}.
          </Typography>
        ) : (
          <Typography sx={{ fontSize: 40, fontWeight: 700, lineHeight: 1.2 }} role="timer">
            {over
              ? `Stop touching. It sets since ${minutesSeconds(-left)}.`
              : `${minutesSeconds(left)} left to touch it`}
          </Typography>
        )}
        {over && (
          <Typography>
            Going over it now turns it white. The next coat catches what was missed.
          </Typography>
        )}
      </Box>
      {!open && (
        <Box sx={{ border: 2, p: 2, mb: 2 }} role="note">
          <Typography sx={{ fontWeight: 700 }}>The gate is closed.</Typography>
          <Typography>
            {brief.against.map((c) => `${start(c.lacks)}.`).join(' ')}{' '}
            <Link to="../gate" style={{ color: 'inherit' }}>
              See the gate
            </Link>
            .
          </Typography>
          <TextField
            label="Why you seal it anyway"
            value={why}
            onChange={(e) => setWhy(e.target.value)}
            error={!!refused}
            helperText={
              refused ? `${start(refused)}.` : 'Only with a reason; it stays in the record.'
            }
            fullWidth
            sx={{ mt: 1.5 }}
          />
        </Box>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, mb: 1 }}>
        {seconds === undefined ? (
          <Button variant="contained" onClick={begin}>
            First stroke: start the timer
          </Button>
        ) : (
          <Button onClick={drop}>Stop the timer</Button>
        )}
        <Button
          variant={seconds === undefined ? 'outlined' : 'contained'}
          disabled={log.isPending || (!open && why.trim() === '')}
          onClick={laid}
        >
          {log.isPending ? 'Logging…' : open ? 'The coat is on' : 'Seal anyway: the coat is on'}
        </Button>
      </Box>
      {other && (
        <Typography role="alert" color="error">
          {other}
        </Typography>
      )}
      <Box
        sx={{ display: 'grid', columnGap: 5, gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' } }}
      >
        <Lines title="Before" lines={sheet.preparation} />
        <Lines title="Laying it" lines={sheet.application} />
      </Box>
      <Box component="section" aria-label="Then look" sx={{ mt: 3 }}>
        <Typography variant="h3">Then look, in raking light</Typography>
        {sheet.inspection.map((t) => (
          <Typography key={t.trouble} sx={{ py: 0.5 }}>
            <b>{start(t.looks_like)}.</b> {t.while_wet}
          </Typography>
        ))}
      </Box>
    </>
  );
}

function Lines({ title, lines }: { title: string; lines: Schemas['SheetLineOut'][] }) {
  const [done, setDone] = useState<string[]>([]);
  const turn = (line: string) =>
    setDone(done.includes(line) ? done.filter((d) => d !== line) : [...done, line]);
  return (
    <Box component="section" aria-label={title} sx={{ mt: 3 }}>
      <Typography variant="h3">{title}</Typography>
      {lines.map((line) => (
        <Box key={line.what} component="label" sx={{ display: 'flex', alignItems: 'flex-start' }}>
          <Checkbox
            checked={done.includes(line.what)}
            onChange={() => turn(line.what)}
            sx={{ p: 1.25, ml: -1.25 }}
          />
          <Typography
            sx={{
              py: 1,
              ...(line.care ? { color: 'error.main', fontWeight: 600 } : {}),
              ...(done.includes(line.what) ? { opacity: 0.7 } : {}),
            }}
          >
            {line.what}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
