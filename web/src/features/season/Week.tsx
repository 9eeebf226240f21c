import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { calendarUrl } from '../../api/edits';
import { weekQuery } from '../../api/queries';
import { useCurrentStudio } from '../../components/currentStudio';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { dateStyle, useDates } from '../../components/useDates';
import { clock, dueDay, fromField, isoDay, longDay } from '../../format/time';
import { useTitle } from '../../components/useTitle';

const DAY = 86_400_000;

/** Seven days on a sheet: what to do, what to mix, boxes to tick. Printed without the rest. */
export function Week() {
  const { id } = useCurrentStudio();
  const [from, setFrom] = useState<string>();
  useTitle('Week sheet');
  const week = useQuery(weekQuery(id, from));
  const { dateOf } = useDates(id, week.data?.dates);
  if (week.error && !week.data) {
    return <Trouble error={week.error} retry={() => void week.refetch()} />;
  }
  if (!week.data) return <Loading what="Writing the sheet" />;
  const { days, dates, time_zone: zone, studio } = week.data;
  const now = Date.parse(week.data.now);
  const noon = (day: string) => Date.parse(fromField(`${day}T12:00`, zone) ?? `${day}T12:00:00Z`);
  const first = days[0]?.day ?? '';
  const last = days.at(-1)?.day ?? '';
  const move = (by: number) => setFrom(isoDay(noon(first) + by * DAY, zone));
  return (
    <Box className="sheet">
      <Box
        className="no-print"
        sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 2, alignItems: 'center' }}
      >
        <Button variant="text" component={Link} to="/season">
          Back to the season
        </Button>
        <Button variant="text" onClick={() => move(-7)}>
          Week before
        </Button>
        <Button variant="text" onClick={() => move(7)}>
          Week after
        </Button>
        <Box sx={{ flex: 1 }} />
        <Button variant="outlined" href={calendarUrl(id)}>
          Calendar
        </Button>
        <Button variant="contained" onClick={() => window.print()}>
          Print it
        </Button>
      </Box>
      <Typography variant="h1">
        {dueDay(first, now)} to {dueDay(last, now)}
      </Typography>
      <Typography color="text.secondary" sx={{ mb: 2 }}>
        {studio}
      </Typography>
      {dates.length > 0 && (
        <Box component="section" aria-label="Dates" sx={{ mb: 2 }}>
          {dates.map((picture) => (
            <Typography key={picture.id} sx={dateStyle(dateOf(picture).standing)}>
              <b>{picture.title}</b>: {dateOf(picture).said}
            </Typography>
          ))}
        </Box>
      )}
      {days.map((day) => (
        <Box
          component="section"
          key={day.day}
          aria-label={longDay(noon(day.day), zone)}
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr', sm: '190px 1fr' },
            gap: { xs: 0.5, sm: 2 },
            borderTop: 1,
            py: 1.25,
            breakInside: 'avoid',
          }}
        >
          <Box>
            <Typography sx={{ fontWeight: 700 }}>{longDay(noon(day.day), zone)}</Typography>
            <Typography color="text.secondary" sx={{ fontSize: 16 }}>
              {day.sessions.length === 0
                ? 'no hours'
                : day.sessions
                    .map(
                      (s) =>
                        `${clock(Date.parse(s.from), zone)} to ${clock(Date.parse(s.to), zone)}`,
                    )
                    .join(', ')}
            </Typography>
          </Box>
          <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
            {day.work.length === 0 && (
              <Typography component="li" color="text.secondary">
                Nothing planned.
              </Typography>
            )}
            {day.work.map((work) => (
              <Box
                component="li"
                key={`${work.picture} ${work.from}`}
                sx={{ display: 'flex', gap: 1.5, mb: 1 }}
              >
                <Box
                  aria-hidden
                  sx={{ width: 18, height: 18, border: 2, flexShrink: 0, mt: '4px' }}
                />
                <Box>
                  <Typography>
                    <b>
                      {clock(Date.parse(work.from), zone)} to {clock(Date.parse(work.to), zone)}
                    </b>{' '}
                    {work.title}
                    {work.of > 1 && ` (${work.sitting} of ${work.of})`}, {work.picture_title}
                  </Typography>
                  {work.cup && <Typography>{work.cup}</Typography>}
                  {work.because && (
                    <Typography color="text.secondary" sx={{ fontSize: 16 }}>
                      {work.because}.
                    </Typography>
                  )}
                  {work.beside.map((line) => (
                    <Typography key={line}>{line}</Typography>
                  ))}
                  {work.care.map((care) => (
                    <Typography key={care} color="error" sx={{ fontSize: 16 }}>
                      {care}
                    </Typography>
                  ))}
                </Box>
              </Box>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
