import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { takeStepOut } from '../../components/stepEdits';
import { exact, fromField, isoDay, span, toField } from '../../format/time';
import { withStep } from './draft';
import type { SeasonState } from './useSeason';

interface Props {
  view: SeasonState;
  picture: Schemas['SeasonPicture'];
  step?: string;
  onStep: (step?: string) => void;
}

/** A picture's sittings; the chosen one can be pinned, skipped, or its day barred. */
export function Sittings({ view, picture, step, onStep }: Props) {
  const { zone } = view;
  return (
    <Box component="section" aria-label="Sittings">
      <Typography variant="h3">Sittings</Typography>
      {picture.work.length === 0 && (
        <Typography sx={{ mt: 1 }}>{picture.done ? 'Every step is done.' : 'None.'}</Typography>
      )}
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {picture.work.map((work) => {
          const from = Date.parse(work.from);
          const on = step === work.step;
          return (
            <Box
              component="li"
              key={`${work.step} ${work.sitting}`}
              sx={{ borderBottom: 1, borderColor: 'divider' }}
            >
              <Button
                variant="text"
                fullWidth
                aria-expanded={on}
                onClick={() => onStep(on ? undefined : work.step)}
                sx={{ justifyContent: 'flex-start', textAlign: 'left', px: 0.5 }}
              >
                <span>
                  <b>{work.title}</b>
                  {work.of > 1 && ` ${work.sitting} of ${work.of}`}, {exact(from, zone)},{' '}
                  {span((Date.parse(work.to) - from) / 60_000)}
                  {work.pinned_at && ', pinned'}
                </span>
              </Button>
              {on && work.sitting === 1 && (
                <Chosen key={work.from} view={view} picture={picture} work={work} />
              )}
            </Box>
          );
        })}
        {picture.blocked.map((b) => (
          <Typography component="li" key={b.step} color="error" sx={{ py: 1 }}>
            <b>{b.title}</b> cannot be placed: {b.why}.
          </Typography>
        ))}
      </Box>
    </Box>
  );
}

interface ChosenProps {
  view: SeasonState;
  picture: Schemas['SeasonPicture'];
  work: Schemas['WorkOut'];
}

function Chosen({ view, picture, work }: ChosenProps) {
  const { zone } = view;
  const [when, setWhen] = useState(() => toField(Date.parse(work.from), zone));
  const at = fromField(when, zone);
  const day = isoDay(Date.parse(work.from), zone);
  const missed = work.pinned_at && Date.parse(work.pinned_at) !== Date.parse(work.from);
  return (
    <Box sx={{ pb: 1.5, px: 0.5, display: 'grid', gap: 1.25 }}>
      {work.waits_for && (
        <Typography color="text.secondary">
          {work.waits_for.because}, {exact(Date.parse(work.waits_for.until), zone)}.
        </Typography>
      )}
      {work.pin && (
        <Typography color="error">
          {work.pin}
          {missed &&
            work.pinned_at &&
            `; it is pinned to ${exact(Date.parse(work.pinned_at), zone)}`}
          .
        </Typography>
      )}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <TextField
          label="Begin at"
          type="datetime-local"
          size="small"
          value={when}
          onChange={(e) => setWhen(e.target.value)}
          error={!at}
          helperText={at ? undefined : 'Give a day and a time.'}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <Button
          variant="outlined"
          disabled={!at}
          onClick={() =>
            at &&
            view.tryPicture(
              `pin ${work.title} to ${exact(Date.parse(at), zone)}`,
              picture.id,
              withStep(work.step, (s) => ({ ...s, pinned_at: at })),
            )
          }
        >
          Pin it there
        </Button>
        {work.pinned_at && (
          <Button
            variant="outlined"
            onClick={() =>
              view.tryPicture(
                `unpin ${work.title}`,
                picture.id,
                withStep(work.step, (s) => ({ ...s, pinned_at: undefined })),
              )
            }
          >
            Unpin
          </Button>
        )}
        <Button
          variant="outlined"
          onClick={() => view.tryPicture(`skip ${work.title}`, picture.id, takeStepOut(work.step))}
        >
          Skip this step
        </Button>
        <Button
          variant="outlined"
          onClick={() =>
            view.trySettings(`no work on ${day}`, (studio) => ({
              ...studio,
              closed: [...(studio.closed ?? []), { from: day, to: day }],
            }))
          }
        >
          Not on that day
        </Button>
      </Box>
    </Box>
  );
}
