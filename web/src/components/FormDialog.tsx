import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useId, type ReactNode } from 'react';

interface Props {
  title: string;
  /** What the button says that sends the form, and what it says meanwhile. */
  send: string;
  sending: string;
  leave?: string;
  pending: boolean;
  disabled?: boolean;
  /** A sentence that belongs to none of the fields. */
  trouble?: string;
  width?: 'xs' | 'sm' | 'md';
  onSend: () => void;
  onClose: () => void;
  children: ReactNode;
}

/** A dialog that is a form: fields, what is wrong, a way out and a way on. */
export function FormDialog(props: Props) {
  const {
    title,
    send,
    sending,
    leave = 'Not now',
    pending,
    disabled,
    trouble,
    width = 'sm',
  } = props;
  const id = useId();
  return (
    <Dialog open onClose={props.onClose} aria-labelledby={id} fullWidth maxWidth={width}>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          if (!disabled && !pending) props.onSend();
        }}
      >
        <DialogTitle id={id} component="h2" sx={{ fontWeight: 700 }}>
          {title}
        </DialogTitle>
        <DialogContent>
          <Stack spacing={2.5} sx={{ pt: 1 }}>
            {props.children}
            {trouble && (
              <Typography role="alert" color="error" sx={{ fontWeight: 600 }}>
                {trouble}
              </Typography>
            )}
          </Stack>
        </DialogContent>
        <DialogActions sx={{ p: 2 }}>
          <Button onClick={props.onClose}>{leave}</Button>
          <Button type="submit" variant="contained" disabled={disabled || pending}>
            {pending ? sending : send}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
