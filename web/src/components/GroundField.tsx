import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import type { Schemas } from '../api/client';
import { groundWord, useCatalogue } from './catalogue';

type Ground = Schemas['GroundDoc'];

/** The ground most begin on: what a primed canvas takes up [um]; drying.md. [memory] */
const PRIMED_CANVAS_UM = 20;

/** The ground that is offered first. */
export const firstGround = (grounds: Schemas['GroundOut'][]): Ground =>
  grounds.find((g) => g.ground.absorbs_um === PRIMED_CANVAS_UM)?.ground ?? {};

interface Props {
  ground: Ground;
  onChange: (ground: Ground) => void;
}

/** What the picture is painted on: a usual ground by its word, or its own. */
export function GroundField({ ground, onChange }: Props) {
  const usual = useCatalogue().grounds;
  const um = ground.absorbs_um ?? 0;
  const known = usual.some((g) => g.ground.absorbs_um === um);
  const grounds = known ? usual : [...usual, { ground, said: groundWord(usual, um) }];
  return (
    <Stack direction="row" spacing={2}>
      <TextField
        select
        fullWidth
        label="Ground"
        value={um}
        onChange={(e) => {
          const chosen = grounds.find((g) => g.ground.absorbs_um === Number(e.target.value));
          // Another ground may be toned alike.
          if (chosen) onChange({ ...chosen.ground, colour: ground.colour });
        }}
      >
        {grounds.map((g) => (
          <MenuItem key={g.ground.absorbs_um} value={g.ground.absorbs_um}>
            {g.said}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="Its colour"
        type="color"
        value={ground.colour ?? usual[0]?.ground.colour}
        onChange={(e) => onChange({ ...ground, colour: e.target.value })}
        sx={{ width: 130, flexShrink: 0 }}
      />
    </Stack>
  );
}
