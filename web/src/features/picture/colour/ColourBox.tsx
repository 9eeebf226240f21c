import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import { Pair } from '../../../components/Pair';
import { Ladder } from '../../../figures/Ladder';
import { plain } from '../../../format/words';
import { SeenSwatch } from './SeenSwatch';

interface Props {
  colour: Schemas['ColourOut'];
  /** Whether another answer is on its way. */
  old: boolean;
  pending: boolean;
  /** Whose cup it is, and what is in it. */
  picture: { id: string; version: number };
  step: string;
  mix: Schemas['PartDoc'][];
  film: number;
  /** How it should look in the end, when that is said. */
  wanted?: string;
  onWanted: (colour?: string) => void;
  /** Coats of this step that the picture is to have. */
  onPlan: (coats: number) => void;
}

/** How many coats it takes, in words. */
function hiding(colour: Schemas['ColourOut']): string {
  if (colour.hides_in === null) return 'What lies below keeps showing.';
  return colour.hides_in === 1
    ? 'One coat hides what lies there.'
    : `It takes ${colour.hides_in} coats to hide what lies there.`;
}

/** How many coats come nearest to the wish, in words. */
function deepEnough({ coats, said }: Schemas['NearestOut']): string {
  if (coats === 0) return `Every coat of it leads away from that: as it is, ${said}`;
  return coats === 1 ? `One coat comes nearest: ${said}` : `${coats} coats come nearest: ${said}`;
}

/** What a coat of the cup looks like, before it is painted. */
export function ColourBox({ colour, old, pending, wanted, onWanted, onPlan, ...cup }: Props) {
  const [coats, setCoats] = useState(1);
  const { nearest } = colour;
  const [under, one] = [colour.face.seen[0] ?? '', colour.face.seen[1] ?? ''];
  const swatches = [
    { name: 'Over white', pair: [colour.cards[0] ?? '', colour.over_white] },
    { name: 'Over black', pair: [colour.cards[1] ?? '', colour.over_black] },
    { name: 'On the picture', pair: [under, one] },
  ] as const;
  return (
    <Box
      component="section"
      aria-label="What it will look like"
      sx={{ mt: 4, opacity: old ? 0.6 : 1 }}
    >
      <Typography variant="h3">What it will look like</Typography>
      <Typography sx={{ mb: 1.5 }}>
        Dry, one coat: bare on the left, with the coat on the right. {hiding(colour)}
      </Typography>
      <Box sx={{ display: 'flex', gap: 2.5, flexWrap: 'wrap' }}>
        {swatches.map(({ name, pair }) => (
          <Box key={name}>
            <Pair colours={[...pair]} label={`${name}: ${pair[0]}, with the coat ${pair[1]}`} />
            <Typography>{name}</Typography>
          </Box>
        ))}
      </Box>
      <Typography sx={{ mt: 2, mb: 1 }}>
        Coat after coat, on the picture and over lighter and darker underpaintings. Touch how deep
        you want it.
      </Typography>
      <Ladder colour={colour} coats={coats} onPick={setCoats} />
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', mt: 1.5 }}>
        {wanted === undefined ? (
          <Button variant="text" onClick={() => onWanted(colour.face.seen.at(-1))}>
            How many until it is deep enough?
          </Button>
        ) : (
          <>
            <TextField
              label="Deep enough at"
              type="color"
              value={wanted}
              onChange={(e) => onWanted(e.target.value)}
              sx={{ width: 140 }}
            />
            {nearest && (
              <>
                <Typography role="status">
                  {deepEnough(nearest)} (CIEDE2000 {plain(nearest.apart)}).
                </Typography>
                {nearest.coats > 0 && nearest.coats !== coats && (
                  <Button variant="text" onClick={() => setCoats(nearest.coats)}>
                    Choose that
                  </Button>
                )}
              </>
            )}
            <Button variant="text" onClick={() => onWanted()}>
              No wish
            </Button>
          </>
        )}
      </Box>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', mt: 1.5 }}>
        <Button disabled={coats < 2 || pending} onClick={() => onPlan(coats)}>
          {coats < 2 ? 'One coat, as planned' : `Plan ${coats} coats of it`}
        </Button>
        <Typography color="text.secondary">
          A screen is not paint: make a swatch before you trust it.
        </Typography>
      </Box>
      <SeenSwatch colour={colour} {...cup} />
      {colour.sources.map((sentence) => (
        <Typography key={sentence} color="text.secondary" sx={{ mt: 1 }}>
          {sentence}.
        </Typography>
      ))}
      {colour.untold.map((sentence) => (
        <Typography key={sentence} role="note" sx={{ mt: 1 }}>
          {sentence}.
        </Typography>
      ))}
    </Box>
  );
}
