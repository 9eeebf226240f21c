import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { FormDialog } from '../../components/FormDialog';
import { setAside } from '../../components/stepEdits';
import type { usePictureEdit } from './usePictureEdit';

interface Props {
  finding: Schemas['FindingOut'];
  now: number;
  edits: ReturnType<typeof usePictureEdit>;
  onClose: () => void;
}

/** Setting a finding aside: it needs a reason, and stays in the picture's record. */
export function SetAsideDialog({ finding, now, edits, onClose }: Props) {
  const [reason, setReason] = useState('');
  return (
    <FormDialog
      title="Set it aside"
      send="Set it aside"
      sending="Keeping…"
      leave="Leave it standing"
      width="xs"
      pending={edits.pending}
      disabled={reason.trim() === ''}
      trouble={edits.refusal?.message}
      onSend={() =>
        edits.edit(
          `set aside: ${finding.title}`,
          setAside(finding, reason.trim(), new Date(now).toISOString()),
          onClose,
        )
      }
      onClose={() => {
        edits.forget();
        onClose();
      }}
    >
      <Typography>
        <b>{finding.what}</b> {finding.remedy}
      </Typography>
      <TextField
        label="Why it does not hold here"
        value={reason}
        autoFocus
        multiline
        onChange={(e) => setReason(e.target.value)}
        helperText="It stays in the record of this picture."
      />
    </FormDialog>
  );
}
