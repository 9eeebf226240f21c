import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { fieldError, otherError } from '../../components/fieldError';
import { GROUNDS, groundWord, plain } from '../../format/words';
import type { usePictureEdit } from './usePictureEdit';

interface Props {
  doc: Schemas['PictureDoc'];
  edits: ReturnType<typeof usePictureEdit>;
  onClose: () => void;
}

const FIELDS = ['title', 'width_cm', 'height_cm', 'due'];
const number = (text: string) => Number(text.replace(',', '.'));

/** Title, size, ground and date of a picture. */
export function PictureFacts({ doc, edits, onClose }: Props) {
  const [title, setTitle] = useState(doc.title);
  const [width, setWidth] = useState(plain(doc.width_cm));
  const [height, setHeight] = useState(plain(doc.height_cm));
  const [due, setDue] = useState(doc.due ?? '');
  const was = doc.ground?.absorbs_um ?? 0;
  const [ground, setGround] = useState(was);
  const grounds = GROUNDS.some((g) => g.um === was)
    ? [...GROUNDS]
    : [...GROUNDS, { um: was, word: groundWord(was) }];
  const wrong = (path: string) => fieldError(edits.refusal, path);
  const other = otherError(edits.refusal, (p) => FIELDS.includes(p));
  const close = () => {
    edits.forget();
    onClose();
  };
  const text = (label: string, path: string, value: string, set: (v: string) => void) => (
    <TextField
      label={label}
      value={value}
      onChange={(e) => set(e.target.value)}
      error={!!wrong(path)}
      helperText={wrong(path)}
    />
  );
  const bad = !Number.isFinite(number(width)) || !Number.isFinite(number(height)) || !title.trim();
  return (
    <Dialog open onClose={close} aria-labelledby="facts-title" fullWidth maxWidth="xs">
      <DialogTitle id="facts-title" component="h2" sx={{ fontWeight: 700 }}>
        Size, ground and date
      </DialogTitle>
      <DialogContent>
        <Stack spacing={2.5} sx={{ pt: 1 }}>
          {text('Title', 'title', title, setTitle)}
          {text('Width, cm', 'width_cm', width, setWidth)}
          {text('Height, cm', 'height_cm', height, setHeight)}
          <TextField
            select
            label="Ground"
            value={ground}
            onChange={(e) => setGround(Number(e.target.value))}
          >
            {grounds.map((g) => (
              <MenuItem key={g.um} value={g.um}>
                {g.word}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label="Must be ready on"
            type="date"
            value={due}
            onChange={(e) => setDue(e.target.value)}
            error={!!wrong('due')}
            helperText={wrong('due')}
            slotProps={{ inputLabel: { shrink: true } }}
          />
          {other && (
            <Typography role="alert" color="error">
              {other}
            </Typography>
          )}
        </Stack>
      </DialogContent>
      <DialogActions sx={{ p: 2 }}>
        <Button onClick={close}>Leave as it was</Button>
        <Button
          variant="contained"
          disabled={bad || edits.pending}
          onClick={() =>
            edits.edit(
              'change the facts',
              (p) => ({
                ...p,
                title,
                width_cm: number(width),
                height_cm: number(height),
                due: due || undefined,
                ground: { absorbs_um: ground },
              }),
              onClose,
            )
          }
        >
          Keep
        </Button>
      </DialogActions>
    </Dialog>
  );
}
