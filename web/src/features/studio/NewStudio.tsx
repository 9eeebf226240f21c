import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import { ApiError, type Schemas } from '../../api/client';
import { useCreateStudio } from '../../api/edits';
import { useCurrentStudio } from '../../components/currentStudio';
import { fieldError } from '../../components/fieldError';
import { StudioFields } from './StudioFields';
import { useStudioForm } from './useStudioForm';

const BLANK: Pick<Schemas['StudioOut'], 'studio' | 'air'> = {
  studio: {
    name: '',
    time_zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    hours: [{ day: 'sat', from: '10:00', to: '16:00' }],
  },
  air: { temperature_c: 20, relative_humidity: 0.5, air_speed_m_s: 0.15 },
};

/** A new studio: the room, the hours and the schools; the shelf starts with generic paints. */
export function NewStudio({ onClose }: { onClose: () => void }) {
  const edit = useStudioForm(BLANK);
  const create = useCreateStudio();
  const { choose } = useCurrentStudio();
  const placed = create.error instanceof ApiError && create.error.problem.path;
  return (
    <Dialog open onClose={onClose} aria-labelledby="new-studio" fullWidth maxWidth="md">
      <DialogTitle id="new-studio" component="h2" sx={{ fontWeight: 700 }}>
        New studio
      </DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 3 }}>
          Its shelf begins with generic paints and mediums. Pictures come next, each from a way of
          working or from nothing.
        </Typography>
        <StudioFields
          edit={edit}
          refused={(path) => fieldError(create.error, path)}
          today={new Date().toISOString().slice(0, 10)}
        />
        {create.error && !placed && (
          <Typography role="alert" color="error" sx={{ mt: 2 }}>
            {create.error.message}
          </Typography>
        )}
      </DialogContent>
      <DialogActions sx={{ p: 2 }}>
        <Button onClick={onClose}>Not now</Button>
        <Button
          variant="contained"
          disabled={create.isPending || Object.keys(edit.wrong).length > 0}
          onClick={() =>
            create.mutate(edit.made(), {
              onSuccess: (made) => {
                choose(made.id);
                onClose();
              },
            })
          }
        >
          {create.isPending ? 'Making it…' : 'Make it'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
