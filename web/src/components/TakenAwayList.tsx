import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';

interface Props {
  /** What they are, for those who do not see the list. */
  label: string;
  away: { id: string; name: string; said: string }[];
  pending: boolean;
  error: Error | null;
  onBack: (id: string) => void;
}

/** What was taken away, each with its way back. */
export function TakenAwayList({ label, away, pending, error, onBack }: Props) {
  return (
    <Box component="section" aria-label={label} sx={{ mt: 4 }}>
      <Typography variant="h3" component="h2" sx={{ mb: 1 }}>
        Taken away
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {away.map(({ id, name, said }) => (
          <Box
            component="li"
            key={id}
            sx={{ display: 'flex', gap: 1.5, alignItems: 'center', py: 0.5, flexWrap: 'wrap' }}
          >
            <Typography sx={{ overflowWrap: 'anywhere' }}>{said}</Typography>
            <Button aria-label={`Bring ${name} back`} disabled={pending} onClick={() => onBack(id)}>
              Bring it back
            </Button>
          </Box>
        ))}
      </Box>
      {error && (
        <Typography role="alert" color="error">
          {error.message}
        </Typography>
      )}
    </Box>
  );
}
