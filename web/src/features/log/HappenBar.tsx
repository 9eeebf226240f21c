import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useCatalogue } from '../../components/catalogue';
import { fieldError, otherError } from '../../components/fieldError';
import { FormDialog } from '../../components/FormDialog';
import { typed } from '../../format/number';
import { start } from '../../format/words';
import type { Happening } from './useHappening';

interface Props {
  happening: Happening;
  picture: { id: string; version: number; title: string };
  coat: { step: string; title: string };
}

type Trouble = Extract<Schemas['ToldDoc'], { kind: 'trouble' }>['trouble'];

const touch = { minHeight: 44, px: 1.5 } as const;

/** What happened to a coat, in one touch: it is logged at once and can be put right afterwards. */
export function HappenBar({ happening, picture, coat }: Props) {
  const { paint_troubles: troubles } = useCatalogue();
  const [open, setOpen] = useState(false);
  const [sanding, setSanding] = useState(false);
  const title = start(coat.title);
  const tell = (word: string, what: Schemas['ToldDoc']) => {
    happening.tell(
      picture,
      `${title} of ${picture.title}: ${word}.`,
      { step: coat.step, what },
      () => setOpen(false),
    );
  };
  return (
    <Box
      role="group"
      aria-label={`What happened to ${coat.title} of ${picture.title}`}
      sx={{ mt: 1 }}
    >
      <Button variant="text" sx={touch} aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Put it away' : 'Something happened'}
      </Button>
      {open && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 0.5 }}>
          <Button
            sx={touch}
            disabled={happening.pending}
            onClick={() => tell('wiped off', { kind: 'wiped_off' })}
          >
            Wiped off
          </Button>
          <Button sx={touch} disabled={happening.pending} onClick={() => setSanding(true)}>
            Sanded back
          </Button>
          {troubles.map(({ value, said }) => (
            <Button
              key={value}
              sx={touch}
              disabled={happening.pending}
              onClick={() =>
                tell(said.toLowerCase(), {
                  kind: 'trouble',
                  trouble: value as Trouble,
                })
              }
            >
              {said}
            </Button>
          ))}
        </Box>
      )}
      {sanding && (
        <SandedDialog
          title={title}
          happening={happening}
          onSend={(depth) =>
            happening.tell(
              picture,
              `${title} of ${picture.title}: sanded back.`,
              { step: coat.step, what: { kind: 'sanded', dry_um: depth } },
              () => {
                setSanding(false);
                setOpen(false);
              },
            )
          }
          onClose={() => {
            setSanding(false);
            happening.close();
          }}
        />
      )}
    </Box>
  );
}

interface SandedProps {
  title: string;
  happening: Happening;
  onSend: (depth?: number) => void;
  onClose: () => void;
}

/** How deep a coat was sanded. */
function SandedDialog({ title, happening, onSend, onClose }: SandedProps) {
  const [depth, setDepth] = useState('');
  const number = typed(depth);
  const bad = depth.trim() !== '' && !Number.isFinite(number);
  const { error } = happening;
  return (
    <FormDialog
      title={`Sanded back: ${title}`}
      send="Log it"
      sending="Logging…"
      width="xs"
      pending={happening.pending}
      disabled={bad}
      trouble={otherError(error, (path) => path === 'what.dry_um' || path === 'dry_um')}
      onSend={() => onSend(depth.trim() === '' ? undefined : number)}
      onClose={onClose}
    >
      <Typography>
        Sand wet, or wear a dust mask; never dry-sand a paint whose pigment is poisonous. Read its
        safety data sheet.
      </Typography>
      <TextField
        label="How deep, µm"
        value={depth}
        inputMode="decimal"
        onChange={(e) => setDepth(e.target.value)}
        error={bad || !!fieldError(error, 'dry_um')}
        helperText={
          fieldError(error, 'dry_um') ??
          (bad ? 'Give a number.' : 'Left open: through to the coat below.')
        }
      />
    </FormDialog>
  );
}
