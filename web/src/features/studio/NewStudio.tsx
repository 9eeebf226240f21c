import Typography from '@mui/material/Typography';
import { ApiError } from '../../api/client';
import { useCreateStudio } from '../../api/edits';
import { fieldError } from '../../components/fieldError';
import { FormDialog } from '../../components/FormDialog';
import { StudioFields } from './StudioFields';
import { useStudioForm, type Given } from './useStudioForm';

const BLANK: Given = {
  studio: {
    name: '',
    time_zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    hours: [{ day: 'sat', from: '10:00', to: '16:00' }],
    setup_min: 10,
  },
  air: { version: 0, usual: { temperature_c: 20, relative_humidity: 0.5, air_speed_m_s: 0.15 } },
};

/** A new studio: the room, the hours and the schools; the shelf starts with generic paints. */
export function NewStudio({
  onClose,
  onMade,
}: {
  onClose: () => void;
  onMade?: (id: string) => void;
}) {
  const edit = useStudioForm(BLANK);
  const create = useCreateStudio();
  const placed = create.error instanceof ApiError && create.error.problem.path;
  const make = () => {
    const { studio, air } = edit.made();
    create.mutate(
      { studio, air: air.usual },
      {
        onSuccess: (made) => {
          onMade?.(made.id);
          onClose();
        },
      },
    );
  };
  return (
    <FormDialog
      title="New studio"
      send="Make it"
      sending="Making it…"
      width="md"
      pending={create.isPending}
      disabled={Object.keys(edit.wrong).length > 0}
      trouble={create.error && !placed ? create.error.message : undefined}
      onSend={make}
      onClose={onClose}
    >
      <Typography>
        Its shelf begins with generic paints and mediums. Pictures come next, each from a way of
        working or from nothing.
      </Typography>
      <StudioFields
        edit={edit}
        refused={(path) => fieldError(create.error, path)}
        today={new Date().toISOString().slice(0, 10)}
      />
    </FormDialog>
  );
}
