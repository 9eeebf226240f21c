import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useSaveVarnish } from '../../api/edits';
import { varnishQuery } from '../../api/queries';
import { optionsOf, useCatalogue } from '../../components/catalogue';
import { fieldError, otherError } from '../../components/fieldError';
import { RadioLine } from '../../components/RadioLine';
import { NumberField } from '../../components/NumberField';
import { useNumbers } from '../../components/numbers';
import { plain, start } from '../../format/words';
import { FinishCompare } from './FinishCompare';
import { useSealing } from './Sealing';

type Choice = Schemas['ChoiceDoc'];

const NUMBERS = {
  edge: { field: 'edge_cm', label: 'Depth of the edges', help: '0 leaves them out.' },
} as const;
const FIELDS = ['finish', 'isolation', 'isolation_reason', 'coats', 'edge_cm', 'carrier'];

/** Which varnish, how many coats, how much and how: chosen here, worked out by the server. */
export function VarnishView() {
  const { id, gate } = useSealing();
  const [choice, setChoice] = useState<Choice>(gate.choice);
  const catalogue = useCatalogue();
  const numbers = useNumbers(NUMBERS, { edge: gate.choice.edge_cm });
  const save = useSaveVarnish(id);
  const sound = !numbers.wrong.edge;
  const asked = { ...choice, edge_cm: numbers.value('edge') };
  const unusual = choice.isolation !== gate.habit_isolation;
  const preview = useQuery({
    ...varnishQuery(id, gate.version, asked),
    enabled: sound,
  });
  const error = preview.error ?? save.error;
  const said = (field: string) => {
    const found = fieldError(error, `choice.${field}`);
    return found && `${start(found)}.`;
  };
  const change = (part: Partial<Choice>) => setChoice({ ...choice, ...part });
  const plan = preview.error ? undefined : preview.data;
  const other = otherError(error, (p) => FIELDS.some((f) => p === `choice.${f}`));
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', lg: '460px 1fr' }, columnGap: 5 }}
    >
      <Box sx={{ display: 'flex', flexDirection: 'column', gap: 2, alignItems: 'flex-start' }}>
        <RadioLine
          label="Varnish base"
          options={optionsOf<Choice['carrier']>(catalogue.carriers)}
          value={choice.carrier}
          onChange={(carrier) => change({ carrier })}
        />
        <Refused said={said('carrier')} />
        <RadioLine
          label="Sheen of the last coat"
          options={optionsOf<Choice['finish']>(catalogue.finishes)}
          value={choice.finish}
          onChange={(finish) => change({ finish })}
        />
        <Refused said={said('finish')} />
        <RadioLine
          label="What it is for"
          options={optionsOf<Choice['purpose']>(catalogue.purposes)}
          value={choice.purpose}
          onChange={(purpose) =>
            change({
              purpose,
              coats: gate.purposes.find((p) => p.purpose === purpose)?.coats ?? choice.coats,
            })
          }
        />
        <TextField
          select
          label="Varnish coats in all"
          value={choice.coats}
          onChange={(e) => change({ coats: Number(e.target.value) })}
          error={!!said('coats')}
          helperText={said('coats') ?? (plan && `${plan.usual_coats} are usual for that.`)}
          slotProps={{ select: { native: true } }}
          sx={{ width: 260 }}
        >
          {Array.from({ length: catalogue.most_varnish_coats }, (_, n) => (
            <option key={n + 1} value={n + 1}>
              {n + 1}
            </option>
          ))}
        </TextField>
        <Box>
          <FormControlLabel
            control={
              <Switch
                checked={choice.isolation}
                onChange={(e) => change({ isolation: e.target.checked })}
              />
            }
            label="Isolation coat between paint and varnish"
          />
          <Refused said={said('isolation')} />
        </Box>
        {(unusual || said('isolation_reason')) && (
          <TextField
            label={choice.isolation ? 'Why with an isolation coat' : 'Why without one'}
            value={choice.isolation_reason ?? ''}
            onChange={(e) => change({ isolation_reason: e.target.value })}
            error={!!said('isolation_reason')}
            helperText={
              said('isolation_reason') ?? 'It is not the habit of your studio; the reason is kept.'
            }
            fullWidth
          />
        )}
        <RadioLine
          label="Strokes"
          options={optionsOf<Choice['strokes']>(catalogue.strokes)}
          value={choice.strokes}
          onChange={(strokes) => change({ strokes })}
        />
        <NumberField numbers={numbers} name="edge" refused={said('edge_cm')} width={260} />
        <Button
          variant="contained"
          disabled={!plan || save.isPending || preview.isFetching}
          onClick={() => save.mutate({ version: gate.version, choice: asked })}
        >
          {save.isPending ? 'Settling on it…' : 'Settle on this varnish'}
        </Button>
        {other && (
          <Typography role="alert" color="error">
            {other}
          </Typography>
        )}
        {save.isSuccess && !save.isPending && (
          <Typography role="status" sx={{ fontWeight: 600 }}>
            Its coats are in the plan now. What was laid stayed.
          </Typography>
        )}
      </Box>
      <Box sx={{ mt: { xs: 3, lg: 0 } }}>
        <FinishCompare
          picture={id}
          finish={choice.finish}
          onPick={(finish) => change({ finish: finish as Choice['finish'] })}
        />
        {plan && <Plan plan={plan} />}
      </Box>
    </Box>
  );
}

function Refused({ said }: { said?: string }) {
  if (!said) return null;
  return (
    <Typography role="alert" color="error" sx={{ fontWeight: 600, fontSize: 16 }}>
      {said}
    </Typography>
  );
}

function Plan({ plan }: { plan: Schemas['VarnishOut'] }) {
  const cap = (text: string) => `${start(text)}${text.endsWith('.') ? '' : '.'}`;
  return (
    <Box component="section" aria-label="The varnish plan">
      {plan.coats.length > 0 && (
        <Typography sx={{ fontSize: 24, fontWeight: 700 }}>
          Pour {Math.ceil(plan.pour_ml)} ml for each coat · brush {plain(plan.brush_cm, 1)} cm
        </Typography>
      )}
      <Typography color="text.secondary">
        {plan.coats.length > 0
          ? `${plan.pour_ml.toFixed(1)} ml with what stays in bowl and brush${
              plan.edges_ml > 0 ? `, ${plan.edges_ml.toFixed(1)} ml of it for the edges` : ''
            }. The brush is for varnish only.`
          : 'Every coat of it is already laid.'}
      </Typography>
      <Box component="ol" sx={{ pl: 3, my: 2 }}>
        {plan.coats.map((coat) => (
          <Box component="li" key={coat.title} sx={{ mb: 1 }}>
            <Typography>
              <b>{coat.title}</b>: {coat.material}, {plain(coat.wet_film_um ?? 0)} µm wet.
            </Typography>
            <Typography color="text.secondary">
              {cap(coat.gap)} Strokes {coat.strokes}.
            </Typography>
          </Box>
        ))}
      </Box>
      <Typography sx={{ mb: 1 }}>{plan.finish_effect}</Typography>
      <Typography sx={{ mb: 1 }}>{plan.carrier_effect}</Typography>
      <Typography sx={{ mb: 1 }}>
        <b>Isolation coat.</b> {plan.isolation}
      </Typography>
      <Typography>
        <b>Order:</b>
      </Typography>
      <Box component="ol" sx={{ pl: 3, m: 0 }}>
        {plan.areas.map((area) => (
          <Typography component="li" key={area}>
            {cap(area)}
          </Typography>
        ))}
      </Box>
    </Box>
  );
}
