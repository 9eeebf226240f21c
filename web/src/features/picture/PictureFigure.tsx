import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useWidth } from '../../components/useWidth';
import { Core } from '../../figures/Core';
import { Legend } from '../../figures/Legend';
import { Strata } from '../../figures/Strata';
import type { Schemas } from '../../api/client';
import { start } from '../../format/words';
import type { usePictureView } from './usePictureView';

const HEIGHT = 430;

interface Props {
  view: ReturnType<typeof usePictureView>;
  zone: string;
  tests: Schemas['TouchDoc'][];
}

/** Strata with the core beside it. */
export function PictureFigure({ view, zone, tests }: Props) {
  const [ref, width] = useWidth();
  const { data, all, sample } = view;
  if (!data || !all) return null;
  if (data.outlook.coats.length === 0) {
    return (
      <Typography sx={{ py: 5, my: 2, borderTop: 1, borderBottom: 1 }}>
        No coats yet, neither laid nor planned. Add a step below, and its film is drawn here.
      </Typography>
    );
  }
  return (
    <Box sx={{ mt: 1.5 }}>
      {data.places.length > 1 && (
        <Box
          role="group"
          aria-label="Place of the picture"
          sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1.5 }}
        >
          {data.places.map((place, n) => (
            <Button
              key={place.section ?? ''}
              variant={n === data.place ? 'contained' : 'outlined'}
              aria-pressed={n === data.place}
              onClick={() => view.setSection(place.section ?? '')}
            >
              {start(place.section ?? 'the rest')}
              {place.slowest && ': the picture waits for it'}
            </Button>
          ))}
        </Box>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', lg: '1fr 290px' }, gap: 2.5 }}>
        <Box ref={ref} sx={{ minWidth: 0, minHeight: HEIGHT }}>
          {width > 0 && (
            <Strata
              strata={data}
              coats={view.coats}
              all={all}
              zone={zone}
              tests={tests}
              now={view.now}
              cursor={view.cursor}
              onCursor={view.setCursor}
              mode={view.mode}
              width={width}
              height={HEIGHT}
              spoken={`${view.said.head} ${view.said.rest}`}
            />
          )}
        </Box>
        <Core
          coats={view.coats}
          sample={sample}
          absorbs={data.absorbs_um}
          width={290}
          height={HEIGHT}
        />
      </Box>
      <Box sx={{ mt: 1 }}>
        <Legend />
      </Box>
    </Box>
  );
}
