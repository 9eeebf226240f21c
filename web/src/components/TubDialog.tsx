import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { typed } from '../format/number';
import { fromField, toField } from '../format/time';
import { mixWords, plain } from '../format/words';
import { optionsOf, useCatalogue } from './catalogue';
import { FormDialog } from './FormDialog';
import { MixEditor, type PartDraft } from './MixEditor';
import { NumberField } from './NumberField';
import { useNumbers } from './numbers';
import { put, type ShelfDoc } from './useShelfEdit';
import type { Edits } from './useVersionedEdit';
import { v4 as newId } from 'uuid';

type Tub = Schemas['TubDoc'];

/** The numbers of a tub. */
const NUMBERS = {
  ml: { field: 'ml', label: 'In it', digits: 1 },
  keeps: {
    field: 'keeps_days',
    label: 'Keeps',
    open: true,
    help: 'As usual for its container when left open.',
  },
} as const;

interface Props {
  /** The tub that is edited; a new one without. */
  tub?: Tub;
  /** What is left in it now [ml]. */
  leftMl?: number;
  /** What goes into a new one, when that is settled. */
  mix?: Schemas['PartDoc'][];
  ml?: number;
  materials: Schemas['MaterialDoc'][];
  zone: string;
  now: number;
  edits: Pick<Edits, 'pending' | 'refusal' | 'forget'> & {
    edit: (label: string, change: (doc: ShelfDoc) => ShelfDoc, done?: () => void) => void;
  };
  onClose: () => void;
}

/** A tub: what is in it, since when, in what, and how much is left. What is in it never changes. */
export function TubDialog(props: Props) {
  const { tub, leftMl, materials, zone, now, edits, onClose } = props;
  const [name, setName] = useState(tub?.name ?? '');
  const [when, setWhen] = useState(() => toField(tub ? Date.parse(tub.mixed_at) : now, zone));
  const [tightness, setTightness] = useState<Tub['tightness']>(tub?.tightness ?? 'airtight');
  const numbers = useNumbers(NUMBERS, { ml: leftMl ?? props.ml ?? 30, keeps: tub?.keeps_days });
  const { tightnesses } = useCatalogue();
  const [mix, setMix] = useState<PartDraft[]>(() => {
    const first = materials.find((m) => m.kind === 'paint' && !m.archived) ?? materials[0];
    return first ? [{ material: first.id, parts: '1' }] : [];
  });
  const settled = tub?.mix ?? props.mix;
  const parts = mix.map((p) => typed(p.parts));
  const badMix =
    !settled && (parts.some((p) => !(p >= 0)) || !(parts.reduce((a, b) => a + b, 0) > 0));
  const mixedAt = fromField(when, zone);
  const bad = name.trim() === '' || Object.keys(numbers.wrong).length > 0 || badMix || !mixedAt;
  const keep = () => {
    if (!mixedAt) return;
    const amount = numbers.value('ml');
    // A new measure is taken now; without one the level goes on from the last.
    const level =
      tub && plain(leftMl ?? 0) === plain(amount)
        ? tub.level
        : { ml: amount, at: tub ? new Date(now).toISOString() : mixedAt };
    const made: Tub = {
      ...tub,
      id: tub?.id ?? newId(),
      name: name.trim(),
      mix: settled ?? mix.map((p) => ({ material: p.material, parts: typed(p.parts) })),
      mixed_at: mixedAt,
      mixed_ml: tub?.mixed_ml ?? amount,
      level,
      tightness,
      keeps_days: numbers.open('keeps'),
    };
    edits.edit(
      tub ? `edit the tub ${made.name}` : `mix the tub ${made.name}`,
      (shelf) => ({ ...shelf, tubs: put(shelf.tubs, made) }),
      onClose,
    );
  };
  return (
    <FormDialog
      title={tub ? 'Edit the tub' : 'A tub of mixed colour'}
      send={tub ? 'Keep' : 'Put it on the shelf'}
      sending="Keeping…"
      leave="Cancel"
      pending={edits.pending}
      disabled={bad}
      trouble={edits.refusal?.message}
      onSend={keep}
      onClose={() => {
        edits.forget();
        onClose();
      }}
    >
      <TextField
        label="What you call it"
        value={name}
        autoFocus
        onChange={(e) => setName(e.target.value)}
      />
      {settled ? (
        <Typography>In it: {mixWords(settled, materials)}.</Typography>
      ) : (
        <MixEditor
          mix={mix}
          materials={materials}
          wrong={badMix ? 'The mix sums to nothing: give at least one part.' : undefined}
          onChange={setMix}
        />
      )}
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
        <NumberField numbers={numbers} name="ml" label={tub ? 'Left in it, ml' : undefined} />
        <TextField
          label="Mixed"
          type="datetime-local"
          value={when}
          onChange={(e) => setWhen(e.target.value)}
          error={!mixedAt}
          slotProps={{ inputLabel: { shrink: true } }}
          fullWidth
        />
      </Stack>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
        <TextField
          select
          label="Container"
          value={tightness}
          onChange={(e) => setTightness(e.target.value as Tub['tightness'])}
          fullWidth
        >
          {optionsOf(tightnesses).map(({ value, word }) => (
            <MenuItem key={value} value={value}>
              {word}
            </MenuItem>
          ))}
        </TextField>
        <NumberField numbers={numbers} name="keeps" />
      </Stack>
    </FormDialog>
  );
}
