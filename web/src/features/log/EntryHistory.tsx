import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { daybookQuery, pictureLogQuery } from '../../api/queries';
import { exact } from '../../format/time';
import { plain } from '../../format/words';

type Entry = Schemas['LogOut'];

/** What an entry said before it was put right, the last first: nothing of the log is ever changed. */
export function EntryHistory({
  studio,
  picture,
  entry,
  zone,
}: {
  studio: string;
  /** None for an entry of the day book. */
  picture: string | null;
  entry: Entry;
  zone: string;
}) {
  const [open, setOpen] = useState(false);
  const ofPicture = useQuery({ ...pictureLogQuery(picture ?? ''), enabled: open && !!picture });
  const ofStudio = useQuery({ ...daybookQuery(studio), enabled: open && !picture });
  const log = picture ? ofPicture : ofStudio;
  if (entry.corrects === null) return null;
  const before: Entry[] = [];
  const of = (number: number | null) => log.data?.find((e) => e.number === number);
  for (let one = of(entry.corrects); one; one = of(one.corrects)) before.push(one);
  return (
    <Box>
      <Button
        variant="text"
        aria-expanded={open}
        onClick={() => setOpen((was) => !was)}
        sx={{ px: 0, textDecoration: 'underline', textUnderlineOffset: 4 }}
      >
        {open ? 'Hide what stood before' : 'Put right: what stood before'}
      </Button>
      {open && log.error && (
        <Typography role="alert" color="error">
          {log.error.message}
        </Typography>
      )}
      {open &&
        before.map((e) => (
          <Typography key={e.number} color="text.secondary" sx={{ overflowWrap: 'anywhere' }}>
            {[
              `${exact(Date.parse(e.at), zone)}, entered ${exact(Date.parse(e.entered_at), zone)}`,
              typeof e.wet_film_um === 'number' ? `${plain(e.wet_film_um)} µm wet` : null,
              e.said,
              e.words && `“${e.words}”`,
            ]
              .filter(Boolean)
              .join(' · ')}
          </Typography>
        ))}
    </Box>
  );
}
