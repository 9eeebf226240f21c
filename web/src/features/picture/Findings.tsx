import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { exact } from '../../format/time';
import { SetAsideDialog } from './SetAsideDialog';
import { bringBack } from '../../components/stepEdits';
import type { usePictureEdit } from './usePictureEdit';
import { marked } from '../../format/words';

interface Props {
  findings: Schemas['FindingOut'][];
  zone: string;
  now: number;
  edits: ReturnType<typeof usePictureEdit>;
}

const SEVERITY = { note: 'Take care', caution: 'Think again', stop: 'Stop' } as const;

/** What the rules say of one step; what was set aside stands there quietly, with its reason. */
export function Findings({ findings, zone, now, edits }: Props) {
  const [asking, setAsking] = useState<Schemas['FindingOut']>();
  return (
    <Box sx={{ gridColumn: { xs: '1 / -1', md: '2 / -1' } }}>
      {findings.map((f) =>
        f.set_aside ? (
          <Box key={f.rule} sx={{ borderLeft: 1, pl: 1.75, my: 0.5 }}>
            <Typography color="text.secondary">
              Set aside {exact(Date.parse(f.set_aside.at), zone)}: {f.what} Reason: “
              {f.set_aside.reason}”{' '}
              <Button
                variant="text"
                disabled={edits.pending}
                onClick={() => edits.edit(`bring back: ${f.title}`, bringBack(f))}
                sx={{ px: 1, py: 0 }}
                aria-label={`Bring back: ${f.what}`}
              >
                Bring it back
              </Button>
            </Typography>
          </Box>
        ) : (
          <Box
            key={f.rule}
            sx={{
              borderLeft: f.severity === 'stop' ? 6 : 3,
              borderColor: f.severity === 'note' ? 'text.secondary' : 'error.main',
              pl: f.severity === 'stop' ? 1.125 : 1.5,
              my: 0.75,
            }}
          >
            <Typography>
              <Box component="b" sx={{ color: f.severity === 'note' ? undefined : 'error.main' }}>
                {SEVERITY[f.severity]}: {f.what}
              </Box>{' '}
              {f.remedy}{' '}
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {marked(f.provenance)}.
              </Box>{' '}
              <Button
                variant="text"
                onClick={() => setAsking(f)}
                sx={{ px: 1, py: 0 }}
                aria-label={`Set aside: ${f.what}`}
              >
                Set aside
              </Button>
            </Typography>
          </Box>
        ),
      )}
      {asking && (
        <SetAsideDialog
          finding={asking}
          now={now}
          edits={edits}
          onClose={() => setAsking(undefined)}
        />
      )}
    </Box>
  );
}
