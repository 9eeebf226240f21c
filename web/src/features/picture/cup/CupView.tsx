import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { outlookQuery } from '../../../api/queries';
import { useCurrentStudio } from '../../../components/currentStudio';
import { Loading } from '../../../components/Loading';
import { Trouble } from '../../../components/Trouble';
import { useNow } from '../../../components/useNow';
import { useShelfEdit } from '../../../components/useShelfEdit';
import { usePictureEdit } from '../usePictureEdit';
import { CupBench } from './CupBench';

/** The cup of one coat of a picture. */
export function CupView() {
  const { id = '', step: stepId = '' } = useParams();
  const { id: studio } = useCurrentStudio();
  const edits = usePictureEdit(id);
  const shelf = useShelfEdit(studio);
  const outlook = useQuery(outlookQuery(studio));
  const now = useNow(outlook.data?.now, outlook.dataUpdatedAt);
  if (shelf.shelf.error && !shelf.stored) {
    return <Trouble error={shelf.shelf.error} retry={() => void shelf.shelf.refetch()} />;
  }
  if (edits.picture.error && !edits.stored) {
    return <Trouble error={edits.picture.error} retry={() => void edits.picture.refetch()} />;
  }
  if (!edits.stored || !shelf.stored || !outlook.data) return <Loading what="Setting up the cup" />;
  const step = edits.stored.picture.steps?.find((s) => s.id === stepId);
  if (!step || typeof step.wet_film_um !== 'number') {
    return (
      <Box role="alert" sx={{ py: 4 }}>
        <Typography variant="h1">No cup for this step</Typography>
        <Typography sx={{ my: 2 }}>
          The picture has no such coat: it was deleted, or it leaves no film.
        </Typography>
        <Link to={`/pictures/${id}`}>Back to the picture</Link>
      </Box>
    );
  }
  return (
    <CupBench
      key={stepId}
      id={id}
      title={edits.stored.picture.title}
      step={step}
      materials={shelf.stored.materials.map((m) => m.material)}
      tubs={shelf.stored.tubs}
      shelf={shelf}
      zone={outlook.data.time_zone}
      now={now}
      edits={edits}
    />
  );
}
