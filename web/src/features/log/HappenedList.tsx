import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { saidOf, useCatalogue, type Catalogue } from '../../components/catalogue';
import { exact } from '../../format/time';
import { plain } from '../../format/words';
import { NoteDialog } from './NoteDialog';
import type { Entry, Happening } from './useHappening';

interface Props {
  happening: Happening;
  picture: { id: string; version: number; title: string };
  entries: Entry[];
  steps: { id: string; title: string }[];
  materials: Schemas['MaterialDoc'][];
  zone: string;
  now: number;
}

/** What happened, in a word. */
function happenedWord(what: Entry['what'], catalogue: Catalogue): string {
  switch (what.kind) {
    case 'noted':
      return 'Note';
    case 'misted':
      return 'Palette misted';
    case 'wiped_off':
      return 'Wiped off';
    case 'sanded':
      return typeof what.dry_um === 'number'
        ? `Sanded, ${plain(what.dry_um, 0)} µm`
        : 'Sanded through to the coat below';
    case 'trouble':
      return saidOf(catalogue.paint_troubles, what.trouble);
    case 'swatch':
      return 'Swatch';
    case 'session':
      return 'Session';
  }
}

/** Notes and what happened on one picture, the last first; each can be put right or taken back. */
export function HappenedList(props: Props) {
  const { happening, picture, entries, steps, materials, zone, now } = props;
  const catalogue = useCatalogue();
  const [open, setOpen] = useState<Entry | 'new'>();
  const title = (id?: string | null) => steps.find((s) => s.id === id)?.title;
  const name = (id?: string | null) => materials.find((m) => m.id === id)?.name ?? id;
  const close = () => {
    setOpen(undefined);
    if (happening.error) happening.close();
  };
  return (
    <Box component="section" aria-label="Notes and what happened" sx={{ mt: 4 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h3">Notes and what happened</Typography>
        <Button onClick={() => setOpen('new')}>Write a note</Button>
        <Button component={Link} to={`/log?picture=${picture.id}`}>
          Everything done on it
        </Button>
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {[...entries].reverse().map((entry) => (
          <Box
            component="li"
            key={JSON.stringify(entry)}
            sx={{
              display: 'flex',
              gap: 1.5,
              flexWrap: 'wrap',
              alignItems: 'center',
              py: 1,
              borderBottom: 1,
              borderColor: 'divider',
            }}
          >
            <Box sx={{ flex: 1, minWidth: 220 }}>
              <Typography>
                {exact(Date.parse(entry.at), zone)}: <b>{happenedWord(entry.what, catalogue)}</b>
                {title(entry.step) ? `, ${title(entry.step)}` : ''}
                {entry.place ? `, ${entry.place}` : ''}
                {entry.material ? `, ${name(entry.material)}` : ''}
              </Typography>
              {entry.words && (
                <Typography sx={{ whiteSpace: 'pre-line', overflowWrap: 'anywhere' }}>
                  {entry.words}
                </Typography>
              )}
            </Box>
            <Button variant="text" disabled={happening.pending} onClick={() => setOpen(entry)}>
              Put it right
            </Button>
            <Button
              variant="text"
              disabled={happening.pending}
              onClick={() => happening.retell(picture, entry, undefined)}
            >
              Take it back
            </Button>
          </Box>
        ))}
      </Box>
      {open && (
        <NoteDialog
          title={open === 'new' ? `A note: ${picture.title}` : 'Put the entry right'}
          entry={open === 'new' ? undefined : open}
          steps={steps}
          materials={materials}
          zone={zone}
          now={now}
          pending={happening.pending}
          error={happening.error}
          onKeep={({ step, ...instead }) =>
            open === 'new'
              ? happening.tell(
                  picture,
                  'The note is kept.',
                  { ...instead, step, what: { kind: 'noted' } },
                  close,
                )
              : happening.retell(picture, open, instead, close)
          }
          onClose={close}
        />
      )}
    </Box>
  );
}
