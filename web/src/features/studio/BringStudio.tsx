import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRef } from 'react';
import { useImportStudio } from '../../api/edits';

/** Reads a studio document in; it becomes a studio of its own. */
export function BringStudio({ onMade }: { onMade?: (id: string) => void }) {
  const take = useImportStudio();
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button disabled={take.isPending} onClick={() => picker.current?.click()}>
        {take.isPending ? 'Reading it in…' : 'Import a studio'}
      </Button>
      <input
        ref={picker}
        type="file"
        accept="application/json,.json"
        aria-label="Studio document to import"
        hidden
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) take.mutate(file, { onSuccess: (made) => onMade?.(made.id) });
        }}
      />
      {take.error && (
        <Typography role="alert" color="error" sx={{ width: '100%', fontWeight: 600 }}>
          Not read in: {take.error.message}
        </Typography>
      )}
    </>
  );
}
