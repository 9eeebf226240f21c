import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { useInspected } from '../../api/edits';
import { STANDING } from '../../format/gate';
import { exact, moment, span } from '../../format/time';
import { AirBox } from './AirBox';
import { Mark } from './Mark';
import { useSealing } from './Sealing';
import { marked } from '../../format/words';

/** Every condition with its evidence, the earliest hour, and what would bring it forward. */
export function GateView() {
  const { id, gate, zone, now } = useSealing();
  const { brief } = gate;
  const holds = gate.conditions.filter((c) => c.standing === 'holds').length;
  return (
    <Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, mb: 2 }}>
        <Acts id={id} gate={gate} />
      </Box>
      {gate.conditions.length > 0 && (
        <Typography variant="h3" sx={{ mb: 0.5 }}>
          {brief.coat}: {holds} of {gate.conditions.length} conditions hold
        </Typography>
      )}
      <Box component="ul" aria-label="Conditions" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {gate.conditions.map((c) => (
          <Row key={c.id} c={c} zone={zone} now={now} />
        ))}
      </Box>
      {gate.conditions.length === 0 && <After gate={gate} zone={zone} now={now} />}
      {brief.earliest && (
        <Typography sx={{ mt: 2, fontSize: 20 }}>
          <b>Earliest hour:</b> {exact(Date.parse(brief.earliest.from), zone)}, hands on until{' '}
          {exact(Date.parse(brief.earliest.to), zone).split(', ')[1]}.
          {gate.sheet?.stop_after_min != null &&
            ` Laid then, stop touching after ${span(gate.sheet.stop_after_min)}; touch-dry after ${span(gate.sheet.touch_dry_min ?? 0)}.`}
        </Typography>
      )}
      {brief.planned && brief.planned.from !== brief.earliest?.from && (
        <Typography sx={{ mt: 0.5 }}>
          <b>Planned:</b> {exact(Date.parse(brief.planned.from), zone)}. You are at other work
          before.
        </Typography>
      )}
      {gate.conditions.length > 0 && !brief.earliest && (
        <Typography sx={{ mt: 2, fontSize: 20 }}>
          <b>No hour</b> of the coming months does it: something above stands against it.
        </Typography>
      )}
      {gate.forward.length > 0 && (
        <Box component="section" aria-label="What would bring it forward" sx={{ mt: 4 }}>
          <Typography variant="h3">What would bring it forward</Typography>
          {gate.forward.map((f) => (
            <Box
              key={f.what}
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '1fr', sm: '150px 1fr' },
                columnGap: 2,
                py: 1,
                borderTop: 1,
                borderColor: 'divider',
              }}
            >
              <Typography sx={{ fontWeight: 700 }}>{span(f.gain_min)} earlier</Typography>
              <Typography>
                <b>{f.what}:</b> {moment(Date.parse(f.earliest), now, zone)}. Risk: {f.risk}
              </Typography>
            </Box>
          ))}
        </Box>
      )}
      {gate.anyway.length > 0 && (
        <Box component="section" aria-label="Sealed anyway" sx={{ mt: 4 }}>
          <Typography variant="h3">Sealed anyway</Typography>
          {gate.anyway.map((a) => (
            <Typography key={a.at}>
              {exact(Date.parse(a.at), zone)}: “{a.reason}”, although not: {a.against.join('; ')}.
            </Typography>
          ))}
        </Box>
      )}
      {gate.conditions.length > 0 && (
        <Box sx={{ mt: 4 }}>
          <AirBox />
        </Box>
      )}
    </Box>
  );
}

/** What holds for so short a time holds "now": it is looked at afresh [ms]. */
const JUST_MS = 90_000;

function Row({ c, zone, now }: { c: Schemas['ConditionOut']; zone: string; now: number }) {
  const at = c.from == null ? undefined : Date.parse(c.from);
  const since =
    at === undefined
      ? ''
      : c.standing === 'holds'
        ? at > now
          ? `then, ${moment(at, now, zone)}`
          : now - at < JUST_MS
            ? 'now'
            : `since ${exact(at, zone)}`
        : c.standing === 'yours'
          ? `planned ${moment(at, now, zone)}`
          : `from ${moment(at, now, zone)}`;
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '28px 1fr', md: '28px 340px 1fr 190px' },
        columnGap: 1.5,
        alignItems: 'baseline',
        py: 0.9,
        borderTop: 1,
        borderColor: 'divider',
      }}
    >
      <Mark standing={c.standing} />
      <Typography sx={{ fontWeight: 600 }}>
        {marked(c.asks)}{' '}
        <Box component="span" sx={{ fontWeight: 400, color: 'text.secondary' }}>
          ({STANDING[c.standing]})
        </Box>
      </Typography>
      <Typography sx={{ gridColumn: { xs: 2, md: 3 } }}>{marked(c.evidence)}</Typography>
      <Typography
        sx={{ gridColumn: { xs: 2, md: 4 }, fontWeight: c.standing === 'waits' ? 700 : 400 }}
      >
        {since}
      </Typography>
    </Box>
  );
}

/** What can be done from here. */
function Acts({ id, gate }: { id: string; gate: Schemas['GateOut'] }) {
  const inspected = useInspected(id);
  const lacks = (of: string) => gate.conditions.some((c) => c.id === of && c.standing === 'yours');
  const touchable = gate.conditions.length > 0;
  return (
    <>
      {touchable && (
        <Button
          variant={gate.brief.stage === 'open' ? 'contained' : 'outlined'}
          component={Link}
          to="../bench"
        >
          {gate.brief.stage === 'open' ? 'To the bench' : 'Bench sheet'}
        </Button>
      )}
      {lacks('surface') && !lacks('last_coat') && (
        <Button disabled={inspected.isPending} onClick={() => inspected.mutate(gate.version)}>
          Dusted and looked over
        </Button>
      )}
      {lacks('photograph') && (
        <Button component={Link} to="../photographs">
          Bring a photograph
        </Button>
      )}
      {gate.brief.stage === 'unplanned' && (
        <Button variant="contained" component={Link} to="../varnish">
          Choose a varnish
        </Button>
      )}
      {inspected.error && (
        <Typography role="alert" color="error" sx={{ width: '100%' }}>
          {inspected.error.message}
        </Typography>
      )}
    </>
  );
}

/** Behind the gate: curing, wrapping, packing. */
function After({ gate, zone, now }: { gate: Schemas['GateOut']; zone: string; now: number }) {
  if (gate.brief.stage === 'unplanned') return null;
  return (
    <Box>
      {gate.brief.wrap_from && (
        <Typography sx={{ fontSize: 20 }}>
          <b>Ready to wrap</b>{' '}
          {Date.parse(gate.brief.wrap_from) <= now
            ? `since ${exact(Date.parse(gate.brief.wrap_from), zone)}`
            : `from ${moment(Date.parse(gate.brief.wrap_from), now, zone)}`}
          , computed from the coats as laid.
        </Typography>
      )}
      <Typography variant="h3" sx={{ mt: 2 }}>
        Packing
      </Typography>
      <Box component="ol" sx={{ pl: 3, m: 0 }}>
        {gate.packing.map((line) => (
          <Typography component="li" key={line}>
            {line}
          </Typography>
        ))}
      </Box>
      <Typography sx={{ mt: 2 }}>{gate.removal}</Typography>
    </Box>
  );
}
