import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { FormDialog } from '../../components/FormDialog';
import { put, type useShelfEdit } from '../../components/useShelfEdit';
import { v4 as newId } from 'uuid';

interface Props {
  doc: Schemas['PictureDoc'];
  shelf: ReturnType<typeof useShelfEdit>;
  onClose: () => void;
}

/** The steps of a picture as a way of working, new or in place of one. */
export function SaveWay({ doc, shelf, onClose }: Props) {
  const ways = shelf.stored?.ways ?? [];
  const [over, setOver] = useState('');
  const old = ways.find((w) => w.id === over);
  const [name, setName] = useState('');
  const [why, setWhy] = useState('');
  const keep = () =>
    shelf.edit(
      `keep the way ${name.trim()}`,
      (shelfDoc) => ({
        ...shelfDoc,
        ways: put(shelfDoc.ways, {
          id: old?.id ?? newId(),
          name: name.trim(),
          why: why.trim(),
          // A plan: what was laid here, its tubs and its days are this picture's own.
          steps: (doc.steps ?? []).map((s) => ({
            ...s,
            laid_at: undefined,
            not_before: undefined,
            tub: undefined,
            cup_g: undefined,
          })),
        }),
      }),
      onClose,
    );
  return (
    <FormDialog
      title="Save as a way of working"
      send="Keep it"
      sending="Keeping…"
      width="xs"
      pending={shelf.pending}
      disabled={!name.trim() || !why.trim()}
      trouble={shelf.conflict?.problem.detail ?? shelf.refusal?.message}
      onSend={keep}
      onClose={() => {
        shelf.forget();
        onClose();
      }}
    >
      <Typography>
        {doc.steps?.length ?? 0} steps with their films, mixes and waits; nothing laid, no days.
      </Typography>
      <TextField
        select
        label="As"
        value={over}
        onChange={(e) => {
          const chosen = ways.find((w) => w.id === e.target.value);
          setOver(e.target.value);
          setName(chosen?.name ?? '');
          setWhy(chosen?.why ?? '');
        }}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      >
        <MenuItem value="">A new one</MenuItem>
        {ways.map((w) => (
          <MenuItem key={w.id} value={w.id}>
            In place of “{w.name}”
          </MenuItem>
        ))}
      </TextField>
      <TextField label="What you call it" value={name} onChange={(e) => setName(e.target.value)} />
      <TextField
        label="Why you work like this"
        value={why}
        onChange={(e) => setWhy(e.target.value)}
      />
    </FormDialog>
  );
}
