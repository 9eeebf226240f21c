import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useCreatePicture } from '../../api/edits';
import { waysOfStudioQuery } from '../../api/queries';
import { span } from '../../format/time';
import { fieldError, otherError } from '../../components/fieldError';
import { useCatalogue } from '../../components/catalogue';
import { FormDialog } from '../../components/FormDialog';
import { GroundField } from '../../components/GroundField';
import { NumberField } from '../../components/NumberField';
import { useNumbers } from '../../components/numbers';
import { SIZES } from '../../components/sizes';

const FIELDS = ['title', 'width_cm', 'height_cm', 'due', 'ground.absorbs_um'];

/** A new picture: size, ground, date, and a way of working or nothing to begin with. */
export function NewPicture({ studio, onClose }: { studio: string; onClose: () => void }) {
  const create = useCreatePicture(studio);
  const navigate = useNavigate();
  const [title, setTitle] = useState('');
  const numbers = useNumbers(SIZES, { width_cm: 30, height_cm: 40 });
  const [due, setDue] = useState('');
  const [ground, setGround] = useState(useCatalogue().first_ground);
  const [way, setWay] = useState('');
  const size = { width_cm: numbers.value('width_cm'), height_cm: numbers.value('height_cm') };
  const wrong = Object.keys(numbers.wrong).length > 0;
  const begun = useQuery({ ...waysOfStudioQuery(studio, size), enabled: !wrong });
  const ways = begun.data ?? [];
  const chosen = ways.find((w) => w.id === way);
  const other = otherError(create.error, (path) => FIELDS.includes(path));
  const submit = () =>
    create.mutate(
      {
        id: 'new',
        title,
        ...size,
        weight: 1,
        due: due || undefined,
        ground,
        steps: chosen?.steps ?? [],
      },
      { onSuccess: (made) => void navigate(`/pictures/${made.id}`) },
    );
  // The steps of another size are not sent, nor none where a way was chosen.
  const waits = begun.isPlaceholderData || (way !== '' && !chosen);
  const bad = title.trim() === '' || wrong || waits;
  return (
    <FormDialog
      title="Make a picture"
      send="Make it"
      sending="Making it…"
      pending={create.isPending}
      disabled={bad}
      trouble={other}
      onSend={submit}
      onClose={onClose}
    >
      <TextField
        label="Title"
        value={title}
        autoFocus
        onChange={(e) => setTitle(e.target.value)}
        error={!!fieldError(create.error, 'title')}
        helperText={fieldError(create.error, 'title')}
      />
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
        {(['width_cm', 'height_cm'] as const).map((name) => (
          <NumberField
            key={name}
            numbers={numbers}
            name={name}
            refused={fieldError(create.error, name)}
          />
        ))}
      </Stack>
      <GroundField ground={ground} onChange={setGround} />
      <TextField
        label="Must be ready on"
        type="date"
        value={due}
        onChange={(e) => setDue(e.target.value)}
        error={!!fieldError(create.error, 'due')}
        helperText={fieldError(create.error, 'due') ?? 'May be left open.'}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <TextField
        select
        label="Begin with"
        value={way}
        onChange={(e) => setWay(e.target.value)}
        helperText={
          chosen
            ? `${chosen.why} ${chosen.steps.length} steps and ${span(chosen.hands_on_min)} of work, to be changed as you like.`
            : 'You add the steps yourself.'
        }
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      >
        <MenuItem value="">Nothing</MenuItem>
        {ways.map((w) => (
          <MenuItem key={w.id} value={w.id}>
            {w.name}
          </MenuItem>
        ))}
      </TextField>
    </FormDialog>
  );
}
