import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import type { Theme } from '@mui/material/styles';
import { visuallyHidden } from '@mui/utils';
import { MoveButtons, SpanButtons } from '../../components/TimeButtons';
import { useKeys } from '../../components/useKeys';
import { useWidth } from '../../components/useWidth';
import { Rail } from '../../figures/Rail';
import { clock, longDay, shortDay } from '../../format/time';
import { plain } from '../../format/words';
import { RailTouch } from './RailTouch';
import { SPANS, useRail } from './useRail';

const small = { minHeight: 44, minWidth: 44, px: 1.25, py: 0, fontSize: 15 } as const;

/** The drying rail with the clock and the room: on every view. */
export function RailBar({ studio }: { studio: string }) {
  const rail = useRail(studio);
  const [ref, width] = useWidth();
  const narrow = useMediaQuery<Theme>((theme) => theme.breakpoints.down('md'));
  const wider = () => {
    const at = SPANS.findIndex((s) => s.value === rail.span);
    rail.setSpan(SPANS[(at + 1) % SPANS.length]?.value ?? '24');
  };
  useKeys([
    { key: ',', does: 'Rail: earlier', run: rail.earlier },
    { key: '.', does: 'Rail: later', run: rail.later },
    {
      key: 'z',
      does: 'Rail: day, 3 days, week',
      run: wider,
    },
  ]);
  const coming = rail.marks.filter((m) => m.at > rail.now && m.at < rail.to);
  return (
    <Box
      component="section"
      aria-label="Drying rail"
      sx={{
        display: 'flex',
        flexDirection: { xs: 'column', md: 'row' },
        gap: { xs: 0.5, md: 3 },
        px: { xs: 2, md: 3 },
        pt: { xs: 0.5, md: 1.5 },
        pb: 0.5,
        borderBottom: 1,
      }}
    >
      <Box
        sx={{ display: { xs: 'flex', md: 'block' }, alignItems: 'center', gap: 1.5, minWidth: 168 }}
      >
        <Typography
          component="p"
          sx={{ fontSize: { xs: 30, md: 40 }, fontWeight: 700, lineHeight: 1.05 }}
        >
          {rail.data ? clock(rail.now, rail.zone) : '–:–'}
        </Typography>
        <Typography color="text.secondary" sx={{ fontSize: 16, lineHeight: 1.3 }}>
          {rail.data && (narrow ? shortDay : longDay)(rail.now, rail.zone)}
          <br />
          {rail.air &&
            `${plain(rail.air.temperature_c)} °C · ${plain(rail.air.relative_humidity * 100, 0)} %`}
        </Typography>
        <Box
          role="group"
          aria-label="Time shown on the rail"
          sx={{ display: { xs: 'flex', md: 'none' }, ml: 'auto' }}
        >
          <Button variant="text" aria-label="Earlier" onClick={rail.earlier} sx={small}>
            ‹
          </Button>
          {rail.shifted ? (
            <Button variant="text" onClick={rail.toNow} sx={small}>
              Now
            </Button>
          ) : (
            <Button variant="text" onClick={wider} sx={small}>
              {SPANS.find((s) => s.value === rail.span)?.word}
            </Button>
          )}
          <Button variant="text" aria-label="Later" onClick={rail.later} sx={small}>
            ›
          </Button>
        </Box>
      </Box>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <div ref={ref}>
          {rail.data && width > 0 && (
            <Rail
              from={rail.from}
              to={rail.to}
              now={rail.now}
              zone={rail.zone}
              sessions={rail.data.sessions}
              air={rail.data.air}
              marks={rail.marks}
              width={width}
            />
          )}
          {!rail.data && (
            <Typography
              role={rail.error ? 'alert' : 'status'}
              sx={{ height: 92, pt: 3 }}
              color="text.secondary"
            >
              {rail.error ? rail.error.message : 'Reading the studio…'}
            </Typography>
          )}
        </div>
        {rail.chosen && (
          <RailTouch
            key={rail.chosen.picture.id + rail.chosen.coat.step}
            picture={rail.chosen.picture}
            coat={rail.chosen.coat}
            zone={rail.zone}
            now={rail.now}
            onOpen={() => rail.chosen && rail.go(rail.chosen.picture.id)}
            onClose={rail.leave}
          />
        )}
        <ul style={visuallyHidden}>
          {coming.map((m) => (
            <li key={m.id}>{m.full}</li>
          ))}
        </ul>
      </Box>
      <Box
        role="group"
        aria-label="Time shown on the rail"
        sx={{
          display: { xs: 'none', md: 'grid' },
          gridTemplateColumns: 'repeat(3, auto)',
          alignContent: 'center',
          justifyContent: 'start',
          gap: 0.25,
        }}
      >
        <SpanButtons spans={SPANS} span={rail.span} onSpan={rail.setSpan} sx={small} />
        <MoveButtons {...rail} sx={small} />
      </Box>
    </Box>
  );
}
