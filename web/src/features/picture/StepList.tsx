import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Schemas } from '../../api/client';
import { catalogueQuery, photographsQuery, usualStepsQuery } from '../../api/queries';
import { useKeys } from '../../components/useKeys';
import { StepDialog } from './StepDialog';
import { StepRow } from './StepRow';
import type { Step } from '../../components/stepEdits';
import type { usePictureEdit } from './usePictureEdit';

interface Props {
  doc: Schemas['PictureDoc'];
  outlook: Schemas['PictureOutlook'];
  materials: Schemas['MaterialDoc'][];
  zone: string;
  now: number;
  edits: ReturnType<typeof usePictureEdit>;
  onLog: (step: string) => void;
}

const FIRST: Step = { id: '', kind: 'glaze', hands_on_min: 40 };

/** The steps in order: what was done, and when the rest is to be done and why not before. */
export function StepList({ doc, outlook, materials, zone, now, edits, onLog }: Props) {
  const catalogue = useQuery(catalogueQuery);
  const begins = useQuery(usualStepsQuery(outlook.id));
  const photographs = useQuery(photographsQuery(outlook.id));
  const [open, setOpen] = useState<Step>();
  const navigate = useNavigate();
  const steps = doc.steps ?? [];
  const add = () => setOpen(FIRST);
  useKeys([{ key: 'a', does: 'Add a step', run: add }]);
  return (
    <Box component="section" aria-label="Steps" sx={{ mt: 4 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 1, flexWrap: 'wrap' }}>
        <Typography variant="h3">Steps</Typography>
        <Button onClick={add}>
          Add a step{' '}
          <Box component="span" sx={{ opacity: 0.7, ml: 1 }}>
            A
          </Box>
        </Button>
      </Box>
      {edits.refusal && !open && (
        <Typography role="alert" color="error" sx={{ fontWeight: 600, my: 1 }}>
          {edits.refusal.message}
        </Typography>
      )}
      {steps.length === 0 && <Typography>No steps yet. Add the first one.</Typography>}
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {steps.map((step, i) => (
          <StepRow
            key={step.id}
            step={step}
            number={i + 1}
            last={i === steps.length - 1}
            photographs={photographs.data?.filter((p) => p.step === step.id)}
            word={catalogue.data?.kinds.find((k) => k.kind === step.kind)?.word ?? step.kind}
            planned={outlook.plan.find((p) => p.step === step.id)}
            coat={outlook.coats.find((c) => c.step === step.id)}
            findings={outlook.findings.filter((f) => f.step === step.id)}
            materials={materials}
            zone={zone}
            now={now}
            edits={edits}
            onCup={() => void navigate(`cup/${step.id}`)}
            onEdit={() => setOpen(step)}
            onLog={() => onLog(step.id)}
          />
        ))}
      </Box>
      {open && catalogue.data && begins.data && (
        <StepDialog
          step={open}
          begins={begins.data}
          index={steps.findIndex((s) => s.id === open.id)}
          count={steps.length}
          others={steps.filter((s) => s.id !== open.id)}
          kinds={catalogue.data.kinds}
          materials={materials}
          zone={zone}
          edits={edits}
          onClose={() => setOpen(undefined)}
        />
      )}
    </Box>
  );
}
