import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';

interface Props {
  what: string;
  long: {
    isGoing: boolean;
    progress?: string;
    stopped: boolean;
    stop: () => void;
    goOn: () => void;
  };
}

/** A long computation while it goes on: how far it is, and a way to stop it and go on. */
export function LongWait({ what, long }: Props) {
  if (!long.isGoing && !long.stopped) return null;
  return (
    <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap', mt: 1 }}>
      <Typography role="status" color="text.secondary">
        {long.stopped
          ? `${what}: stopped.`
          : `${what}${long.progress ? `: ${long.progress}` : ''}…`}
      </Typography>
      <Button onClick={long.stopped ? long.goOn : long.stop}>
        {long.stopped ? 'Go on' : 'Stop'}
      </Button>
    </Box>
  );
}
