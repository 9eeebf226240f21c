import Autocomplete from '@mui/material/Autocomplete';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import type { Schemas } from '../../api/client';
import { saidOf, useCatalogue } from '../../components/catalogue';
import { fieldError, otherError } from '../../components/fieldError';
import { FormDialog } from '../../components/FormDialog';
import { start } from '../../format/words';
import { NumberField } from '../../components/NumberField';
import { MixEditor } from '../../components/MixEditor';
import { putStep, type Step } from '../../components/stepEdits';
import { mixDraft, useStepDraft } from './useStepDraft';
import type { usePictureEdit } from './usePictureEdit';

interface Props {
  step: Step;
  /** Place of the step in the picture; -1 for a new one. */
  index: number;
  count: number;
  others: Step[];
  kinds: Schemas['KindOut'][];
  /** A step of every kind as it usually begins on this picture. */
  begins: Schemas['UsualStep'][];
  materials: Schemas['MaterialDoc'][];
  zone: string;
  edits: ReturnType<typeof usePictureEdit>;
  onClose: () => void;
}

/** A step: what, how thick, how long, with what in the cup. */
export function StepDialog(props: Props) {
  const { step, index, count, others, kinds, begins, materials, zone, edits, onClose } = props;
  const { draft, numbers, change, changeKind, kind, hasFilm, wrong, made, fresh, place } =
    useStepDraft(step, kinds, begins, zone);
  const { needs } = useCatalogue();
  const base = `steps[${index < 0 ? (place ?? count) : index}]`;
  const cups = others.filter((s) => (s.mix?.length ?? 0) > 0);
  const refused = (field: string) => fieldError(edits.refusal, `${base}.${field}`);
  const shown = [
    'name',
    'wet_film_um',
    'hands_on_min',
    'share_of_area',
    'section',
    'earliest_gap_min',
    'mix',
  ];
  const sections = [...new Set(others.flatMap((s) => s.section ?? []))];
  const other = otherError(edits.refusal, (path) => shown.some((f) => path === `${base}.${f}`));
  const close = () => {
    edits.forget();
    onClose();
  };
  const keep = () => {
    const title = start(draft.name.trim() || (kind?.word ?? draft.kind));
    edits.edit(`${fresh ? 'add' : 'edit'} ${title}`, putStep(made(), place), onClose);
  };
  return (
    <FormDialog
      title={fresh ? 'Add a step' : 'Edit the step'}
      send={fresh ? 'Add it' : 'Keep'}
      sending="Keeping…"
      leave="Cancel"
      pending={edits.pending}
      disabled={Object.keys(wrong).length > 0}
      trouble={other}
      onSend={keep}
      onClose={close}
    >
      <TextField
        select
        label="What happens"
        value={draft.kind}
        onChange={(e) => changeKind(e.target.value as Step['kind'])}
        helperText={kind && start(kind.does)}
      >
        {kinds.map((k) => (
          <MenuItem key={k.kind} value={k.kind}>
            {start(k.word)}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="What you call it"
        value={draft.name}
        onChange={(e) => change({ name: e.target.value })}
        error={!!refused('name')}
        helperText={refused('name') ?? 'May be left open.'}
      />
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
        {hasFilm && <NumberField numbers={numbers} name="film" refused={refused('wet_film_um')} />}
        <NumberField numbers={numbers} name="minutes" refused={refused('hands_on_min')} />
        <NumberField numbers={numbers} name="share" refused={refused('share_of_area')} />
      </Stack>
      {kind?.section && (
        <Autocomplete
          freeSolo
          options={sections}
          inputValue={draft.section}
          onInputChange={(_, section) => change({ section })}
          renderInput={(field) => (
            <TextField
              {...field}
              label="Section of the picture"
              error={!!refused('section')}
              helperText={
                refused('section') ??
                'As you call it, with its share above: it dries by itself. Empty: the whole picture.'
              }
            />
          )}
        />
      )}
      {hasFilm && cups.length > 0 && (
        <TextField
          select
          label="Take the mix of"
          value=""
          onChange={(e) =>
            change({ mix: mixDraft(cups.find((s) => s.id === e.target.value)?.mix) })
          }
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">Keep what is below</MenuItem>
          {cups.map((s) => (
            <MenuItem key={s.id} value={s.id}>
              {start(s.name ?? kinds.find((k) => k.kind === s.kind)?.word ?? s.kind)}
            </MenuItem>
          ))}
        </TextField>
      )}
      {hasFilm && (
        <MixEditor
          mix={draft.mix}
          materials={materials}
          wrong={wrong.mix ?? refused('mix')}
          onChange={(mix) => change({ mix })}
        />
      )}
      <TextField
        select
        label="Needs"
        value={draft.needs}
        onChange={(e) => change({ needs: e.target.value as typeof draft.needs })}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      >
        <MenuItem value="">As usual for it: {kind && saidOf(needs, kind.needs)}</MenuItem>
        {needs.map((need) => (
          <MenuItem key={need.value} value={need.value}>
            {start(need.said)}
          </MenuItem>
        ))}
      </TextField>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
        <TextField
          label="Not before"
          type="datetime-local"
          value={draft.notBefore}
          onChange={(e) => change({ notBefore: e.target.value })}
          slotProps={{ inputLabel: { shrink: true } }}
          fullWidth
        />
        <NumberField numbers={numbers} name="gap" refused={refused('earliest_gap_min')} />
      </Stack>
      <FormControlLabel
        label="May be split over sessions"
        control={
          <Switch
            checked={draft.splittable ?? kind?.splittable ?? false}
            onChange={(e) => change({ splittable: e.target.checked })}
          />
        }
      />
    </FormDialog>
  );
}
