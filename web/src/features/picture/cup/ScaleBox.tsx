import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import { useScale } from '../../../api/edits';
import { scaleQuery } from '../../../api/queries';
import { useCurrentStudio } from '../../../components/currentStudio';
import { typed } from '../../../format/number';
import { plain } from '../../../format/words';

interface Props {
  cup: Schemas['CupOut'];
  materials: Schemas['MaterialDoc'][];
  /** What the full cup weighed [g], when it was weighed. */
  weighed?: number | null;
  pending: boolean;
  onWeighed: (grams: number) => void;
}

/** Mixing by weight: set the cup to zero, pour to each mark, weigh it before and after the coat. */
export function ScaleBox({ cup, materials, weighed, pending, onWeighed }: Props) {
  const studio = useCurrentStudio().id;
  const scale = useQuery(scaleQuery(studio));
  const act = useScale(studio);
  const [load, setLoad] = useState<string>();
  const shows = scale.data?.shows_g;
  const by = scale.data?.by;
  const known = cup.parts.every((p) => p.grams !== null);
  const mark = (i: number) => cup.parts.slice(0, i + 1).reduce((sum, p) => sum + (p.grams ?? 0), 0);
  const put = (text: string) => {
    setLoad(text);
    if (typed(text) >= 0) act.mutate({ load_g: typed(text) });
  };
  return (
    <Box component="section" aria-label="Scale" sx={{ mt: 4 }}>
      <Typography variant="h3">By weight</Typography>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap', mt: 1 }}>
        <Typography sx={{ fontSize: 30, fontWeight: 700, minWidth: 150 }} data-testid="scale">
          {shows === undefined ? '– g' : `${shows.toFixed(2)} g`}
        </Typography>
        <TextField
          label={by ? `“${by}” weighs, g` : 'On the simulated scale, g'}
          value={(by ? undefined : load) ?? (scale.data ? plain(scale.data.load_g, 2) : '')}
          onChange={(e) => put(e.target.value)}
          error={!!act.error}
          helperText={act.error?.message}
          slotProps={{ htmlInput: { inputMode: 'decimal', readOnly: !!by } }}
          sx={{ width: 230 }}
        />
        <Button disabled={act.isPending} onClick={() => act.mutate('tare')}>
          Set to zero
        </Button>
        <Button
          disabled={shows === undefined || shows <= 0 || pending}
          onClick={() => shows !== undefined && onWeighed(shows)}
        >
          Keep as the full cup
        </Button>
      </Box>
      {known ? (
        <Box component="ol" sx={{ mt: 1, mb: 0, pl: 3 }}>
          <li>Put the empty cup and the brush on it and set it to zero.</li>
          {cup.parts.map((part, i) => (
            <li key={part.material}>
              Pour {materials.find((m) => m.id === part.material)?.name ?? part.material} until it
              shows <b>{mark(i).toFixed(2)} g</b>.
            </li>
          ))}
          <li>
            Keep that as the full cup. After the coat weigh cup and brush again when you log it:
            what is missing is on the picture, and gives the real film.
          </li>
        </Box>
      ) : (
        <Typography sx={{ mt: 1 }}>
          The density of a part is not known, so it cannot be weighed. Give it on the shelf.
        </Typography>
      )}
      {typeof weighed === 'number' && (
        <Typography role="status" sx={{ mt: 1, fontWeight: 600 }}>
          The full cup weighed {plain(weighed, 2)} g.
        </Typography>
      )}
    </Box>
  );
}
