import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { fieldError, otherError } from '../../components/fieldError';
import { FormDialog } from '../../components/FormDialog';
import { fromField, toField } from '../../format/time';
import type { Entry } from './useHappening';

export interface Note {
  at: string;
  step?: string;
  material?: string;
  place: string;
  words: string;
  /** When a session ended. */
  until?: string;
}

interface Props {
  title: string;
  /** The entry that is put right; a new note without one. */
  entry?: Entry;
  /** The steps of the picture; none for the day book, which is about no picture. */
  steps?: { id: string; title: string }[];
  /** The material that it is about to begin with. */
  about?: string;
  materials: Schemas['MaterialDoc'][];
  zone: string;
  now: number;
  pending: boolean;
  error: unknown;
  onKeep: (note: Note) => void;
  onClose: () => void;
}

/** A note on a picture, a coat or a material, with its place; or what is said of another entry. */
export function NoteDialog(props: Props) {
  const { title, entry, steps, about, materials, zone, now, pending, error, onKeep, onClose } =
    props;
  const [when, setWhen] = useState(() => toField(entry ? Date.parse(entry.at) : now, zone));
  const [first] = useState(when);
  const [words, setWords] = useState(entry?.words ?? '');
  const [place, setPlace] = useState(entry?.place ?? '');
  const [step, setStep] = useState('');
  const [material, setMaterial] = useState(entry?.material ?? about ?? '');
  const session = entry?.what.kind === 'session' ? entry.what : undefined;
  const [end, setEnd] = useState(() => (session ? toField(Date.parse(session.until), zone) : ''));
  const until = session && fromField(end, zone);
  const typedAt = fromField(when, zone);
  // Left as it was it is the very moment, seconds and all.
  const at = when === first ? (entry?.at ?? new Date(now).toISOString()) : typedAt;
  const note = !entry || entry.what.kind === 'noted';
  const fields = ['at', 'words', 'place', 'material', 'until'];
  const field = (name: string) => ({
    error: !!fieldError(error, name),
    helperText: fieldError(error, name),
  });
  return (
    <FormDialog
      title={title}
      send="Keep"
      sending="Keeping…"
      pending={pending}
      disabled={!at || (session && !until) || (note && words.trim() === '')}
      trouble={otherError(error, (path) => fields.includes(path))}
      onSend={() =>
        at &&
        onKeep({
          at,
          step: step || undefined,
          material: material || undefined,
          place,
          words,
          until,
        })
      }
      onClose={onClose}
    >
      <TextField
        label="What you want to remember"
        multiline
        minRows={2}
        autoFocus
        value={words}
        onChange={(e) => setWords(e.target.value)}
        {...field('words')}
      />
      {steps && (
        <TextField
          label="Where on the picture"
          placeholder="sky, lower left glass"
          value={place}
          onChange={(e) => setPlace(e.target.value)}
          slotProps={{ inputLabel: { shrink: true } }}
          {...field('place')}
        />
      )}
      {!entry && steps && (
        <TextField
          select
          label="On which step"
          value={step}
          onChange={(e) => setStep(e.target.value)}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">The picture as a whole</MenuItem>
          {steps.map((s) => (
            <MenuItem key={s.id} value={s.id}>
              {s.title}
            </MenuItem>
          ))}
        </TextField>
      )}
      <TextField
        select
        label="About a material"
        value={material}
        onChange={(e) => setMaterial(e.target.value)}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        {...field('material')}
      >
        <MenuItem value="">None</MenuItem>
        {materials.map((m) => (
          <MenuItem key={m.id} value={m.id}>
            {m.name}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label={session ? 'From' : 'When'}
        type="datetime-local"
        value={when}
        onChange={(e) => setWhen(e.target.value)}
        error={!at || !!fieldError(error, 'at')}
        helperText={at ? fieldError(error, 'at') : 'Give a day and a time.'}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      {session && (
        <TextField
          label="Until"
          type="datetime-local"
          value={end}
          onChange={(e) => setEnd(e.target.value)}
          error={!until || !!fieldError(error, 'until')}
          helperText={until ? fieldError(error, 'until') : 'Give a day and a time.'}
          slotProps={{ inputLabel: { shrink: true } }}
        />
      )}
    </FormDialog>
  );
}
