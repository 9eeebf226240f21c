import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useActiveKeys } from '../../components/useKeys';

/** Every key that works in the view that is open. */
export function KeyList({ onClose }: { onClose: () => void }) {
  const keys = useActiveKeys();
  return (
    <Dialog open onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title" component="h2" sx={{ fontWeight: 700 }}>
        Keys
      </DialogTitle>
      <DialogContent>
        <Box
          component="dl"
          sx={{
            display: 'grid',
            gridTemplateColumns: 'auto 1fr',
            gap: '8px 24px',
            m: 0,
            fontSize: 18,
          }}
        >
          {keys.map((k) => (
            <Box key={k.key} sx={{ display: 'contents' }}>
              <Box
                component="dt"
                sx={{ fontWeight: 700, border: 1, px: 1.25, minWidth: 34, textAlign: 'center' }}
              >
                {k.key}
              </Box>
              <Box component="dd" sx={{ m: 0 }}>
                {k.does}
              </Box>
            </Box>
          ))}
          <Box component="dt" sx={{ fontWeight: 700, border: 1, px: 1.25, textAlign: 'center' }}>
            ← →
          </Box>
          <Box component="dd" sx={{ m: 0 }}>
            Strata, when it has the focus: move in time; with Shift from coat to coat
          </Box>
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
