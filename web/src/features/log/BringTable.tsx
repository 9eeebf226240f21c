import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useBringTable } from '../../api/edits';
import { FormDialog } from '../../components/FormDialog';

/** Notes and troubles from a table: looked at first, kept when the painter says so. */
export function BringTable({ studio }: { studio: string }) {
  const bring = useBringTable(studio);
  const [file, setFile] = useState<File>();
  const close = () => {
    setFile(undefined);
    bring.reset();
  };
  const { data } = bring;
  const rows = (n: number) => (n === 1 ? '1 row' : `${n} rows`);
  return (
    <>
      <Button component="label" variant="text">
        Bring a table
        <input
          type="file"
          accept=".csv,text/csv"
          hidden
          aria-label="Table of entries"
          onChange={(e) => {
            const chosen = e.target.files?.[0];
            if (chosen) {
              setFile(chosen);
              bring.mutate({ file: chosen, keep: false });
            }
            e.target.value = '';
          }}
        />
      </Button>
      {file && (
        <FormDialog
          title={`Table: ${file.name}`}
          send={data?.kept ? 'Close' : data ? `Keep ${rows(data.good)}` : 'Keep it'}
          sending={data ? 'Keeping…' : 'Looking at it…'}
          pending={bring.isPending}
          disabled={!data || (!data.kept && data.good === 0)}
          trouble={bring.error?.message}
          onSend={() => (data?.kept ? close() : bring.mutate({ file, keep: true }))}
          onClose={close}
        >
          {data && (
            <>
              <Typography>
                {data.kept
                  ? `${rows(data.good)} kept. Every picture can undo it.`
                  : `${rows(data.good)} can be kept${data.bad.length > 0 ? `, ${rows(data.bad.length)} cannot` : ''}. Nothing is kept yet.`}
              </Typography>
              {data.bad.length > 0 && (
                <Box
                  component="ul"
                  aria-label="Rows that cannot be kept"
                  sx={{ m: 0, pl: 2.5, maxHeight: 320, overflowY: 'auto' }}
                >
                  {data.bad.map((row) => (
                    <Typography component="li" key={row.line} sx={{ overflowWrap: 'anywhere' }}>
                      Line {row.line}: {row.why}
                    </Typography>
                  ))}
                </Box>
              )}
            </>
          )}
        </FormDialog>
      )}
    </>
  );
}
