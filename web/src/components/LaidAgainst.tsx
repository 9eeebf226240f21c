import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../api/client';
import { laidPreviewQuery } from '../api/queries';

interface Props {
  picture: { id: string; version: number };
  /** The entry as it would be kept. */
  entry: Omit<Schemas['Laid'], 'version'>;
}

/** What the film says against an entry, before it is kept. */
export function LaidAgainst({ picture, entry }: Props) {
  const against = useQuery(laidPreviewQuery(picture.id, { ...entry, version: picture.version }));
  return (
    <div role="status" aria-label="What the film says">
      {/* What is wrong with a field is said by the field when it is sent. */}
      {!against.error &&
        against.data?.too_early.map((sentence) => (
          <Typography key={sentence} sx={{ fontWeight: 600, color: 'error.main' }}>
            Too early: {sentence}.
          </Typography>
        ))}
    </div>
  );
}
