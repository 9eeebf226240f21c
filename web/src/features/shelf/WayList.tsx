import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { catalogueQuery } from '../../api/queries';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import type { useShelfEdit } from '../../components/useShelfEdit';
import { mixWords, plain, start } from '../../format/words';
import { WayDialog } from './WayDialog';
import { v4 as newId } from 'uuid';

interface Props {
  shelf: Schemas['ShelfOut'];
  edits: ReturnType<typeof useShelfEdit>;
}

type Way = Schemas['WayDoc'];

/** Ways of working: the painter's own, and the usual ones to start from. */
export function WayList({ shelf, edits }: Props) {
  const catalogue = useQuery(catalogueQuery);
  const [open, setOpen] = useState<Way>();
  const [shown, setShown] = useState<string>();
  const materials = shelf.materials.map((m) => m.material);
  if (catalogue.error && !catalogue.data) {
    return <Trouble error={catalogue.error} retry={() => void catalogue.refetch()} />;
  }
  if (!catalogue.data) return <Loading what="Reading the ways of working" />;
  const { kinds, ways } = catalogue.data;
  const word = (kind: string) => kinds.find((k) => k.kind === kind)?.word ?? kind;
  const list = (title: string, some: Way[], own: boolean) => (
    <Box component="section" aria-label={title} sx={{ mb: 4 }}>
      <Typography variant="h3" sx={{ borderBottom: 2, pb: 0.5 }}>
        {title}
      </Typography>
      {some.length === 0 && (
        <Typography sx={{ py: 1.5 }}>
          None yet. Make one of a usual way below, or save a picture’s steps as one.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {some.map((way) => (
          <Box
            component="li"
            key={way.id}
            aria-label={way.name}
            sx={{ py: 1, borderBottom: 1, borderColor: 'divider' }}
          >
            <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
              <Box sx={{ flex: 1, minWidth: { xs: '100%', md: 0 } }}>
                <Typography sx={{ fontSize: 19, fontWeight: 700 }}>{way.name}</Typography>
                <Typography color="text.secondary">{way.why}</Typography>
              </Box>
              <Button
                variant="text"
                aria-expanded={shown === way.id}
                aria-label={`Steps of ${way.name}`}
                onClick={() => setShown(shown === way.id ? undefined : way.id)}
              >
                {way.steps.length} steps
              </Button>
              <Button
                variant="text"
                aria-label={own ? `Edit ${way.name}` : `Make ${way.name} my own`}
                onClick={() =>
                  setOpen(own ? way : { ...way, id: newId(), name: `${way.name}, my own` })
                }
              >
                {own ? 'Edit' : 'Make it my own'}
              </Button>
              {own && (
                <Button
                  variant="text"
                  disabled={edits.pending}
                  aria-label={`Take ${way.name} out`}
                  onClick={() =>
                    edits.edit(`take out the way ${way.name}`, (doc) => ({
                      ...doc,
                      ways: doc.ways.filter((w) => w.id !== way.id),
                    }))
                  }
                >
                  Remove
                </Button>
              )}
            </Box>
            {shown === way.id && (
              <Box component="ol" sx={{ m: 0, mt: 1, pl: 3.5 }}>
                {way.steps.map((step) => (
                  <li key={step.id}>
                    <b>{start(step.name ?? word(step.kind))}</b>
                    {typeof step.wet_film_um === 'number' &&
                      `, ${plain(step.wet_film_um)} µm of ${mixWords(step.mix ?? [], materials)}`}
                    , {plain(step.hands_on_min, 0)} min
                    {typeof step.earliest_gap_min === 'number' &&
                      `, waits at least ${plain(step.earliest_gap_min, 0)} min`}
                  </li>
                ))}
              </Box>
            )}
          </Box>
        ))}
      </Box>
    </Box>
  );
  return (
    <Box>
      {list('My own', shelf.ways, true)}
      {list('Usual ways', ways, false)}
      {open && (
        <WayDialog
          way={open}
          materials={materials}
          word={word}
          edits={edits}
          onClose={() => setOpen(undefined)}
        />
      )}
    </Box>
  );
}
