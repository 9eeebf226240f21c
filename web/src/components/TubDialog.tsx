import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { typed } from '../format/number';
import { fromField, toField } from '../format/time';
import { mixWords, plain, TIGHTNESS } from '../format/words';
import { FormDialog } from './FormDialog';
import { MixEditor, type PartDraft } from './MixEditor';
import { put, type ShelfDoc } from './useShelfEdit';
import type { Edits } from './useVersionedEdit';
import { v4 as newId } from 'uuid';

type Tub = Schemas['TubDoc'];

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
  const [ml, setMl] = useState(plain(leftMl ?? props.ml ?? 30));
  const [tightness, setTightness] = useState<Tub['tightness']>(tub?.tightness ?? 'airtight');
  const [keeps, setKeeps] = useState(tub?.keeps_days == null ? '' : plain(tub.keeps_days));
  const [mix, setMix] = useState<PartDraft[]>(() => {
    const first = materials.find((m) => m.kind === 'paint' && !m.archived) ?? materials[0];
    return first ? [{ material: first.id, parts: '1' }] : [];
  });
  const settled = tub?.mix ?? props.mix;
  const parts = mix.map((p) => typed(p.parts));
  const badMix =
    !settled && (parts.some((p) => !(p >= 0)) || !(parts.reduce((a, b) => a + b, 0) > 0));
  const badKeeps = keeps !== '' && !(typed(keeps) >= 0);
  const mixedAt = fromField(when, zone);
  const bad = name.trim() === '' || !(typed(ml) >= 0) || badMix || badKeeps || !mixedAt;
  const keep = () => {
    if (!mixedAt) return;
    const amount = typed(ml);
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
      keeps_days: keeps === '' ? undefined : typed(keeps),
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
      leave="Leave as it was"
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
        <TextField
          label={tub ? 'Left in it, ml' : 'In it, ml'}
          value={ml}
          onChange={(e) => setMl(e.target.value)}
          error={!(typed(ml) >= 0)}
          helperText={typed(ml) >= 0 ? undefined : 'Give millilitres.'}
          fullWidth
        />
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
          {Object.entries(TIGHTNESS).map(([value, word]) => (
            <MenuItem key={value} value={value}>
              {word}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label="Keeps, days"
          value={keeps}
          onChange={(e) => setKeeps(e.target.value)}
          error={badKeeps}
          helperText={badKeeps ? 'Give days.' : 'As usual for its container when left open.'}
          fullWidth
        />
      </Stack>
    </FormDialog>
  );
}
