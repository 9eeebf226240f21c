import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import { useId } from 'react';
import type { Schemas } from '../../api/client';
import { useCatalogue } from '../../components/catalogue';
import { verdict } from '../../format/verdict';
import { start } from '../../format/words';
import { TouchBar, TouchMoves } from '../touch/TouchBar';
import { useTouching } from '../touch/useTouching';

interface Props {
  picture: Schemas['PictureOutlook'];
  coat: Schemas['CoatOut'];
  zone: string;
  now: number;
  onOpen: () => void;
  onClose: () => void;
}

/** The coat on top of a picture, chosen on the rail: what it is now, and a fingertip on it. */
export function RailTouch({ picture, coat, zone, now, onOpen, onClose }: Props) {
  const { horizon_days: horizon } = useCatalogue();
  const id = useId();
  const touching = useTouching();
  const done = picture.plan.length === 0;
  const said = verdict([coat], now, zone, horizon, done);
  const close = () => {
    touching.close();
    onClose();
  };
  return (
    <Dialog open onClose={close} aria-labelledby={id} fullWidth maxWidth="sm">
      <DialogTitle id={id} component="h2" sx={{ fontWeight: 700 }}>
        {picture.title}: {start(coat.title)}
      </DialogTitle>
      <DialogContent>
        <Typography>
          <b>{said.head}</b> {said.rest}
        </Typography>
        <TouchBar touching={touching} picture={picture} coat={coat} />
        <TouchMoves touching={{ ...touching, close }} />
      </DialogContent>
      <DialogActions>
        <Button onClick={onOpen}>Go to the picture</Button>
        {!touching.last && <Button onClick={close}>Close</Button>}
      </DialogActions>
    </Dialog>
  );
}
