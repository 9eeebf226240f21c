import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useRestoreStudio } from '../../api/edits';
import { takenAwayQuery } from '../../api/queries';
import { exact } from '../../format/time';

/** Where no studio is open, the time zone is that of this machine. */
const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Studios that were taken away, each with its way back. */
export function TakenAway({
  onBack,
  zone = HERE,
}: {
  onBack?: (id: string) => void;
  zone?: string;
}) {
  const away = useQuery(takenAwayQuery);
  const back = useRestoreStudio();
  if (!away.data || away.data.length === 0) return null;
  return (
    <Box component="section" aria-label="Studios that were taken away" sx={{ mt: 4 }}>
      <Typography variant="h3" sx={{ mb: 1 }}>
        Taken away
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {away.data.map((studio) => (
          <Box
            component="li"
            key={studio.id}
            sx={{ display: 'flex', gap: 1.5, alignItems: 'center', py: 0.5, flexWrap: 'wrap' }}
          >
            <Typography sx={{ overflowWrap: 'anywhere' }}>
              {studio.name}, since {exact(Date.parse(studio.created_at), zone)}
            </Typography>
            <Button
              aria-label={`Bring ${studio.name} back`}
              disabled={back.isPending}
              onClick={() => back.mutate(studio.id, { onSuccess: (made) => onBack?.(made.id) })}
            >
              Bring it back
            </Button>
          </Box>
        ))}
      </Box>
      {back.error && (
        <Typography role="alert" color="error">
          {back.error.message}
        </Typography>
      )}
    </Box>
  );
}
