import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { outlookQuery } from '../../api/queries';
import { ConflictDialog } from '../../components/ConflictDialog';
import { useCurrentStudio } from '../../components/currentStudio';
import { Loading } from '../../components/Loading';
import { RadioLine } from '../../components/RadioLine';
import { Shortages } from '../../components/Shortages';
import { Trouble } from '../../components/Trouble';
import { useKeys } from '../../components/useKeys';
import { useNow } from '../../components/useNow';
import { useShelfEdit } from '../../components/useShelfEdit';
import { MaterialList } from './MaterialList';
import { TubList } from './TubList';
import { WayList } from './WayList';

const PARTS = [
  { value: 'materials', word: 'Paints and mediums' },
  { value: 'tubs', word: 'Tubs' },
  { value: 'ways', word: 'Ways of working' },
] as const;

/** Paints, mediums, varnishes, tubs and ways of working, each with the numbers that are used. */
export function Shelf() {
  const { id } = useCurrentStudio();
  const edits = useShelfEdit(id);
  const outlook = useQuery(outlookQuery(id));
  const now = useNow(outlook.data?.now, outlook.dataUpdatedAt);
  const [part, setPart] = useState<(typeof PARTS)[number]['value']>('materials');
  useKeys([
    { key: 'u', does: 'Undo the last change of the shelf', run: () => edits.goTo('undo') },
    { key: 'U', does: 'Redo it', run: () => edits.goTo('redo') },
  ]);
  const { stored } = edits;
  if (edits.shelf.error && !stored) {
    return <Trouble error={edits.shelf.error} retry={() => void edits.shelf.refetch()} />;
  }
  if (!stored || !outlook.data) return <Loading what="Looking along the shelf" />;
  const zone = outlook.data.time_zone;
  const shared = { shelf: stored, edits, zone, now };
  return (
    <Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, flexWrap: 'wrap', mb: 2 }}>
        <Typography variant="h1">Shelf</Typography>
        <RadioLine
          quiet
          label="Part of the shelf"
          value={part}
          options={[...PARTS]}
          onChange={setPart}
        />
        <Button
          disabled={stored.history.undo === null || edits.pending}
          onClick={() => edits.goTo('undo')}
        >
          {stored.history.undo === null ? 'Nothing to undo' : `Undo: ${stored.history.undo}`}
          <Box component="span" sx={{ opacity: 0.7, ml: 1 }}>
            U
          </Box>
        </Button>
        {stored.history.redo !== null && (
          <Button disabled={edits.pending} onClick={() => edits.goTo('redo')}>
            Redo: {stored.history.redo}
          </Button>
        )}
      </Box>
      {(edits.undoError ?? edits.refusal) && (
        <Typography role="alert" color="error" sx={{ fontWeight: 600, mb: 2 }}>
          {(edits.undoError ?? edits.refusal)?.message}
        </Typography>
      )}
      <Shortages shortages={outlook.data.shortages} now={now} zone={zone} />
      {part === 'materials' && <MaterialList studio={id} {...shared} />}
      {part === 'tubs' && <TubList {...shared} />}
      {part === 'ways' && <WayList {...shared} />}
      {edits.conflict && <ConflictDialog edits={edits} title="Shelf" />}
    </Box>
  );
}
