import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import FormGroup from '@mui/material/FormGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { optionsOf, useCatalogue } from '../../components/catalogue';
import { FormDialog } from '../../components/FormDialog';
import { put, type useShelfEdit } from '../../components/useShelfEdit';
import { start } from '../../format/words';

interface Props {
  tub: Schemas['TubDoc'];
  now: number;
  edits: ReturnType<typeof useShelfEdit>;
  onClose: () => void;
}

type Trouble = NonNullable<Schemas['TubCheckDoc']['found']>[number];

/** A look into a tub before it is used. */
export function CheckDialog({ tub, now, edits, onClose }: Props) {
  const [found, setFound] = useState<Trouble[]>([]);
  const { tub_troubles: troubles } = useCatalogue();
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
        {optionsOf<Trouble>(troubles).map(({ value: trouble, word }) => (
          <FormControlLabel
            key={trouble}
            label={start(word)}
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
