import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import type { Schemas } from '../api/client';
import { groundWord, useCatalogue } from './catalogue';

type Ground = Schemas['GroundDoc'];

/** Whether `ground` is that usual one: what it does not say is as usual. */
const isUsual = (ground: Ground, usual: Ground) =>
  (ground.absorbs_um ?? 0) === usual.absorbs_um &&
  (ground.delay_s ?? usual.delay_s) === usual.delay_s &&
  (ground.back ?? usual.back) === usual.back;

interface Props {
  ground: Ground;
  onChange: (ground: Ground) => void;
}

/** What the picture is painted on: a usual ground by its word, or its own. */
export function GroundField({ ground, onChange }: Props) {
  const usual = useCatalogue().grounds;
  const um = ground.absorbs_um ?? 0;
  const word = groundWord(usual, um);
  const known = usual.findIndex((g) => isUsual(ground, g.ground));
  // One with numbers of its own stands last, so that the usual one can be chosen in its place.
  const own = usual.some((g) => g.ground.absorbs_um === um) ? `${word}, own times` : word;
  const grounds = known < 0 ? [...usual, { ground, said: own }] : usual;
  return (
    <Stack direction="row" spacing={2}>
      <TextField
        select
        fullWidth
        label="Ground"
        value={known < 0 ? usual.length : known}
        onChange={(e) => {
          const chosen = grounds[Number(e.target.value)];
          // Another ground may be toned alike.
          if (chosen) onChange({ ...chosen.ground, colour: ground.colour });
        }}
      >
        {grounds.map((g, n) => (
          <MenuItem key={g.said} value={n}>
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
