import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { Chip } from '../../components/Chip';
import { Glimpse } from '../../components/Glimpse';
import { Loading } from '../../components/Loading';
import { Recipe } from '../../components/Recipe';
import { LogWork } from '../../components/LogWork';
import { Trouble } from '../../components/Trouble';
import { dateStyle } from '../../components/useDates';
import { useKeys } from '../../components/useKeys';
import { Legend } from '../../figures/Legend';
import { clock, moment, span } from '../../format/time';
import { allows, start } from '../../format/words';
import { Cautions } from './Cautions';
import { Shortages } from '../../components/Shortages';
import { TouchBar, TouchMoves } from '../touch/TouchBar';
import { useTouching } from '../touch/useTouching';
import { HappenBar } from '../log/HappenBar';
import { HappenMoves } from '../log/HappenMoves';
import { useHappening } from '../log/useHappening';
import { SessionBegin } from '../timers/SessionBegin';
import { NowList } from './NowList';
import { Prepare } from './Prepare';
import { useNowView, type Work } from './useNowView';

const pictureLink = { color: 'text.primary', fontWeight: 700, textUnderlineOffset: 4 } as const;

/** When a coat sets and is dry to the touch, as far as that is known. */
function driesSaid(states: Schemas['StatesOut'], zone: string): string | undefined {
  const said = [
    states.setting_at && `it sets at ${clock(Date.parse(states.setting_at), zone)}`,
    states.touch_dry_at && `dry to the touch by ${clock(Date.parse(states.touch_dry_at), zone)}`,
  ].filter((part): part is string => !!part);
  return said.length > 0 ? `Laid then, ${said.join(', ')}.` : undefined;
}

/** The opening view: what to do with the hours left, and what not to touch. */
export function Now() {
  const view = useNowView();
  const [logging, setLogging] = useState<Work>();
  const touching = useTouching();
  const happening = useHappening();
  const { now, zone, next } = view;
  useKeys([{ key: 'l', does: 'Log the next step', run: () => next && setLogging(next) }]);
  if (view.outlook.error && !view.data) {
    return <Trouble error={view.outlook.error} retry={() => void view.outlook.refetch()} />;
  }
  if (!view.data) return <Loading what="Looking at what dries" />;
  const open = view.session && view.session.from <= now;
  const hours = view.session
    ? open
      ? `Hours until ${clock(view.session.to, zone)}, ${span((view.session.to - now) / 60_000)} left.`
      : `Next hours ${moment(view.session.from, now, zone)} to ${clock(view.session.to, zone)}.`
    : 'No hours are set in the coming week.';
  const coatOf = (work: Work) => work.picture.coats.find((c) => c.step === work.step.step);
  const dries = next && coatOf(next)?.states;
  const drying = dries && driesSaid(dries, zone);
  const startable = next && next.from <= now + 60_000;
  return (
    <Box>
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center' }}>
        <Typography color="text.secondary">{hours}</Typography>
        <SessionBegin left={open && view.session ? view.session.to - now : 0} />
      </Box>
      {next ? (
        <Box component="section" aria-label="Next" sx={{ mt: 1, mb: 4 }}>
          <Typography variant="h1" sx={{ fontSize: { xs: 28, md: 38 } }}>
            {startable ? 'Now' : `From ${moment(next.from, now, zone)}`}: {next.step.title}
          </Typography>
          <Typography
            variant="h2"
            sx={{ display: 'flex', alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}
          >
            <Glimpse photograph={next.picture.photograph} size={72} />
            {coatOf(next)?.swatch && <Chip colour={coatOf(next)?.swatch} size={26} />}
            <Box component={Link} to={`/pictures/${next.picture.id}`} sx={pictureLink}>
              {next.picture.title}
            </Box>
            <span>{span((next.to - next.from) / 60_000)} hands-on</span>
          </Typography>
          <Recipe parts={next.step.recipe} tub={next.step.tub} />
          {drying && <Typography sx={{ mt: 0.5 }}>{drying}</Typography>}
          {next.step.waits_for && (
            <Typography sx={{ mt: 0.5 }}>
              {Date.parse(next.step.waits_for.until) > now
                ? `${next.step.waits_for.because}, ${moment(Date.parse(next.step.waits_for.until), now, zone)}.`
                : next.step.waits_for.of === null
                  ? 'Nothing is waited for.'
                  : `${start(next.step.waits_for.of)} below it is ready for it.`}
            </Typography>
          )}
          <Box sx={{ display: 'flex', gap: 1.5, mt: 2, flexWrap: 'wrap' }}>
            <Button variant="contained" onClick={() => setLogging(next)}>
              {coatOf(next) ? 'Coat laid' : 'Done'}{' '}
              <Box component="span" sx={{ opacity: 0.7, ml: 1 }}>
                L
              </Box>
            </Button>
            {coatOf(next) && (
              <Button component={Link} to={`/pictures/${next.picture.id}/cup/${next.step.step}`}>
                Open the cup
              </Button>
            )}
            <Button component={Link} to={`/pictures/${next.picture.id}`}>
              Look at the picture
            </Button>
            {coatOf(next)?.seals && (
              <Button component={Link} to={`/pictures/${next.picture.id}/bench`}>
                Bench sheet
              </Button>
            )}
          </Box>
        </Box>
      ) : (
        <Typography variant="h1" sx={{ my: 3 }}>
          Nothing is planned. Make a picture, or set the studio’s hours.
        </Typography>
      )}
      {view.danger.length > 0 && (
        <Box component="section" aria-label="Dates in danger" sx={{ mb: 4 }}>
          <Typography variant="h3">Dates in danger</Typography>
          {view.danger.map(({ picture, date }) => (
            <Typography key={picture.id} sx={{ ...dateStyle(date.standing), mt: 0.5 }}>
              <Box
                component={Link}
                to={`/pictures/${picture.id}`}
                sx={{ ...pictureLink, color: 'inherit' }}
              >
                {picture.title}
              </Box>
              : {date.said}
            </Typography>
          ))}
        </Box>
      )}
      <Cautions
        pictures={view.data.pictures}
        next={next && { picture: next.picture.id, step: next.step.step }}
      />
      <TouchMoves touching={touching} />
      <HappenMoves happening={happening} />
      <Prepare prepare={view.data.prepare} now={now} zone={zone} />
      <Shortages shortages={view.data.shortages} now={now} zone={zone} />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', md: '1fr 1fr 1fr' },
          gap: { xs: 3, md: 5 },
        }}
      >
        <NowList
          title="Leave alone"
          empty="Everything may be touched."
          items={view.untouchable.map((u) => ({
            id: u.picture.id,
            lead: u.until ? `until ${moment(u.until, now, zone)}` : 'for long',
            title: u.picture.title,
            text: `${u.coat.title} is ${allows(u.state, u.coat.seals)}`,
            swatch: u.coat.swatch,
            state: u.state,
            photograph: u.picture.photograph,
            act: (
              <>
                <TouchBar touching={touching} picture={u.picture} coat={u.coat} />
                <HappenBar happening={happening} picture={u.picture} coat={u.coat} />
              </>
            ),
          }))}
        />
        <NowList
          title="Gets ready"
          empty="Nothing changes before the next hours end."
          items={view.ready.map((r) => ({
            id: r.picture.id,
            lead: moment(r.at, now, zone),
            title: r.picture.title,
            photograph: r.picture.photograph,
            text: start(r.what),
          }))}
        />
        <NowList
          title="Then"
          empty="Nothing more fits into these hours."
          items={view.later.map((w) => ({
            id: w.picture.id,
            lead: clock(w.from, zone),
            title: w.picture.title,
            photograph: w.picture.photograph,
            text: `${start(w.step.title)}, ${span((w.to - w.from) / 60_000)}`,
            recipe: <Recipe parts={w.step.recipe} tub={w.step.tub} short />,
          }))}
        />
      </Box>
      <Box sx={{ mt: 5 }}>
        <Legend />
      </Box>
      {logging && (
        <LogWork
          picture={{ id: logging.picture.id, version: logging.picture.version }}
          step={logging.step.step}
          title={`${logging.picture.title}, ${logging.step.title}`}
          planned={coatOf(logging)?.wet_um}
          cupG={logging.step.cup_g}
          zone={zone}
          now={now}
          onClose={() => setLogging(undefined)}
        />
      )}
    </Box>
  );
}
