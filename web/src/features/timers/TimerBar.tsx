import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { clockAhead } from '../../api/clock';
import { useDaybook } from '../../api/edits';
import { askToRing, mayAsk } from './ring';
import {
  againTimer,
  endSession,
  endTimer,
  leftSaid,
  pauseTimer,
  resumeTimer,
  worked,
  type Timer,
} from './timers';
import { useDue, type Due } from './useDue';

const small = { minHeight: 44, px: 1, py: 0 } as const;

/** What runs out, large enough to be read from the easel. */
export function TimerBar({ studio }: { studio: string }) {
  const due = useDue(studio);
  const [asked, setAsked] = useState(false);
  const daybook = useDaybook();
  const enter = {
    misted: (timer: Timer) => {
      againTimer(timer.id);
      daybook.mutate({ id: studio, said: 'Palette misted', what: { kind: 'misted' } });
    },
    session: (timer: Timer) => {
      const was = worked(timer);
      endSession();
      if (!was) return;
      const at = (local: number) => new Date(local + (clockAhead() ?? 0)).toISOString();
      const what = { kind: 'session' as const, until: at(was.to) };
      daybook.mutate({ id: studio, said: 'Session', at: at(was.from), what });
    },
  };
  if (due.length === 0 && !daybook.error) return null;
  return (
    <Box
      component="section"
      aria-label="Timers"
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        columnGap: 4,
        rowGap: 1,
        px: { xs: 2, md: 3 },
        py: 1,
        borderBottom: 1,
        borderColor: 'divider',
        alignItems: 'center',
      }}
    >
      {due.map((one) => (
        <One key={one.id} due={one} enter={enter} />
      ))}
      {daybook.error && (
        <Typography role="alert" color="error">
          It is not in the log: {daybook.error.message}
        </Typography>
      )}
      {due.some((one) => one.timer) && !asked && mayAsk() && (
        <Button
          variant="text"
          sx={small}
          onClick={() => void askToRing().finally(() => setAsked(true))}
        >
          Ring outside this page too
        </Button>
      )}
    </Box>
  );
}

interface Enter {
  misted: (timer: Timer) => void;
  session: (timer: Timer) => void;
}

function One({ due, enter }: { due: Due; enter: Enter }) {
  const { what, left, timer } = due;
  const over = left <= 0;
  return (
    <Box role="group" aria-label={what}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5 }}>
        <Typography
          role={over ? 'alert' : 'timer'}
          sx={{ fontSize: 34, fontWeight: 700, lineHeight: 1.1 }}
        >
          {over ? 'now' : leftSaid(left)}
        </Typography>
        {timer && (
          <Box sx={{ display: 'flex' }}>
            {timer.kind === 'misting' && (
              <Button variant="text" sx={small} onClick={() => enter.misted(timer)}>
                Misted
              </Button>
            )}
            {timer.left === undefined ? (
              !over && (
                <Button variant="text" sx={small} onClick={() => pauseTimer(timer.id)}>
                  Pause
                </Button>
              )
            ) : (
              <Button variant="text" sx={small} onClick={() => resumeTimer(timer.id)}>
                Go on
              </Button>
            )}
            <Button
              variant="text"
              sx={small}
              onClick={() => (timer.kind === 'session' ? enter.session(timer) : endTimer(timer.id))}
            >
              End
            </Button>
          </Box>
        )}
      </Box>
      <Typography color="text.secondary">
        {what}
        {timer?.left === undefined ? '' : ', paused'}
      </Typography>
    </Box>
  );
}
