import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { ApiError, type Schemas } from '../api/client';
import { readSwatch, type Place } from '../api/queries';
import { Pair } from './Pair';
import { PointAt } from './PointAt';
import { plain, start } from '../format/words';

/** What is pointed at, in this order: the names of the places, and how they are said. */
const PLACES = [
  { place: 'white', said: 'the bare white half' },
  { place: 'black', said: 'the bare black half' },
  { place: 'over_white', said: 'the paint over the white half' },
  { place: 'over_black', said: 'the paint over the black half' },
  { place: 'tint', said: 'its tint' },
] as const;
/** How many of them are needed: the tint need not be there. */
const NEEDED = 4;

interface Props {
  /** Whether its tint may be pointed at too. */
  tint?: boolean;
  onRead: (read: Schemas['SwatchOut']) => void;
}

/** A paint read from a photograph of its swatch over a white and a black card. */
export function SwatchPhoto({ tint, onRead }: Props) {
  const [file, setFile] = useState<File>();
  const [src, setSrc] = useState<string>();
  const [touched, setTouched] = useState<Place[]>([]);
  const read = useMutation({
    mutationFn: (places: Place[]) => {
      if (!file) throw new Error('there is no photograph');
      const [white, black, overWhite, overBlack] = places as [Place, Place, Place, Place];
      const four = { white, black, over_white: overWhite, over_black: overBlack };
      return readSwatch(file, four, places[NEEDED]);
    },
    onSuccess: onRead,
  });
  useEffect(() => () => (src ? URL.revokeObjectURL(src) : undefined), [src]);
  const open = touched.length < NEEDED || (tint && read.data);
  const next = open ? PLACES[touched.length] : undefined;
  const wrong =
    read.error instanceof ApiError
      ? PLACES.find((p) => p.place === (read.error as ApiError).problem.path)
      : undefined;
  const again = () => {
    setTouched([]);
    read.reset();
  };
  return (
    <Box component="section" aria-label="From a photograph of its swatch">
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
        <Button component="label">
          {file ? 'Another photograph' : 'Read it from a photograph'}
          <input
            type="file"
            accept="image/jpeg,image/png,image/webp"
            hidden
            aria-label="Photograph of the swatch"
            onChange={(e) => {
              const chosen = e.target.files?.[0];
              if (chosen) {
                setFile(chosen);
                setSrc(URL.createObjectURL(chosen));
                again();
              }
              e.target.value = '';
            }}
          />
        </Button>
        {touched.length > 0 && <Button onClick={again}>Point again</Button>}
      </Box>
      <Typography sx={{ mt: 1 }} role="status">
        {!src
          ? 'Draw the paint over the border of a white and a black card, leave both bare beside it, and photograph all four in even daylight without glare.'
          : next && touched.length < NEEDED
            ? `${touched.length + 1} of ${NEEDED}: touch ${next.said}.`
            : read.isPending
              ? 'Reading it…'
              : read.data
                ? `Read: over the white card ${read.data.over_white}, over the black one ${read.data.over_black}${read.data.tint ? `, its tint ${read.data.tint}` : ''}, even within ${plain(read.data.uneven_by)} (CIEDE2000).`
                : ''}
      </Typography>
      {next?.place === 'tint' && read.data && (
        <Typography sx={{ mt: 0.5 }}>
          If its tint with white lies beside it, touch that too: it tells how strong the paint is in
          a mix.
        </Typography>
      )}
      {read.data?.uneven && (
        <Typography role="note" sx={{ fontWeight: 600 }}>
          The film is uneven there: draw it down again, or point at a calmer place.
        </Typography>
      )}
      {read.error && (
        <Typography role="alert" color="error" sx={{ fontWeight: 600 }}>
          {wrong ? start(read.error.message.replace(`${wrong.place}: `, '')) : read.error.message}{' '}
          Point again.
        </Typography>
      )}
      {src && (
        <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', mt: 1.5, alignItems: 'flex-start' }}>
          <PointAt
            src={src}
            label={next ? `The photograph: touch ${next.said}` : 'The photograph'}
            marks={touched.map((place, n) => ({ ...place, sign: String(n + 1) }))}
            disabled={!next}
            onTouch={(place) => {
              const places = [...touched, place];
              setTouched(places);
              if (places.length >= NEEDED) read.mutate(places);
            }}
          />
          {read.data && (
            <Pair
              colours={[read.data.over_white, read.data.over_black]}
              label={`Over white ${read.data.over_white}, over black ${read.data.over_black}`}
            />
          )}
        </Box>
      )}
    </Box>
  );
}
