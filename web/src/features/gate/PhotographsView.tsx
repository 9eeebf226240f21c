import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import {
  useAddPhotograph,
  useDropPhotograph,
  useRestorePhotograph,
  useSavePhotograph,
} from '../../api/edits';
import { photographUrl } from '../../api/queries';
import { exact } from '../../format/time';
import { useSealing } from './Sealing';

/** Photographs of the picture, each with the coat it shows; bringing, naming, taking away. */
export function PhotographsView() {
  const { id, gate, picture, zone } = useSealing();
  const [step, setStep] = useState('');
  const [caption, setCaption] = useState('');
  const [gone, setGone] = useState<string>();
  const add = useAddPhotograph(id);
  const drop = useDropPhotograph();
  const restore = useRestorePhotograph();
  const done = (picture.picture.steps ?? []).filter((s) => s.laid_at);
  const title = (code?: string | null) => {
    const at = (picture.picture.steps ?? []).find((s) => s.id === code);
    return at ? (at.name ?? at.kind.replace('_', ' ')) : undefined;
  };
  const shot = gate.conditions.find((c) => c.id === 'photograph');
  return (
    <Box>
      {shot && <Typography sx={{ mb: 2, fontSize: 20 }}>{shot.evidence}</Typography>}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'flex-start', mb: 1 }}>
        <TextField
          select
          label="It shows"
          value={step}
          onChange={(e) => setStep(e.target.value)}
          slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
          sx={{ minWidth: 220 }}
        >
          <option value="">no step in particular</option>
          {done.map((s) => (
            <option key={s.id} value={s.id}>
              {title(s.id)}
            </option>
          ))}
        </TextField>
        <TextField
          label="Your words on it"
          value={caption}
          onChange={(e) => setCaption(e.target.value)}
          sx={{ minWidth: 260 }}
        />
        <Button component="label" variant="contained" disabled={add.isPending}>
          {add.isPending ? 'Developing…' : 'Bring a photograph'}
          <input
            type="file"
            accept="image/jpeg,image/png,image/webp"
            hidden
            aria-label="Photograph"
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) {
                add.mutate(
                  { file, caption: caption || undefined, step: step || undefined },
                  { onSuccess: () => setCaption('') },
                );
              }
              e.target.value = '';
            }}
          />
        </Button>
      </Box>
      <Typography color="text.secondary" sx={{ mb: 2 }}>
        JPEG, PNG or WebP, at most 16 MB. It is turned upright and kept without the place where it
        was taken.
      </Typography>
      {add.error && (
        <Typography role="alert" color="error" sx={{ mb: 2, fontWeight: 600 }}>
          It was not kept: {add.error.message}.
        </Typography>
      )}
      {drop.error && (
        <Typography role="alert" color="error" sx={{ mb: 2, fontWeight: 600 }}>
          It was not taken away: {drop.error.message}
        </Typography>
      )}
      {gone && (
        <Box role="status" sx={{ mb: 2 }}>
          A photograph was taken away.{' '}
          <Button onClick={() => restore.mutate(gone, { onSuccess: () => setGone(undefined) })}>
            Bring it back
          </Button>
        </Box>
      )}
      {gate.photographs.length === 0 && (
        <Typography>
          There is none yet. Take one after the last paint and before the first gloss: varnish
          glares.
        </Typography>
      )}
      <Box
        component="ul"
        sx={{
          listStyle: 'none',
          p: 0,
          display: 'grid',
          gap: 3,
          gridTemplateColumns: 'repeat(auto-fill, minmax(270px, 1fr))',
        }}
      >
        {gate.photographs.map((photograph) => (
          <Box component="li" key={photograph.id}>
            <a href={photographUrl(photograph.id, 'whole')} target="_blank" rel="noreferrer">
              <Box
                component="img"
                src={photographUrl(photograph.id, 'small')}
                alt={photograph.caption || 'Photograph of the picture'}
                sx={{ width: '100%', height: 270, objectFit: 'contain', bgcolor: '#8d8d8d' }}
              />
            </a>
            <Named
              key={photograph.version}
              photograph={photograph}
              steps={done.map((s) => ({ id: s.id, title: title(s.id) ?? s.id }))}
              when={exact(Date.parse(photograph.taken_at), zone)}
              shows={title(photograph.step)}
              onDrop={() =>
                drop.mutate(
                  { id: photograph.id, version: photograph.version },
                  { onSuccess: () => setGone(photograph.id) },
                )
              }
            />
          </Box>
        ))}
      </Box>
    </Box>
  );
}

interface NamedProps {
  photograph: Schemas['PhotographOut'];
  steps: { id: string; title: string }[];
  when: string;
  shows?: string;
  onDrop: () => void;
}

/** What is said of a photograph, and changing it. */
function Named({ photograph, steps, when, shows, onDrop }: NamedProps) {
  const [editing, setEditing] = useState(false);
  const [caption, setCaption] = useState(photograph.caption);
  const [step, setStep] = useState(photograph.step ?? '');
  const save = useSavePhotograph();
  if (!editing) {
    return (
      <Box>
        <Typography sx={{ fontWeight: 600, overflowWrap: 'anywhere' }}>
          {photograph.caption || 'No words on it'}
        </Typography>
        <Typography color="text.secondary">
          {when}
          {shows ? `, shows ${shows}` : ''}, {photograph.width} × {photograph.height} px
        </Typography>
        <Button variant="text" sx={{ px: 0, mr: 2 }} onClick={() => setEditing(true)}>
          Change the words
        </Button>
        <Button variant="text" sx={{ px: 0 }} onClick={onDrop}>
          Take away
        </Button>
      </Box>
    );
  }
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5, mt: 1.5 }}>
      <TextField label="Words" value={caption} onChange={(e) => setCaption(e.target.value)} />
      <TextField
        select
        label="Shows"
        value={step}
        onChange={(e) => setStep(e.target.value)}
        slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
      >
        <option value="">no step in particular</option>
        {steps.map((s) => (
          <option key={s.id} value={s.id}>
            {s.title}
          </option>
        ))}
      </TextField>
      {save.error && (
        <Typography role="alert" color="error">
          {save.error.message}
        </Typography>
      )}
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          variant="contained"
          disabled={save.isPending}
          onClick={() =>
            save.mutate(
              {
                photograph: photograph.id,
                version: photograph.version,
                taken_at: photograph.taken_at,
                step: step || null,
                caption,
              },
              { onSuccess: () => setEditing(false) },
            )
          }
        >
          Keep the words
        </Button>
        <Button onClick={() => setEditing(false)}>Leave them</Button>
      </Box>
    </Box>
  );
}
