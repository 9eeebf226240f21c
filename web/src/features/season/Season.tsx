import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useTheme } from '@mui/material/styles';
import { useState } from 'react';
import { Link } from 'react-router';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { useKeys } from '../../components/useKeys';
import { useWidth } from '../../components/useWidth';
import { Legend } from '../../figures/Legend';
import { Ribbon } from '../../figures/Ribbon';
import { ticks, ZOOMS } from '../../figures/seasonAxis';
import { exact } from '../../format/time';
import { DraftBar } from './DraftBar';
import { withStep } from './draft';
import { LostDays } from './LostDays';
import { PicturePanel } from './PicturePanel';
import { RowLabel } from './RowLabel';
import { SearchBox } from './SearchBox';
import { SeasonControls } from './SeasonControls';
import { useSeason } from './useSeason';
import { verdictOf } from './words';

/** Width of the column of names [px]. */
const NAMES = 250;

/** All pictures to their dates. */
export function Season() {
  const view = useSeason();
  const [ref, width] = useWidth();
  const { greys } = useTheme();
  const [open, setOpen] = useState<string>();
  const [step, setStep] = useState<string>();
  const [losing, setLosing] = useState(false);
  const at = ZOOMS.findIndex((z) => z.value === view.zoom);
  const zoomBy = (by: number) => {
    const next = ZOOMS[Math.min(Math.max(at + by, 0), ZOOMS.length - 1)];
    if (next) view.setZoom(next.value);
  };
  useKeys([
    { key: '+', does: 'Season: closer', run: () => zoomBy(-1) },
    { key: '-', does: 'Season: farther', run: () => zoomBy(1) },
    { key: 'ArrowLeft', does: 'Season: earlier', run: () => view.move(-0.25) },
    { key: 'ArrowRight', does: 'Season: later', run: () => view.move(0.25) },
    { key: 'l', does: 'What if I lose days?', run: () => setLosing(true) },
  ]);
  if (view.season.error && !view.season.data) {
    return <Trouble error={view.season.error} retry={() => void view.season.refetch()} />;
  }
  if (!view.season.data || !view.shown) return <Loading what="Planning the season" />;
  const { shown, zone, now } = view;
  const { from, to } = view.window;
  const most = Math.max(60, ...shown.pictures.flatMap((p) => p.film.map((f) => f.um)));
  const marks = ticks(from, to, width, zone);
  const chosen = shown.pictures.find((p) => p.id === open);
  const toggle = (id: string) => {
    setOpen((was) => (was === id ? undefined : id));
    setStep(undefined);
  };
  return (
    <Box>
      <Typography variant="h1">Season</Typography>
      <Typography variant="h2" component="p" sx={{ mt: 0.5, mb: 1.5 }} data-testid="season-verdict">
        {verdictOf(shown.pictures, view.dateOf)}
      </Typography>
      <SeasonControls view={view} onLose={() => setLosing(true)} />
      <DraftBar view={view} />
      {shown.pictures.length === 0 ? (
        <Typography sx={{ py: 4 }}>
          No pictures yet. <Link to="/pictures">Make one</Link>, give it a date, and it stands here.
        </Typography>
      ) : (
        <Box component="section" aria-label="Pictures to their dates">
          <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: `${NAMES}px 1fr` } }}>
            <Box sx={{ display: { xs: 'none', md: 'block' } }} />
            <Box ref={ref} sx={{ minWidth: 0 }}>
              <svg width={width} height={24} aria-hidden style={{ display: 'block' }}>
                {marks.map((m) => (
                  <g key={m.at}>
                    <line
                      x1={((m.at - from) / (to - from)) * width}
                      x2={((m.at - from) / (to - from)) * width}
                      y1={m.strong ? 2 : 16}
                      y2={24}
                      stroke={greys.line}
                    />
                    <text
                      x={((m.at - from) / (to - from)) * width + 4}
                      y={15}
                      fontSize={14}
                      fontWeight={m.strong ? 600 : 400}
                      fill={greys.soft}
                    >
                      {m.word}
                    </text>
                  </g>
                ))}
              </svg>
            </Box>
          </Box>
          {shown.pictures.map((picture) => {
            const odds = view.named
              ? undefined
              : view.odds.data?.pictures.find((o) => o.id === picture.id);
            return (
              <Box
                key={picture.id}
                sx={{
                  display: 'grid',
                  gridTemplateColumns: { xs: '1fr', md: `${NAMES}px 1fr` },
                  borderTop: 1,
                  borderColor: 'divider',
                }}
              >
                <RowLabel
                  picture={picture}
                  date={view.dateOf(picture)}
                  open={picture.id === open}
                  now={now}
                  onOpen={() => toggle(picture.id)}
                />
                <Box sx={{ minWidth: 0, overflow: 'hidden' }}>
                  {width > 0 && (
                    <Ribbon
                      picture={picture}
                      from={from}
                      to={to}
                      now={now}
                      zone={zone}
                      width={width}
                      sessions={shown.sessions}
                      most={most}
                      chain={picture.id === open}
                      odds={odds?.told ?? undefined}
                      chosen={picture.id === open ? step : undefined}
                      onChoose={(next) => {
                        setOpen(picture.id);
                        setStep(next);
                      }}
                      onMove={(moved, when) => {
                        if (view.keeping) return;
                        const title = picture.work.find((w) => w.step === moved)?.title ?? moved;
                        view.tryPicture(
                          `pin ${title} to ${exact(when, zone)}`,
                          picture.id,
                          withStep(moved, (s) => ({
                            ...s,
                            pinned_at: new Date(when).toISOString(),
                          })),
                        );
                      }}
                    />
                  )}
                </Box>
              </Box>
            );
          })}
          <Box sx={{ borderTop: 1, borderColor: 'divider', pt: 1 }}>
            <Legend />
            <Typography color="text.secondary" sx={{ mt: 1 }}>
              Dark notches are your work: drag one to try another time. Light ground is your hours.
              Below an open picture runs what holds it: a line while it dries or has to wait, dots
              while it waits for you.
            </Typography>
          </Box>
        </Box>
      )}
      {/* While a draft is being kept nothing else is begun: it would be made on an old version. */}
      <Box component="fieldset" disabled={view.keeping} sx={{ border: 0, p: 0, m: 0, minWidth: 0 }}>
        {chosen && (
          <PicturePanel
            key={chosen.id}
            view={view}
            picture={chosen}
            odds={view.named ? undefined : view.odds.data?.pictures.find((o) => o.id === chosen.id)}
            step={step}
            onStep={setStep}
            onClose={() => toggle(chosen.id)}
          />
        )}
        <SearchBox view={view} />
      </Box>
      {losing && <LostDays view={view} onClose={() => setLosing(false)} />}
    </Box>
  );
}
