import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { stepsWithout } from '../../api/edits';
import { useCatalogue } from '../../components/catalogue';
import { rangeOf } from '../../components/numbers';
import { FormDialog } from '../../components/FormDialog';
import { MixEditor } from '../../components/MixEditor';
import { put, type useShelfEdit } from '../../components/useShelfEdit';
import { start } from '../../format/words';
import { NUMBERS, soundMix, wayStepDraft, wayStepFault, wayStepsMade } from './wayDraft';

interface Props {
  way: Schemas['WayDoc'];
  materials: Schemas['MaterialDoc'][];
  word: (kind: string) => string;
  edits: ReturnType<typeof useShelfEdit>;
  onClose: () => void;
}

/** An own way of working: its name, its reason, and films, mixes and waits of its steps. */
export function WayDialog({ way, materials, word, edits, onClose }: Props) {
  const [name, setName] = useState(way.name);
  const [why, setWhy] = useState(way.why);
  const [steps, setSteps] = useState(() => way.steps.map(wayStepDraft));
  const [mixing, setMixing] = useState<string>();
  const set = (id: string, part: Partial<(typeof steps)[number]>) =>
    setSteps((was) => was.map((s) => (s.step.id === id ? { ...s, ...part } : s)));
  const catalogue = useCatalogue();
  const [trouble, setTrouble] = useState<string>();
  const fault = (s: (typeof steps)[number], key: keyof typeof NUMBERS) =>
    wayStepFault(catalogue, s, key);
  const keys = Object.keys(NUMBERS) as (keyof typeof NUMBERS)[];
  const bad =
    !name.trim() ||
    !why.trim() ||
    steps.some((s) => !soundMix(s) || keys.some((key) => fault(s, key)));
  /** What stands on what without the step is the server's to say; what was typed stays. */
  const takeOut = (id: string) => {
    setTrouble(undefined);
    stepsWithout(
      steps.map((s) => s.step),
      id,
    ).then(
      (left) =>
        setSteps((was) =>
          left.flatMap((step) =>
            was.filter((s) => s.step.id === step.id).map((s) => ({ ...s, step })),
          ),
        ),
      (error: unknown) => setTrouble(String(error instanceof Error ? error.message : error)),
    );
  };
  const keep = () =>
    edits.edit(
      `keep the way ${name.trim()}`,
      (doc) => ({
        ...doc,
        ways: put(doc.ways, {
          // A usual way that becomes one's own says more than a way of the document has.
          id: way.id,
          name: name.trim(),
          why: why.trim(),
          steps: wayStepsMade(steps),
        }),
      }),
      onClose,
    );
  return (
    <FormDialog
      title="A way of working"
      send="Keep it"
      sending="Keeping…"
      leave="Cancel"
      width="md"
      pending={edits.pending}
      disabled={bad}
      trouble={edits.refusal?.message ?? trouble}
      onSend={keep}
      onClose={() => {
        edits.forget();
        onClose();
      }}
    >
      <TextField label="What you call it" value={name} onChange={(e) => setName(e.target.value)} />
      <TextField
        label="Why you work like this"
        value={why}
        onChange={(e) => setWhy(e.target.value)}
      />
      <Box component="ol" aria-label="Steps" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {steps.map((s) => {
          const title = start(s.step.name ?? word(s.step.kind));
          const field = (key: keyof typeof NUMBERS) => {
            const label = `${NUMBERS[key].label}, ${rangeOf(catalogue, NUMBERS[key].field).unit}`;
            return (
              <TextField
                label={label}
                value={s[key]}
                onChange={(e) => set(s.step.id, { [key]: e.target.value })}
                slotProps={{
                  htmlInput: { inputMode: 'decimal', 'aria-label': `${label} of ${title}` },
                  inputLabel: { shrink: true },
                }}
                error={!!fault(s, key)}
                helperText={fault(s, key)}
                sx={{ width: 130 }}
              />
            );
          };
          return (
            <Box
              component="li"
              key={s.step.id}
              sx={{ py: 1, borderTop: 1, borderColor: 'divider' }}
            >
              <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
                <Typography sx={{ fontWeight: 700, flex: 1, minWidth: 150, pt: 1.75 }}>
                  {title}
                </Typography>
                {s.mix.length > 0 && field('film')}
                {field('minutes')}
                {field('gap')}
                {s.mix.length > 0 && (
                  <Button
                    variant="text"
                    aria-expanded={mixing === s.step.id}
                    aria-label={`Mix of ${title}`}
                    onClick={() => setMixing(mixing === s.step.id ? undefined : s.step.id)}
                  >
                    Mix
                  </Button>
                )}
                <Button
                  variant="text"
                  disabled={steps.length === 1}
                  aria-label={`Take ${title} out`}
                  onClick={() => takeOut(s.step.id)}
                >
                  Remove
                </Button>
              </Box>
              {mixing === s.step.id && (
                <MixEditor
                  mix={s.mix}
                  materials={materials}
                  onChange={(mix) => set(s.step.id, { mix })}
                />
              )}
            </Box>
          );
        })}
      </Box>
      {(!name.trim() || !why.trim() || steps.some((s) => !soundMix(s))) && (
        <Typography role="alert" color="error" sx={{ fontWeight: 600 }}>
          Give a name, a reason, and for each mix parts of which one is above 0.
        </Typography>
      )}
    </FormDialog>
  );
}
