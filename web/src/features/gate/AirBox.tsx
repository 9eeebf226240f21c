import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useSaveAir, useUndoAir } from '../../api/edits';
import { airQuery } from '../../api/queries';
import { NumberField } from '../../components/NumberField';
import { saidOf, useCatalogue } from '../../components/catalogue';
import { useCurrentStudio } from '../../components/currentStudio';
import { fieldError, otherError } from '../../components/fieldError';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { useNumbers } from '../../components/numbers';
import { useNow } from '../../components/useNow';
import { useWidth } from '../../components/useWidth';
import { GoodHours } from '../../figures/GoodHours';
import { clock, exact, fromField, longDay } from '../../format/time';
import { start } from '../../format/words';

type Room = Required<Schemas['RoomDoc']>;

/** How the room follows the outside. */
const ROOM = {
  held_c: { field: 'held_c', label: 'Heated to', open: true, help: 'Empty when it is not heated.' },
  warmer_k: { field: 'warmer_k', label: 'Warmer than outside', help: 'When it is not heated.' },
  lag_h: { field: 'lag_h', label: 'Follows in', help: 'Thick walls: longer.' },
  changes_per_h: {
    field: 'changes_per_h',
    label: 'Air changes',
    help: 'Windows closed: about 0.5.',
  },
  moisture_g_m3_h: {
    field: 'moisture_g_m3_h',
    label: 'Water given off',
    help: 'One person: about 1.',
  },
} as const;
const KEYS = Object.keys(ROOM) as (keyof typeof ROOM)[];

/** The hours of the coming ten days that are fit for varnish, and where they come from. */
export function AirBox() {
  const { id } = useCurrentStudio();
  const air = useQuery(airQuery(id));
  const now = useNow(air.data?.now, air.dataUpdatedAt);
  const [ref, width] = useWidth();
  if (air.error && !air.data) {
    return <Trouble error={air.error} retry={() => void air.refetch()} />;
  }
  if (!air.data) return <Loading what="Reading the room" />;
  const { data } = air;
  const zone = data.time_zone;
  const noon = (day: string) => Date.parse(fromField(`${day}T12:00`, zone) ?? day);
  return (
    <Box component="section" aria-label="Good hours for varnish">
      <Typography variant="h3">Good hours for varnish</Typography>
      <Typography color="text.secondary" sx={{ mb: 1 }}>
        Wanted: {data.wanted_c.low} to {data.wanted_c.high} °C and{' '}
        {Math.round(data.wanted_rh.low * 100)} to {Math.round(data.wanted_rh.high * 100)} %
        (typical, not measured). Line: humidity; dashes: temperature; solid blocks: your hours that
        are fit; hatched: your hours that are not.
      </Typography>
      <Box ref={ref} sx={{ overflow: 'hidden' }}>
        <GoodHours air={data} width={width} zone={zone} now={now} />
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, my: 1.5 }}>
        {data.days.map((day) => (
          <Box
            component="li"
            key={day.day}
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr', sm: '230px 1fr' },
              columnGap: 2,
              py: 0.25,
            }}
          >
            <Typography sx={{ fontWeight: 600 }}>{longDay(noon(day.day), zone)}</Typography>
            <Typography color={day.good.length > 0 ? 'text.primary' : 'text.secondary'}>
              {dayLine(day, zone)}
            </Typography>
          </Box>
        ))}
      </Box>
      <Source key={data.version} id={id} data={data} zone={zone} />
    </Box>
  );
}

function dayLine(day: Schemas['DayOut'], zone: string): string {
  if (day.good.length > 0) {
    const spans = day.good.map(
      (s) => `${clock(Date.parse(s.from), zone)} to ${clock(Date.parse(s.to), zone)}`,
    );
    return `good ${spans.join(' and ')}`;
  }
  if (day.open_min === 0) return 'no hours';
  const help = day.remedies.length > 0 ? ` It would fit with ${day.remedies.join('; or ')}.` : '';
  return `${start(day.fault ?? 'not fit')}.${help}`;
}

/** Where the air to come is from, and taking it from elsewhere. */
function Source({ id, data, zone }: { id: string; data: Schemas['AirAhead']; zone: string }) {
  const save = useSaveAir(id);
  const [outside, setOutside] = useState(false);
  const numbers = useNumbers(ROOM, data.room);
  const { air_sources: sources } = useCatalogue();
  const undo = useUndoAir(id);
  const bad = Object.keys(numbers.wrong).length > 0;
  const asked: Room = {
    held_c: numbers.open('held_c') ?? null,
    warmer_k: numbers.value('warmer_k'),
    lag_h: numbers.value('lag_h'),
    changes_per_h: numbers.value('changes_per_h'),
    moisture_g_m3_h: numbers.value('moisture_g_m3_h'),
  };
  const step = (way: 'undo' | 'redo') => (
    <Button
      disabled={data.history[way] === null || undo.isPending}
      onClick={() => undo.mutate({ version: data.version, way })}
    >
      {start(way)}: {data.history[way]}
    </Button>
  );
  const take = (source: Schemas['AirEdit']['source'], csv?: string) =>
    save.mutate({ version: data.version, source, room: asked, csv: csv ?? null, outside });
  const other = otherError(save.error, (p) => p === 'csv' || p.startsWith('room.'));
  const csv = fieldError(save.error, 'csv');
  return (
    <Box component="section" aria-label="Where the air is from">
      <Typography sx={{ mb: 1 }}>
        <b>From:</b> {saidOf(sources, data.source)}
        {data.taken_at ? `, taken in ${exact(Date.parse(data.taken_at), zone)}` : ''}.
      </Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}>
        <Button disabled={bad || save.isPending} onClick={() => take('forecast')}>
          Take in the forecast
        </Button>
        <Button disabled={save.isPending} onClick={() => take('constant')}>
          Keep the room as usual
        </Button>
        <Button component="label" disabled={bad || save.isPending}>
          Bring readings (CSV)
          <input
            type="file"
            accept=".csv,text/csv"
            hidden
            aria-label="Readings as CSV"
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) void file.text().then((read) => take('readings', read));
              e.target.value = '';
            }}
          />
        </Button>
        <FormControlLabel
          control={<Checkbox checked={outside} onChange={(e) => setOutside(e.target.checked)} />}
          label="they were measured outside"
        />
      </Box>
      {(data.history.undo !== null || data.history.redo !== null) && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, mt: 1.5 }}>
          {data.history.undo !== null && step('undo')}
          {data.history.redo !== null && step('redo')}
        </Box>
      )}
      {undo.error && (
        <Typography role="alert" color="error" sx={{ mt: 1 }}>
          {undo.error.message}
        </Typography>
      )}
      {(csv ?? other) && (
        <Typography role="alert" color="error" sx={{ mt: 1, fontWeight: 600 }}>
          {csv ? `The readings were not taken: ${csv}.` : other}
        </Typography>
      )}
      <Typography color="text.secondary" sx={{ mt: 1.5 }}>
        The forecast is that of your forecast instrument, or a simulated one while there is none.
        What a hygrometer measured and what you type stand on the Studio page. The columns of a
        table are <code>at</code>, <code>temperature_c</code> and{' '}
        <code>relative_humidity_percent</code>; times without an offset are those of the studio.
      </Typography>
      <Box component="details" sx={{ mt: 1.5 }}>
        <Typography component="summary" sx={{ cursor: 'pointer', minHeight: 44 }}>
          How the room follows the outside
        </Typography>
        <Typography color="text.secondary" sx={{ mb: 1.5, maxWidth: 760 }}>
          Its temperature goes towards the outside with the lag given, and is held from below where
          it is heated. Its water is a balance: air changed with the outside, and what is given off
          in the room. The values are typical ones until you measure your own.
        </Typography>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2 }}>
          {KEYS.map((key) => (
            <NumberField
              key={key}
              numbers={numbers}
              name={key}
              refused={fieldError(save.error, `room.${key}`)}
              width={250}
            />
          ))}
        </Box>
      </Box>
    </Box>
  );
}
