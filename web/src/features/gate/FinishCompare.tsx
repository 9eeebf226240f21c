import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useId } from 'react';
import { photographsQuery, photographUrl } from '../../api/queries';
import { useCatalogue } from '../../components/catalogue';

interface Props {
  picture: string;
  finish: string;
  onPick: (finish: string) => void;
}

/** The painter's own photograph under each sheen, side by side, before one is chosen. */
export function FinishCompare({ picture, finish, onPick }: Props) {
  const { finishes } = useCatalogue();
  const photographs = useQuery(photographsQuery(picture));
  const id = useId();
  const last = photographs.data?.at(-1);
  if (!photographs.data) return null;
  if (!last) {
    return (
      <Typography color="text.secondary" sx={{ mb: 2 }}>
        Bring a photograph of the picture, and it is shown here under each sheen.
      </Typography>
    );
  }
  return (
    <Box component="section" aria-label="Under each sheen" sx={{ mb: 3 }}>
      <svg width={0} height={0} aria-hidden style={{ position: 'absolute' }}>
        {finishes.map(({ value, veil }) => (
          <filter key={value} id={`${id}-${value}`} colorInterpolationFilters="linearRGB">
            <feComponentTransfer>
              <feFuncR type="linear" intercept={veil} />
              <feFuncG type="linear" intercept={veil} />
              <feFuncB type="linear" intercept={veil} />
            </feComponentTransfer>
          </filter>
        ))}
      </svg>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, minmax(0, 1fr))' }}>
        {finishes.map(({ value, said }) => (
          <Box
            key={value}
            component="button"
            type="button"
            aria-pressed={value === finish}
            onClick={() => onPick(value)}
            sx={{
              border: 0,
              p: 0,
              background: 'none',
              color: 'inherit',
              font: 'inherit',
              cursor: 'pointer',
            }}
          >
            <Box
              component="img"
              src={photographUrl(last.id, 'small')}
              alt={`The picture under ${said.toLowerCase()}`}
              sx={{ width: '100%', display: 'block', filter: `url("#${id}-${value}")` }}
            />
            <Box
              component="span"
              sx={{
                display: 'block',
                py: 1,
                fontWeight: value === finish ? 700 : 400,
                borderBottom: 4,
                borderColor: value === finish ? 'text.primary' : 'transparent',
              }}
            >
              {said}
            </Box>
          </Box>
        ))}
      </Box>
      <Typography color="text.secondary">
        Matte lifts the darks most. The photograph is taken as if it showed a gloss surface; a
        screen is not paint: try it on a swatch.
      </Typography>
    </Box>
  );
}
