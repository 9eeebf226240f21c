import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import type { Schemas } from '../../../api/client';
import { Pair } from '../../../components/Pair';
import { mixWords } from '../../../format/words';

interface Props {
  /** What is wished for or there, and what the mix gives. */
  colours: [string, string];
  label: string;
  mix: Schemas['PartDoc'][];
  materials: Schemas['MaterialDoc'][];
  /** What is said of it, below its parts. */
  said: ReactNode;
  /** What its button is called. */
  take: string;
  onTake: (mix: Schemas['PartDoc'][]) => void;
  children?: ReactNode;
}

/** A mix with what it looks like, which may be taken into the cup. */
export function MixRow(props: Props) {
  const { colours, label, mix, materials, said, take, onTake, children } = props;
  return (
    <Box
      component="li"
      sx={{
        display: 'flex',
        gap: 2,
        alignItems: 'center',
        flexWrap: { xs: 'wrap', sm: 'nowrap' },
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Pair colours={colours} label={label} />
      <Box sx={{ flex: 1, minWidth: 200 }}>
        <Typography sx={{ fontWeight: 600 }}>{mixWords(mix, materials)}</Typography>
        <Typography color="text.secondary">{said}</Typography>
      </Box>
      {children}
      <Button aria-label={take} onClick={() => onTake(mix)}>
        Take it
      </Button>
    </Box>
  );
}
