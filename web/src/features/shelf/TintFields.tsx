import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import type { ReactNode } from 'react';
import type { Schemas } from '../../api/client';
import type { MaterialDraft } from './useMaterialDraft';

interface Props {
  draft: MaterialDraft;
  change: (part: Partial<MaterialDraft>) => void;
  /** The field of the parts of white. */
  parts: ReactNode;
  /** Paints of the shelf that can be the white. */
  whites: Schemas['MaterialDoc'][];
  /** That the white was not said. */
  missing: string | undefined;
  /** What the server refused of a field. */
  refused: (field: string) => string;
}

/** A paint in white, laid until it hides: how strong it is in a mix. */
export function TintFields({ draft, change, parts, whites, missing, refused }: Props) {
  const trouble = refused('white') || refused('white_parts') || missing;
  return (
    <>
      <FormControlLabel
        label="A tint was made of it with white: how strong it is in a mix is computed from that"
        control={
          <Switch checked={draft.tinted} onChange={(e) => change({ tinted: e.target.checked })} />
        }
      />
      {draft.tinted && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr 1fr' },
            gap: 2,
          }}
        >
          <TextField
            label="Its tint, where it hides"
            type="color"
            value={draft.tint}
            onChange={(e) => change({ tint: e.target.value })}
            error={!!refused('colour')}
            helperText={refused('colour')}
          />
          <TextField
            select
            label="The white in it"
            value={whites.some((m) => m.id === draft.white) ? draft.white : ''}
            onChange={(e) => change({ white: e.target.value })}
            error={!!trouble}
            helperText={trouble}
          >
            {whites.map((m) => (
              <MenuItem key={m.id} value={m.id}>
                {m.name}
              </MenuItem>
            ))}
          </TextField>
          <Box>{parts}</Box>
        </Box>
      )}
    </>
  );
}
