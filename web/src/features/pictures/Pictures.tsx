import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation } from 'react-router';
import { useRestorePicture } from '../../api/edits';
import { outlookQuery } from '../../api/queries';
import { useCurrentStudio } from '../../components/currentStudio';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { useDates } from '../../components/useDates';
import { useKeys } from '../../components/useKeys';
import { useNow } from '../../components/useNow';
import { NewPicture } from './NewPicture';
import { PicturesAway } from './PicturesAway';
import { PictureRow } from './PictureRow';

/** All pictures of the studio. */
export function Pictures() {
  const { id } = useCurrentStudio();
  const outlook = useQuery(outlookQuery(id));
  const now = useNow(outlook.data?.now, outlook.dataUpdatedAt);
  const { dateOf } = useDates(id, outlook.data?.pictures);
  const [making, setMaking] = useState(false);
  const restore = useRestorePicture();
  const location = useLocation();
  const [seen, setSeen] = useState<string>();
  const taken = location.state as { taken?: { id: string; title: string } } | null;
  const gone = taken?.taken && taken.taken.id !== seen ? taken.taken : undefined;
  useKeys([{ key: 'a', does: 'Make a picture', run: () => setMaking(true) }]);
  if (outlook.error && !outlook.data) {
    return <Trouble error={outlook.error} retry={() => void outlook.refetch()} />;
  }
  if (!outlook.data) return <Loading what="Reading the pictures" />;
  const { pictures, time_zone: zone } = outlook.data;
  return (
    <Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, flexWrap: 'wrap', mb: 1 }}>
        <Typography variant="h1">Pictures</Typography>
        <Button variant="contained" onClick={() => setMaking(true)}>
          Make a picture{' '}
          <Box component="span" sx={{ opacity: 0.7, ml: 1 }}>
            A
          </Box>
        </Button>
      </Box>
      {gone && (
        <Box
          role="status"
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 2,
            border: 1,
            p: 1,
            mb: 1,
            flexWrap: 'wrap',
          }}
        >
          <Typography>“{gone.title}” is taken away.</Typography>
          <Button
            disabled={restore.isPending}
            onClick={() => restore.mutate(gone.id, { onSuccess: () => setSeen(gone.id) })}
          >
            Bring it back
          </Button>
          {restore.error && <Typography color="error">{restore.error.message}</Typography>}
        </Box>
      )}
      {pictures.length === 0 && (
        <Typography sx={{ py: 3 }}>
          No pictures yet. Make one, from a way of working or from nothing.
        </Typography>
      )}
      {pictures.map((picture) => (
        <PictureRow
          key={picture.id}
          picture={picture}
          date={dateOf(picture)}
          zone={zone}
          now={now}
        />
      ))}
      <PicturesAway studio={id} zone={zone} said={gone?.id} />
      {making && <NewPicture studio={id} onClose={() => setMaking(false)} />}
    </Box>
  );
}
