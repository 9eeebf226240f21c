import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../../api/client';
import { useCatalogue, type Word } from '../../components/catalogue';
import { fieldError, otherError } from '../../components/fieldError';
import { FormDialog } from '../../components/FormDialog';
import { NumberField } from '../../components/NumberField';
import { isoDay } from '../../format/time';
import { put, type useShelfEdit } from '../../components/useShelfEdit';
import { SwatchPhoto } from '../../components/SwatchPhoto';
import { TintFields } from './TintFields';
import { useMaterialDraft } from './useMaterialDraft';

type Material = Schemas['MaterialDoc'];

interface Props {
  material?: Material;
  leftMl: number | null;
  /** The shelf, for the white of its tint. */
  shelf: Material[];
  /** Its place in the list, to find what the server refused. */
  index: number;
  zone: string;
  now: number;
  edits: ReturnType<typeof useShelfEdit>;
  onClose: () => void;
}

const grid = {
  display: 'grid',
  gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr 1fr' },
  gap: 2,
} as const;

/** A material with every number the computation uses, and where it comes from. */
export function MaterialDialog({
  material,
  leftMl,
  shelf,
  index,
  zone,
  now,
  edits,
  onClose,
}: Props) {
  const { draft, change, numbers, wrong, made } = useMaterialDraft(material, leftMl, now);
  const { material_kinds: kinds, lines, opacities, finishes } = useCatalogue();
  const base = `materials[${index}]`;
  const refused = (field: string) => fieldError(edits.refusal, `${base}.${field}`);
  const shown = [
    ...['name', 'over_white', 'over_black', 'tint.colour', 'tint.white', 'tint.white_parts'],
    ...Object.keys(numbers.texts),
  ];
  const other = otherError(edits.refusal, (path) => shown.some((f) => path === `${base}.${f}`));
  const keep = () => {
    const entry = made();
    edits.edit(
      `${material ? 'edit' : 'add'} ${entry.name}`,
      (doc) => ({ ...doc, materials: put(doc.materials, entry) }),
      onClose,
    );
  };
  const number = (name: keyof typeof numbers.texts) => (
    <NumberField numbers={numbers} name={name} refused={refused(name)} />
  );
  const choice = (
    label: string,
    field: 'kind' | 'line' | 'opacity' | 'finish',
    options: Word[],
    open = true,
  ) => (
    <TextField
      select
      label={label}
      value={draft[field]}
      onChange={(e) => change({ [field]: e.target.value })}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
    >
      {open && <MenuItem value="">Not said</MenuItem>}
      {options.map((word) => (
        <MenuItem key={word.value} value={word.value}>
          {word.said}
        </MenuItem>
      ))}
      {field === 'kind' && !options.some((word) => word.value === draft.kind) && (
        <MenuItem value={draft.kind}>{draft.kind}</MenuItem>
      )}
    </TextField>
  );
  return (
    <FormDialog
      title={material ? 'Edit the material' : 'Add a material'}
      send={material ? 'Keep' : 'Put it on the shelf'}
      sending="Keeping…"
      leave="Cancel"
      width="md"
      pending={edits.pending}
      disabled={Object.keys(wrong).length > 0}
      trouble={other}
      onSend={keep}
      onClose={() => {
        edits.forget();
        onClose();
      }}
    >
      <TextField
        label="What you call it"
        value={draft.name}
        autoFocus
        onChange={(e) => change({ name: e.target.value })}
        error={!!refused('name')}
        helperText={refused('name')}
      />
      <Box sx={grid}>
        {choice('Kind', 'kind', kinds, false)}
        {draft.kind === 'paint' && choice('Line', 'line', lines)}
        {draft.kind === 'paint' && choice('Hides', 'opacity', opacities)}
        {draft.kind !== 'paint' && choice('Finish', 'finish', finishes)}
      </Box>
      <Box sx={grid}>
        {(Object.keys(numbers.texts) as (keyof typeof numbers.texts)[])
          .filter((name) => name !== 'swatch_dry_um' && name !== 'white_parts')
          .map((name) => (
            <Box key={name}>{number(name)}</Box>
          ))}
      </Box>
      {wrong.sum && (
        <Typography role="alert" color="error" sx={{ fontWeight: 600 }}>
          {wrong.sum}
        </Typography>
      )}
      <Box sx={grid}>
        <TextField
          label="Pigments"
          value={draft.pigments}
          onChange={(e) => change({ pigments: e.target.value })}
          helperText="Colour Index names, as in PB29."
        />
        {!draft.read && (
          <TextField
            label="Colour on the screen"
            type="color"
            value={draft.swatch}
            onChange={(e) => change({ swatch: e.target.value })}
            helperText="A screen is not paint."
          />
        )}
      </Box>
      <FormControlLabel
        label="Read over a white and a black card: how it mixes and hides is computed from that"
        control={
          <Switch checked={draft.read} onChange={(e) => change({ read: e.target.checked })} />
        }
      />
      {draft.read && (
        <SwatchPhoto
          tint
          onRead={(read) =>
            change({
              ...(read.tint ? { tinted: true, tint: read.tint } : {}),
              overWhite: read.over_white,
              overBlack: read.over_black,
              // The bare halves were made the usual cards.
              cards: undefined,
              colourSource: `photograph of a swatch, ${isoDay(now, zone)}`,
            })
          }
        />
      )}
      {draft.read && (
        <Box sx={grid}>
          <TextField
            label="Over the white card"
            type="color"
            value={draft.overWhite}
            onChange={(e) => change({ overWhite: e.target.value })}
            error={!!refused('over_white')}
            helperText={refused('over_white')}
          />
          <TextField
            label="Over the black card"
            type="color"
            value={draft.overBlack}
            onChange={(e) => change({ overBlack: e.target.value })}
            error={!!refused('over_black')}
            helperText={refused('over_black')}
          />
          <Box>{number('swatch_dry_um')}</Box>
          <TextField
            label="Where these colours come from"
            value={draft.colourSource}
            onChange={(e) => change({ colourSource: e.target.value })}
            sx={{ gridColumn: '1 / -1' }}
          />
        </Box>
      )}
      {draft.read && draft.kind === 'paint' && (
        <TintFields
          draft={draft}
          change={change}
          parts={number('white_parts')}
          whites={shelf.filter((m) => m.kind === 'paint' && m.over_white && m.id !== material?.id)}
          missing={wrong.white}
          refused={(field) => refused(`tint.${field}`) ?? ''}
        />
      )}
      <TextField
        label="What can hurt"
        multiline
        value={draft.hazards}
        onChange={(e) => change({ hazards: e.target.value })}
        helperText="From its safety data sheet, in plain words."
      />
      <TextField
        label="Where the numbers come from"
        value={draft.source}
        onChange={(e) => change({ source: e.target.value })}
      />
    </FormDialog>
  );
}
