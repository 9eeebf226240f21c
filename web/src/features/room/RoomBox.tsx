import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useTakeBack, useTypeReading } from '../../api/edits';
import { airPastQuery } from '../../api/queries';
import { saidOf, useCatalogue } from '../../components/catalogue';
import { Loading } from '../../components/Loading';
import { SpanButtons } from '../../components/TimeButtons';
import { Trouble } from '../../components/Trouble';
import { useWidth } from '../../components/useWidth';
import { RoomPast } from '../../figures/RoomPast';
import { exact } from '../../format/time';
import { start } from '../../format/words';
import { Instruments } from './Instruments';
import { SpanDialog } from './SpanDialog';
import { TypeDialog } from './TypeDialog';

/** Spans that are looked back over [h]. */
const SPANS = [
  { value: 24, word: 'Day' },
  { value: 7 * 24, word: 'Week' },
  { value: 30 * 24, word: 'Month' },
  { value: 365 * 24, word: 'Year' },
];
/** Stretches said in words: the last ones. [practice] what is read at a glance */
const SAID = 4;

/** The room as it was, where that is known from, and the instruments that tell of it. */
export function RoomBox({ studio, zone, now }: { studio: string; zone: string; now: number }) {
  const [hours, setHours] = useState(24);
  const [open, setOpen] = useState<'type' | 'back' | 'give'>();
  const past = useQuery({ ...airPastQuery(studio, hours, now), enabled: now > 0 });
  const type = useTypeReading(studio);
  const back = useTakeBack(studio);
  const [ref, width] = useWidth();
  const data = past.data;
  const close = () => {
    setOpen(undefined);
    type.reset();
    back.reset();
  };
  return (
    <Box component="section" aria-label="The room and its instruments" sx={{ mt: 5 }}>
      <Typography variant="h3" sx={{ mb: 1 }}>
        The room and its instruments
      </Typography>
      <Instruments studio={studio} zone={zone} />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center', mt: 3, mb: 1 }}>
        <Box role="group" aria-label="How far back">
          <SpanButtons spans={SPANS} span={hours} onSpan={setHours} sx={{ px: 1.5 }} />
        </Box>
        <Button onClick={() => setOpen('type')}>Type a reading</Button>
        <Button onClick={() => setOpen('back')}>Take readings back</Button>
        <Button onClick={() => setOpen('give')}>Give readings back</Button>
      </Box>
      {past.error && !data && <Trouble error={past.error} retry={() => void past.refetch()} />}
      {past.isPending && <Loading what="Reading the room" />}
      <Box ref={ref} sx={{ overflow: 'hidden', opacity: past.isPlaceholderData ? 0.5 : 1 }}>
        {data && <RoomPast past={data} width={width} />}
      </Box>
      {data && <Origins origins={data.origins} zone={zone} />}
      {open === 'type' && data && (
        <TypeDialog
          zone={zone}
          now={now}
          pending={type.isPending}
          error={type.error}
          onKeep={(reading) =>
            type.mutate({ version: data.version, ...reading }, { onSuccess: close })
          }
          onClose={close}
        />
      )}
      {(open === 'back' || open === 'give') && data && (
        <SpanDialog
          give={open === 'give'}
          zone={zone}
          now={now}
          pending={back.isPending}
          error={back.error}
          onKeep={(span) =>
            back.mutate(
              { version: data.version, give: open === 'give', ...span },
              { onSuccess: close },
            )
          }
          onClose={close}
        />
      )}
    </Box>
  );
}

function Origins({ origins, zone }: { origins: Schemas['OriginOut'][]; zone: string }) {
  const { origins: words } = useCatalogue();
  const last = [...origins].reverse().slice(0, SAID);
  return (
    <Box sx={{ mt: 1 }}>
      <Typography color="text.secondary">
        Line: humidity; dashes: temperature; around them the lowest and the highest. Bar: solid
        where it was read off, empty where it was foreseen, hatched where nothing is known.
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, my: 1 }}>
        {last.map((o) => (
          <Typography component="li" key={o.from}>
            {exact(Date.parse(o.from), zone)} to {exact(Date.parse(o.to), zone)}:{' '}
            <b>{start(saidOf(words, o.origin))}</b>
          </Typography>
        ))}
        {origins.length > SAID && (
          <Typography component="li" color="text.secondary">
            and {origins.length - SAID} stretches before
          </Typography>
        )}
      </Box>
    </Box>
  );
}
