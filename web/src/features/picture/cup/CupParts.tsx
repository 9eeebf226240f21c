import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Slider from '@mui/material/Slider';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../../../api/client';
import { Chip } from '../../../components/Chip';
import { typed } from '../../../format/number';
import { plain } from '../../../format/words';
import type { Unit } from './turns';
import type { useCup } from './useCup';

interface Props {
  edit: ReturnType<typeof useCup>;
  materials: Schemas['MaterialDoc'][];
}

const UNITS: { unit: Unit; label: string; spoken: string }[] = [
  { unit: 'parts', label: 'Parts', spoken: 'Parts' },
  { unit: 'percent', label: '%', spoken: 'Percent' },
  { unit: 'ml', label: 'ml', spoken: 'Millilitres' },
  { unit: 'grams', label: 'g', spoken: 'Grams' },
  { unit: 'drops', label: 'Drops', spoken: 'Drops' },
];

/** What is left of a material when the cup's turn comes, where that is less than it takes. */
function Left({ part, of }: { part?: Schemas['CupPart']; of: string }) {
  if (part?.material !== of || part.left_ml === null || part.left_ml >= part.ml) return null;
  return (
    <Typography
      sx={{ gridColumn: { xs: '1 / -1', md: '2 / 8' }, color: 'error.main', fontWeight: 600 }}
    >
      {part.left_ml > 0
        ? `Only ${plain(part.left_ml)} ml of it are left by then.`
        : 'None of it is left by then.'}
    </Typography>
  );
}

/** The recipe: any number of it can be turned, the others follow. */
export function CupParts({ edit, materials }: Props) {
  const { mix, wrong } = edit;
  const used = (id: string) => mix.some((p) => p.material === id);
  const offered = materials.filter((m) => !m.archived || used(m.id));
  const unused = offered.find((m) => !used(m.id));
  const refused = edit.place?.startsWith('mix') ? edit.answer.error?.message : undefined;
  return (
    <Box role="group" aria-label="Recipe" onBlur={edit.leaveField}>
      {mix.map((part, i) => {
        const material = materials.find((m) => m.id === part.material);
        const name = material?.name ?? part.material;
        const percent = typed(edit.shown(i, 'percent'));
        return (
          <Box
            key={i}
            sx={{
              display: 'grid',
              gridTemplateColumns: {
                xs: '30px repeat(5, minmax(0, 1fr))',
                md: '30px minmax(170px, 1fr) repeat(5, 84px) auto',
              },
              columnGap: { xs: 0.5, md: 1 },
              rowGap: 1,
              alignItems: 'center',
              py: 1,
              borderBottom: 1,
              borderColor: 'divider',
            }}
          >
            <Chip colour={material?.swatch} size={28} />
            <TextField
              select
              label="Material"
              value={part.material}
              onChange={(e) => edit.swap(i, e.target.value)}
              sx={{ gridColumn: { xs: '2 / -1', md: 'auto' } }}
            >
              {offered.map((m) => (
                <MenuItem key={m.id} value={m.id}>
                  {m.name}
                </MenuItem>
              ))}
            </TextField>
            {UNITS.map(({ unit, label, spoken }, k) => (
              <TextField
                key={unit}
                label={label}
                value={edit.shown(i, unit)}
                disabled={
                  (unit !== 'parts' && mix.length === 1) ||
                  (unit === 'grams' && material?.density_g_ml == null)
                }
                onFocus={() => edit.enterField(i, unit)}
                onChange={(e) => edit.turn(i, unit, e.target.value)}
                sx={{
                  gridColumn: { xs: k + 2, md: 'auto' },
                  '& input': { px: { xs: 0.75, md: 1.25 } },
                }}
                slotProps={{
                  htmlInput: { inputMode: 'decimal', 'aria-label': `${spoken} of ${name}` },
                  inputLabel: { shrink: true },
                }}
              />
            ))}
            <Left part={edit.answer.data?.parts[i]} of={part.material} />
            <Button
              variant="text"
              disabled={mix.length === 1}
              aria-label={`Take ${name} out`}
              onClick={() => edit.remove(i)}
              sx={{ px: 1, gridColumn: { xs: '1 / -1', md: 'auto' }, justifySelf: 'start' }}
            >
              Remove
            </Button>
            {mix.length > 1 && (
              <Slider
                size="small"
                value={Number.isFinite(percent) ? percent : 0}
                step={0.5}
                onChange={(_, value) => edit.turn(i, 'percent', String(value))}
                slotProps={{ input: { 'aria-label': `Share of ${name}` } }}
                sx={{
                  gridColumn: { xs: '1 / -1', md: '2 / 8' },
                  justifySelf: 'center',
                  width: 'calc(100% - 16px)',
                }}
              />
            )}
          </Box>
        );
      })}
      {(wrong.mix ?? refused) && (
        <Typography role="alert" color="error" sx={{ fontWeight: 600, mt: 1 }}>
          {wrong.mix ?? refused}
        </Typography>
      )}
      <Button
        sx={{ mt: 1.5 }}
        disabled={!unused || !edit.settled}
        onClick={() => unused && edit.add(unused.id)}
      >
        Add a part
      </Button>
    </Box>
  );
}
