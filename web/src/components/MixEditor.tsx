import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../api/client';
import { Chip } from './Chip';

/** Parts of one material, as typed. */
export interface PartDraft {
  material: string;
  parts: string;
}

interface Props {
  mix: PartDraft[];
  materials: Schemas['MaterialDoc'][];
  wrong?: string;
  onChange: (mix: PartDraft[]) => void;
}

/** What goes into the cup, in parts by volume. */
export function MixEditor({ mix, materials, wrong, onChange }: Props) {
  const set = (i: number, part: Partial<PartDraft>) =>
    onChange(mix.map((p, k) => (k === i ? { ...p, ...part } : p)));
  const used = (id: string) => mix.some((p) => p.material === id);
  // What is put away is not offered, but stays where it is used.
  const offered = materials.filter((m) => !m.archived || used(m.id));
  const unused = offered.find((m) => !used(m.id));
  return (
    <Box component="fieldset" sx={{ border: 1, borderColor: 'divider', p: 1.5, m: 0, minWidth: 0 }}>
      <Typography component="legend" sx={{ px: 0.5 }}>
        In the cup, parts by volume
      </Typography>
      {mix.map((part, i) => (
        <Box
          key={i}
          sx={{
            display: 'flex',
            gap: 1,
            alignItems: 'center',
            mb: 1,
            flexWrap: { xs: 'wrap', sm: 'nowrap' },
          }}
        >
          <Chip colour={materials.find((m) => m.id === part.material)?.swatch} size={28} />
          <TextField
            label="Parts"
            value={part.parts}
            inputMode="decimal"
            onChange={(e) => set(i, { parts: e.target.value })}
            sx={{ width: 96, flexShrink: 0 }}
            error={!!wrong}
          />
          <TextField
            select
            label="Material"
            value={part.material}
            onChange={(e) => set(i, { material: e.target.value })}
            sx={{ flex: 1, minWidth: 160 }}
          >
            {offered.map((m) => (
              <MenuItem key={m.id} value={m.id}>
                {m.name}
              </MenuItem>
            ))}
          </TextField>
          <Button
            variant="text"
            aria-label={`Remove part ${i + 1}`}
            disabled={mix.length === 1}
            onClick={() => onChange(mix.filter((_, k) => k !== i))}
            sx={{ px: 1 }}
          >
            Remove
          </Button>
        </Box>
      ))}
      {wrong && (
        <Typography role="alert" color="error" sx={{ fontWeight: 600, mb: 1 }}>
          {wrong}
        </Typography>
      )}
      <Button
        disabled={!unused}
        onClick={() => unused && onChange([...mix, { material: unused.id, parts: '1' }])}
      >
        Add a part
      </Button>
    </Box>
  );
}
