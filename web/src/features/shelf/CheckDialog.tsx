import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import FormGroup from '@mui/material/FormGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { FormDialog } from '../../components/FormDialog';
import { put, type useShelfEdit } from '../../components/useShelfEdit';
import { start, TROUBLES } from '../../format/words';

interface Props {
  tub: Schemas['TubDoc'];
  now: number;
  edits: ReturnType<typeof useShelfEdit>;
  onClose: () => void;
}

type Trouble = keyof typeof TROUBLES;

/** A look into a tub before it is used. */
export function CheckDialog({ tub, now, edits, onClose }: Props) {
  const [found, setFound] = useState<Trouble[]>([]);
  const keep = () =>
    edits.edit(
      `look into the tub ${tub.name}`,
      (doc) => {
        const stored = doc.tubs.find((t) => t.id === tub.id) ?? tub;
        const checks = [...(stored.checks ?? []), { at: new Date(now).toISOString(), found }];
        return { ...doc, tubs: put(doc.tubs, { ...stored, checks }) };
      },
      onClose,
    );
  return (
    <FormDialog
      title={`Look into ${tub.name}`}
      send={found.length === 0 ? 'It is good' : 'It is lost'}
      sending="Keeping…"
      width="xs"
      pending={edits.pending}
      trouble={edits.refusal?.message}
      onSend={keep}
      onClose={() => {
        edits.forget();
        onClose();
      }}
    >
      <Typography>What do you see?</Typography>
      <FormGroup>
        {(Object.keys(TROUBLES) as Trouble[]).map((trouble) => (
          <FormControlLabel
            key={trouble}
            label={start(TROUBLES[trouble])}
            control={
              <Checkbox
                checked={found.includes(trouble)}
                onChange={(e) =>
                  setFound((was) =>
                    e.target.checked ? [...was, trouble] : was.filter((f) => f !== trouble),
                  )
                }
              />
            }
          />
        ))}
      </FormGroup>
      <Typography color="text.secondary">Nothing ticked means that it is good to use.</Typography>
    </FormDialog>
  );
}
