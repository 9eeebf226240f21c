import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError, type Schemas } from '../../api/client';
import { useSaveStudio, useUndoAir, useUndoStudio } from '../../api/edits';
import { outlookQuery, studioQuery } from '../../api/queries';
import { useCurrentStudio } from '../../components/currentStudio';
import { fieldError } from '../../components/fieldError';
import { Loading } from '../../components/Loading';
import { PlainHttp } from '../../components/PlainHttp';
import { Trouble } from '../../components/Trouble';
import { useKeys } from '../../components/useKeys';
import { useNow } from '../../components/useNow';
import { toField } from '../../format/time';
import { RoomBox } from '../room/RoomBox';
import { Learned } from '../touch/Learned';
import { About } from './About';
import { NewStudio } from './NewStudio';
import { StudioExchange } from './StudioExchange';
import { StudioFields } from './StudioFields';
import { useStudioForm } from './useStudioForm';

/** Hours, room and schools; import, export and calendar. */
export function Studio() {
  const { id } = useCurrentStudio();
  const studio = useQuery(studioQuery(id));
  if (studio.error && !studio.data) {
    return <Trouble error={studio.error} retry={() => void studio.refetch()} />;
  }
  if (!studio.data) return <Loading what="Reading the studio" />;
  const reread = async () => (await studio.refetch({ throwOnError: true })).data ?? studio.data;
  return <OneStudio key={id} studio={studio.data} reread={reread} />;
}

interface Props {
  studio: Schemas['StudioOut'];
  /** Reads what is stored now. */
  reread: () => Promise<Schemas['StudioOut']>;
}

function OneStudio({ studio, reread }: Props) {
  const { choose } = useCurrentStudio();
  // The version the fields were filled from: a save names it, so that another edit is never lost.
  const [filled, setFilled] = useState(studio);
  const edit = useStudioForm(filled);
  const save = useSaveStudio(studio.id);
  const undo = useUndoStudio(studio.id);
  const undoAir = useUndoAir(studio.id);
  const outlook = useQuery(outlookQuery(studio.id));
  const [making, setMaking] = useState(false);
  const take = (next: Schemas['StudioOut']) => {
    setFilled(next);
    edit.load(next);
  };
  const goTo = (way: 'undo' | 'redo') => {
    if (studio.history[way] !== null) {
      undo.mutate({ version: studio.version, way }, { onSuccess: take });
    }
  };
  const airTo = (way: 'undo' | 'redo') => (
    <Button
      disabled={undoAir.isPending}
      onClick={() =>
        undoAir.mutate(
          { version: studio.air.version, way },
          { onSuccess: () => void reread().then(take) },
        )
      }
    >
      {way === 'undo' ? 'Undo' : 'Redo'}: {studio.air.history[way]}
    </Button>
  );
  useKeys([
    { key: 'u', does: 'Undo the last change of the settings', run: () => goTo('undo') },
    { key: 'U', does: 'Redo it', run: () => goTo('redo') },
  ]);
  const conflict =
    save.error instanceof ApiError && save.error.problem.status === 409
      ? save.error.problem
      : undefined;
  const zone = studio.studio.time_zone;
  const now = useNow(outlook.data?.now, outlook.dataUpdatedAt);
  /** Keeps what was edited, over `on`: the room only where it was edited. */
  const keep = (on: Schemas['StudioOut']) => {
    const { studio: settings, air } = edit.made();
    save.mutate(
      {
        version: on.version,
        label: 'change the settings',
        studio: settings,
        air: edit.roomChanged ? { ...air, version: on.air.version } : undefined,
      },
      { onSuccess: take },
    );
  };
  const placed = save.error instanceof ApiError ? save.error.problem.path : undefined;
  return (
    <Box sx={{ maxWidth: 920 }}>
      <Typography variant="h1" sx={{ mb: 2, overflowWrap: 'anywhere' }}>
        {studio.studio.name}
      </Typography>
      <PlainHttp />
      <StudioFields
        edit={edit}
        refused={(path) => fieldError(save.error, path)}
        today={toField(now, zone).slice(0, 10)}
      />
      {conflict && (
        <Box role="alert" sx={{ border: 2, borderColor: 'error.main', p: 2, mt: 3 }}>
          <Typography sx={{ fontWeight: 700 }}>The settings were edited elsewhere.</Typography>
          <Typography>
            Yours were made on version {conflict.given_version}; version {conflict.current_version}{' '}
            is stored. Nothing was overwritten.
          </Typography>
          <Box sx={{ display: 'flex', gap: 1, mt: 1, flexWrap: 'wrap' }}>
            <Button
              onClick={() => {
                save.reset();
                take(studio);
              }}
            >
              Let mine go
            </Button>
            <Button variant="contained" onClick={() => void reread().then(keep)}>
              Keep mine over it
            </Button>
          </Box>
        </Box>
      )}
      {save.error && !conflict && (
        <Typography role="alert" color="error" sx={{ mt: 2, fontWeight: 600 }}>
          {placed ? 'One field was refused: ' : ''}
          {save.error.message}
        </Typography>
      )}
      <Box sx={{ display: 'flex', gap: 1.5, mt: 3, flexWrap: 'wrap', alignItems: 'center' }}>
        <Button
          variant="contained"
          disabled={!edit.changed || save.isPending || Object.keys(edit.wrong).length > 0}
          onClick={() => keep(filled)}
        >
          {save.isPending ? 'Keeping…' : 'Keep the settings'}
        </Button>
        <Button disabled={!edit.changed} onClick={edit.reset}>
          Leave as they were
        </Button>
        {(studio.history.undo !== null || studio.air.history.undo === null) && (
          <Button
            disabled={studio.history.undo === null || undo.isPending}
            onClick={() => goTo('undo')}
          >
            {studio.history.undo === null ? 'Nothing to undo' : `Undo: ${studio.history.undo}`}
            <Box component="span" sx={{ opacity: 0.7, ml: 1 }}>
              U
            </Box>
          </Button>
        )}
        {studio.history.redo !== null && (
          <Button disabled={undo.isPending} onClick={() => goTo('redo')}>
            Redo: {studio.history.redo}
          </Button>
        )}
        {studio.air.history.undo !== null && airTo('undo')}
        {studio.air.history.redo !== null && airTo('redo')}
        {save.isSuccess && !edit.changed && (
          <Typography role="status">Kept. The plan follows the new settings.</Typography>
        )}
      </Box>
      {(undo.error ?? undoAir.error) && (
        <Typography role="alert" color="error" sx={{ mt: 1 }}>
          {(undo.error ?? undoAir.error)?.message}
        </Typography>
      )}
      <RoomBox studio={studio.id} zone={zone} now={now} />
      <Learned studio={studio.id} zone={zone} />
      <StudioExchange studio={studio} onNew={() => setMaking(true)} />
      <About />
      {making && <NewStudio onClose={() => setMaking(false)} onMade={choose} />}
    </Box>
  );
}
