import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../../api/client';
import { useCatalogue } from '../../components/catalogue';
import type { Touching } from './useTouching';

interface Props {
  touching: Touching;
  picture: { id: string; version: number; title: string };
  coat: { step: string; title: string };
}

/** A fingertip on a coat, in one touch: what does it feel like? */
export function TouchBar({ touching, picture, coat }: Props) {
  const { touches } = useCatalogue();
  return (
    <Box
      role="group"
      aria-label={`A fingertip on ${coat.title} of ${picture.title}`}
      sx={{ mt: 1 }}
    >
      <Typography color="text.secondary" sx={{ mb: 0.5 }}>
        Touch test
      </Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {touches.map(({ value, said }) => (
          <Button
            key={value}
            disabled={touching.pending}
            title={said}
            onClick={() => touching.touch(picture, coat, value as Schemas['TouchDoc']['felt'])}
            sx={{ minHeight: 44, minWidth: 56, px: 1.5 }}
          >
            {value}
          </Button>
        ))}
      </Box>
    </Box>
  );
}

/** What the last fingertip moved, and the way back. */
export function TouchMoves({ touching }: { touching: Touching }) {
  const { last, error } = touching;
  return (
    <Box role="status">
      {error && (
        <Typography color="error" sx={{ mt: 1, fontWeight: 600 }}>
          {error.message}
        </Typography>
      )}
      {last && (
        <Box sx={{ border: 1, p: 1.5, my: 1.5, maxWidth: 760 }}>
          <Typography sx={{ fontWeight: 700 }}>{last.title}</Typography>
          {last.moves.map((sentence) => (
            <Typography key={sentence}>{sentence}</Typography>
          ))}
          <Box sx={{ display: 'flex', gap: 1, mt: 1, flexWrap: 'wrap' }}>
            {last.back && (
              <Button disabled={touching.pending} onClick={last.back}>
                Take it back
              </Button>
            )}
            <Button variant="text" onClick={touching.close}>
              Close
            </Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}
