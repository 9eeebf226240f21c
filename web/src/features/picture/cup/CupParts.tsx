import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../../../api/client';
import { Chip } from '../../../components/Chip';
import { typed } from '../../../format/number';
import { plain } from '../../../format/words';
import { withPercent, type useCup } from './useCup';

interface Props {
  edit: ReturnType<typeof useCup>;
  materials: Schemas['MaterialDoc'][];
}

const cell = { fontSize: 19, fontWeight: 600, textAlign: 'right', whiteSpace: 'nowrap' } as const;

/** The recipe: parts and percent to turn, millilitres, grams and drops that follow. */
export function CupParts({ edit, materials }: Props) {
  const { draft, change, cup, wrong } = edit;
  const set = (i: number, part: Partial<(typeof draft.mix)[number]>) =>
    change({ mix: draft.mix.map((p, k) => (k === i ? { ...p, ...part } : p)) });
  const unused = materials.find((m) => !draft.mix.some((p) => p.material === m.id));
  const whole = draft.mix.reduce((sum, p) => sum + typed(p.parts), 0);
  return (
    <Box role="group" aria-label="Recipe">
      {draft.mix.map((part, i) => {
        const material = materials.find((m) => m.id === part.material);
        const row = cup?.parts[i]?.material === part.material ? cup.parts[i] : undefined;
        const name = material?.name ?? part.material;
        return (
          <Box
            key={i}
            sx={{
              display: 'grid',
              gridTemplateColumns: {
                xs: '30px 1fr 1fr',
                md: '30px minmax(200px, 1fr) 92px 92px 84px 76px 92px auto',
              },
              gap: 1,
              alignItems: 'center',
              py: 0.75,
              borderBottom: 1,
              borderColor: 'divider',
            }}
          >
            <Chip colour={material?.swatch} size={28} />
            <TextField
              select
              label="Material"
              value={part.material}
              onChange={(e) => set(i, { material: e.target.value })}
              sx={{ gridColumn: { xs: '2 / 4', md: 'auto' } }}
            >
              {materials.map((m) => (
                <MenuItem key={m.id} value={m.id}>
                  {m.name}
                </MenuItem>
              ))}
            </TextField>
            <TextField
              label="Parts"
              value={part.parts}
              error={!!wrong.mix}
              onChange={(e) => set(i, { parts: e.target.value })}
              slotProps={{ htmlInput: { inputMode: 'decimal', 'aria-label': `Parts of ${name}` } }}
            />
            <TextField
              label="%"
              value={whole > 0 ? plain((typed(part.parts) / whole) * 100) : ''}
              disabled={draft.mix.length === 1}
              onChange={(e) => {
                const percent = typed(e.target.value);
                if (percent >= 0 && percent <= 100)
                  change({ mix: withPercent(draft.mix, i, percent) });
              }}
              slotProps={{
                htmlInput: { inputMode: 'decimal', 'aria-label': `Percent of ${name}` },
              }}
            />
            <Typography sx={cell}>{row ? `${plain(row.ml, 2)} ml` : '–'}</Typography>
            <Typography sx={cell}>
              {row?.grams != null ? `${plain(row.grams, 2)} g` : '–'}
            </Typography>
            <Typography sx={cell}>{row ? `${plain(row.drops, 0)} drops` : '–'}</Typography>
            <Button
              variant="text"
              disabled={draft.mix.length === 1}
              aria-label={`Take ${name} out`}
              onClick={() => change({ mix: draft.mix.filter((_, k) => k !== i) })}
              sx={{ px: 1 }}
            >
              Take out
            </Button>
          </Box>
        );
      })}
      {wrong.mix && (
        <Typography role="alert" color="error" sx={{ fontWeight: 600, mt: 1 }}>
          {wrong.mix}
        </Typography>
      )}
      <Button
        sx={{ mt: 1.5 }}
        disabled={!unused}
        onClick={() =>
          unused && change({ mix: [...draft.mix, { material: unused.id, parts: '1' }] })
        }
      >
        Add a part
      </Button>
    </Box>
  );
}
