import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { optionsOf, useCatalogue } from '../../components/catalogue';
import { fieldError, otherError } from '../../components/fieldError';
import { FormDialog } from '../../components/FormDialog';
import { GroundField } from '../../components/GroundField';
import { NumberField } from '../../components/NumberField';
import { SIZES } from '../../components/sizes';
import { useNumbers } from '../../components/numbers';
import type { usePictureEdit } from './usePictureEdit';

interface Props {
  doc: Schemas['PictureDoc'];
  edits: ReturnType<typeof usePictureEdit>;
  onClose: () => void;
}

const FIELDS = ['title', 'width_cm', 'height_cm', 'due', 'thinning.reason'];

/** Title, size, ground and date of a picture. */
export function PictureFacts({ doc, edits, onClose }: Props) {
  const [title, setTitle] = useState(doc.title);
  const { thinnings, ready_by: meanings } = useCatalogue();
  const numbers = useNumbers(SIZES, doc);
  const [due, setDue] = useState(doc.due ?? '');
  const [readyBy, setReadyBy] = useState(doc.ready_by ?? 'wrapped');
  const [overSeal, setOverSeal] = useState(doc.paint_over_seal ?? false);
  const [ground, setGround] = useState(doc.ground ?? {});
  const [school, setSchool] = useState<Schemas['ThinningDoc']['school'] | ''>(
    doc.thinning?.school ?? '',
  );
  const [reason, setReason] = useState(doc.thinning?.reason ?? '');
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
  const bad =
    Object.keys(numbers.wrong).length > 0 || !title.trim() || (school !== '' && !reason.trim());
  const keep = () =>
    edits.edit(
      'change the facts',
      (p) => ({
        ...p,
        title,
        width_cm: numbers.value('width_cm'),
        height_cm: numbers.value('height_cm'),
        due: due || undefined,
        ready_by: readyBy,
        paint_over_seal: overSeal,
        ground,
        thinning: school === '' ? undefined : { school, reason: reason.trim() },
      }),
      onClose,
    );
  return (
    <FormDialog
      title="Size, ground, date, school"
      send="Keep"
      sending="Keeping…"
      leave="Cancel"
      width="xs"
      pending={edits.pending}
      disabled={bad}
      trouble={other}
      onSend={keep}
      onClose={close}
    >
      {text('Title', 'title', title, setTitle)}
      <NumberField numbers={numbers} name="width_cm" refused={wrong('width_cm')} />
      <NumberField numbers={numbers} name="height_cm" refused={wrong('height_cm')} />
      <GroundField ground={ground} onChange={setGround} />
      <TextField
        label="Must be ready on"
        type="date"
        value={due}
        onChange={(e) => setDue(e.target.value)}
        error={!!wrong('due')}
        helperText={wrong('due')}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <TextField
        select
        label="Ready means"
        value={readyBy}
        onChange={(e) => setReadyBy(e.target.value as typeof readyBy)}
      >
        {optionsOf(meanings).map(({ value, word }) => (
          <MenuItem key={value} value={value}>
            {word}
          </MenuItem>
        ))}
      </TextField>
      <FormControlLabel
        label="Paint over varnish is meant"
        control={<Switch checked={overSeal} onChange={(e) => setOverSeal(e.target.checked)} />}
      />
      <TextField
        select
        label="Thinning of this picture"
        value={school}
        onChange={(e) => setSchool(e.target.value as typeof school)}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      >
        <MenuItem value="">As in the studio</MenuItem>
        {optionsOf(thinnings).map(({ value, word }) => (
          <MenuItem key={value} value={value}>
            {word}
          </MenuItem>
        ))}
      </TextField>
      {school !== '' && (
        <TextField
          label="Why this picture differs"
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          error={!!wrong('thinning.reason')}
          helperText={wrong('thinning.reason') ?? 'The reason is kept and shown.'}
        />
      )}
    </FormDialog>
  );
}
