import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useAddInstrument, useBehave, useRemoveInstrument } from '../../api/edits';
import { instrumentsQuery } from '../../api/queries';
import { optionsOf, saidOf, useCatalogue } from '../../components/catalogue';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { clock, exact } from '../../format/time';
import { plain } from '../../format/words';
import { AddDialog } from './AddDialog';

/** Longest time for which a reading is said by the clock alone [ms]. */
const TODAY = 12 * 3_600_000;

/** The instruments of the studio: what each said last, and what is wrong with it. */
export function Instruments({ studio, zone }: { studio: string; zone: string }) {
  const found = useQuery(instrumentsQuery(studio));
  const add = useAddInstrument(studio);
  const [adding, setAdding] = useState(false);
  if (found.error && !found.data) {
    return <Trouble error={found.error} retry={() => void found.refetch()} />;
  }
  if (!found.data) return <Loading what="Asking the instruments" />;
  const { instruments } = found.data;
  const now = Date.parse(found.data.now);
  const simulated = instruments.some((i) => i.behaves !== null && i.kind === 'hygrometer');
  return (
    <Box>
      {instruments.length === 0 && (
        <Typography sx={{ maxWidth: 760 }}>
          No instrument sends anything: the plan counts on the room as you say it is, on readings
          you type or bring, and on the forecast. A thermo-hygrometer, a scale or a forecast can
          send by itself.
        </Typography>
      )}
      {instruments.map((one) => (
        <Instrument key={one.id} studio={studio} one={one} now={now} zone={zone} />
      ))}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, mt: 1.5 }}>
        <Button onClick={() => setAdding(true)}>Add an instrument</Button>
        {!simulated && (
          <Button
            disabled={add.isPending}
            onClick={() =>
              add.mutate({ kind: 'hygrometer', name: 'Simulated hygrometer', simulated: true })
            }
          >
            Try a simulated hygrometer
          </Button>
        )}
      </Box>
      {add.error && !adding && (
        <Typography role="alert" color="error" sx={{ mt: 1 }}>
          {add.error.message}
        </Typography>
      )}
      {adding && <AddDialog studio={studio} onClose={() => setAdding(false)} />}
    </Box>
  );
}

interface Props {
  studio: string;
  one: Schemas['InstrumentOut'];
  now: number;
  zone: string;
}

function Instrument({ studio, one, now, zone }: Props) {
  const { instrument_kinds: kinds, behaviours } = useCatalogue();
  const remove = useRemoveInstrument(studio);
  const behave = useBehave(studio);
  const { last } = one;
  const when = (at: string) =>
    now - Date.parse(at) < TODAY ? clock(Date.parse(at), zone) : exact(Date.parse(at), zone);
  const trouble = remove.error ?? behave.error;
  return (
    <Box component="article" aria-label={one.name} sx={{ borderTop: 1, py: 1.5 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'baseline' }}>
        <Typography sx={{ fontWeight: 700, minWidth: 220, overflowWrap: 'anywhere' }}>
          {one.name}
        </Typography>
        {last ? (
          <Typography sx={{ fontSize: 22, fontWeight: 700 }}>
            {plain(last.temperature_c)} °C · {plain(last.relative_humidity * 100)} %
          </Typography>
        ) : (
          <Typography color="text.secondary">{saidOf(kinds, one.kind)}</Typography>
        )}
        {one.heard_at && <Typography color="text.secondary">{when(one.heard_at)}</Typography>}
        <Box sx={{ ml: 'auto', display: 'flex', gap: 1.5, alignItems: 'center' }}>
          {one.behaves && (
            <TextField
              select
              size="small"
              label="Simulated: it"
              value={one.behaves}
              onChange={(e) =>
                behave.mutate({
                  instrument: one.id,
                  behaves: e.target.value as Schemas['Behave']['behaves'],
                })
              }
              sx={{ minWidth: 150 }}
            >
              {optionsOf(behaviours).map((o) => (
                <MenuItem key={o.value} value={o.value}>
                  {o.word}
                </MenuItem>
              ))}
            </TextField>
          )}
          <Button disabled={remove.isPending} onClick={() => remove.mutate(one.id)}>
            Take away
          </Button>
        </Box>
      </Box>
      {one.faults.map((fault) => (
        <Typography key={fault} role="status" sx={{ fontWeight: 600, mt: 0.5 }}>
          {fault}
        </Typography>
      ))}
      {last && (
        <Box component="details" sx={{ mt: 0.5 }}>
          <Typography component="summary" sx={{ cursor: 'pointer', minHeight: 44 }}>
            Dew point and water in the air
          </Typography>
          <Typography>
            Dew point {plain(last.dew_point_c)} °C: anything colder than that gets wet. The air
            holds {plain(last.water_g_m3)} g of water in a cubic metre.
          </Typography>
        </Box>
      )}
      {trouble && (
        <Typography role="alert" color="error">
          {trouble.message}
        </Typography>
      )}
    </Box>
  );
}
