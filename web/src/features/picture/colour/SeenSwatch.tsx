import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useHappened } from '../../../api/edits';
import type { Schemas } from '../../../api/client';
import { fieldError, otherError } from '../../../components/fieldError';
import { FormDialog } from '../../../components/FormDialog';
import { Pair } from '../../../components/Pair';
import { SwatchPhoto } from '../../../components/SwatchPhoto';
import { plain, start } from '../../../format/words';

interface Props {
  colour: Schemas['ColourOut'];
  picture: { id: string; version: number };
  step: string;
  mix: Schemas['PartDoc'][];
  film: number;
}

/** The swatch that was made of these paints beside what was predicted, and keeping one. */
export function SeenSwatch({ colour, picture, step, mix, film }: Props) {
  const [open, setOpen] = useState(false);
  const { seen } = colour;
  const over = ['Over white', 'Over black'];
  return (
    <Box sx={{ mt: 2 }}>
      {seen && (
        <>
          <Typography>
            These colours start from your swatch: {seen.said} from what was predicted (CIEDE2000{' '}
            {plain(seen.apart)}). Predicted on the left, seen on the right.
          </Typography>
          <Box sx={{ display: 'flex', gap: 2.5, flexWrap: 'wrap', mt: 1 }}>
            {over.map((name, n) => {
              const pair: [string, string] = [seen.predicted[n] ?? '', seen.seen[n] ?? ''];
              return (
                <Box key={name}>
                  <Pair
                    colours={pair}
                    label={`${name}: predicted ${pair[0]}, seen ${pair[1]}`}
                    height={48}
                  />
                  <Typography>{name}</Typography>
                </Box>
              );
            })}
          </Box>
        </>
      )}
      <Button sx={{ mt: 1 }} onClick={() => setOpen(true)}>
        {seen ? 'Keep a newer swatch' : 'Keep the swatch you made'}
      </Button>
      {open && (
        <SwatchDialog
          colour={colour}
          picture={picture}
          step={step}
          mix={mix}
          film={film}
          onClose={() => setOpen(false)}
        />
      )}
    </Box>
  );
}

function SwatchDialog({
  colour,
  picture,
  step,
  mix,
  film,
  onClose,
}: Props & { onClose: () => void }) {
  const keep = useHappened();
  const [overWhite, setOverWhite] = useState(colour.over_white);
  const [overBlack, setOverBlack] = useState(colour.over_black);
  const wrong = fieldError(keep.error, 'over_white');
  const read = (label: string, value: string, set: (v: string) => void, why?: string) => (
    <TextField
      label={label}
      type="color"
      value={value}
      onChange={(e) => set(e.target.value)}
      error={!!why}
      helperText={why && start(why)}
      sx={{ width: 170 }}
    />
  );
  return (
    <FormDialog
      title="The swatch you made"
      send="Keep it"
      sending="Keeping…"
      width="md"
      pending={keep.isPending}
      trouble={otherError(keep.error, (path) => path === 'over_white')}
      onSend={() =>
        keep.mutate(
          {
            ...picture,
            said: 'A swatch that was made',
            step,
            what: {
              kind: 'swatch',
              mix,
              wet_film_um: film,
              over_white: overWhite,
              over_black: overBlack,
            },
          },
          { onSuccess: onClose },
        )
      }
      onClose={onClose}
    >
      <Typography>
        One coat of this cup, {plain(film, 0)} µm wet, over a white and a black card, dry. What you
        see is kept beside what was predicted, and the next prediction of these paints starts from
        it.
      </Typography>
      <SwatchPhoto
        onRead={(seen) => {
          setOverWhite(seen.over_white);
          setOverBlack(seen.over_black);
        }}
      />
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap' }}>
        {read('Seen over white', overWhite, setOverWhite, wrong)}
        {read('Seen over black', overBlack, setOverBlack)}
        <Pair
          colours={[colour.over_white, overWhite]}
          label={`Over white: predicted ${colour.over_white}, seen ${overWhite}`}
          height={56}
        />
        <Pair
          colours={[colour.over_black, overBlack]}
          label={`Over black: predicted ${colour.over_black}, seen ${overBlack}`}
          height={56}
        />
      </Box>
    </FormDialog>
  );
}
