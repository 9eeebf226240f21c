import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useCreatePicture } from '../../api/edits';
import { catalogueQuery, shelfQuery } from '../../api/queries';
import { fieldError, otherError } from '../../components/fieldError';
import { FormDialog } from '../../components/FormDialog';
import { GroundField } from '../../components/GroundField';
import { typed } from '../../format/number';

const FIELDS = ['title', 'width_cm', 'height_cm', 'due', 'ground.absorbs_um'];

/** A new picture: size, ground, date, and a way of working or nothing to begin with. */
export function NewPicture({ studio, onClose }: { studio: string; onClose: () => void }) {
  const catalogue = useQuery(catalogueQuery);
  const create = useCreatePicture(studio);
  const navigate = useNavigate();
  const [title, setTitle] = useState('');
  const [width, setWidth] = useState('30');
  const [height, setHeight] = useState('40');
  const [due, setDue] = useState('');
  const [ground, setGround] = useState(20);
  const [way, setWay] = useState('');
  const shelf = useQuery(shelfQuery(studio));
  const own = shelf.data?.ways ?? [];
  const ways = [...own, ...(catalogue.data?.ways ?? [])];
  const chosen = ways.find((w) => w.id === way);
  const wrong = (path: string, label: string) =>
    fieldError(create.error, path)?.replace(/^side/, label);
  const other = otherError(create.error, (path) => FIELDS.includes(path));
  const submit = () =>
    create.mutate(
      {
        id: 'new',
        title,
        width_cm: typed(width),
        height_cm: typed(height),
        weight: 1,
        due: due || undefined,
        ground: { absorbs_um: ground },
        steps: chosen?.steps ?? [],
      },
      { onSuccess: (made) => void navigate(`/pictures/${made.id}`) },
    );
  const size = (label: string, path: string, value: string, set: (v: string) => void) => {
    const bad = !(typed(value) > 0);
    return (
      <TextField
        label={`${label}, cm`}
        value={value}
        inputMode="decimal"
        onChange={(e) => set(e.target.value)}
        error={bad || !!wrong(path, label)}
        helperText={wrong(path, label.toLowerCase()) ?? (bad ? 'Give a size above 0.' : undefined)}
      />
    );
  };
  const bad = title.trim() === '' || !(typed(width) > 0) || !(typed(height) > 0);
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
        {size('Width', 'width_cm', width, setWidth)}
        {size('Height', 'height_cm', height, setHeight)}
      </Stack>
      <GroundField um={ground} onChange={setGround} />
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
            ? `${chosen.why} ${chosen.steps.length} steps, to be changed as you like.`
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
