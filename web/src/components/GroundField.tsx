import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { GROUNDS, groundWord } from '../format/words';

/** What the picture is painted on, by what it absorbs [um]. */
export function GroundField({ um, onChange }: { um: number; onChange: (um: number) => void }) {
  const known = GROUNDS.some((g) => g.um === um);
  const grounds = known ? [...GROUNDS] : [...GROUNDS, { um, word: groundWord(um) }];
  return (
    <TextField select label="Ground" value={um} onChange={(e) => onChange(Number(e.target.value))}>
      {grounds.map((g) => (
        <MenuItem key={g.um} value={g.um}>
          {g.word}
        </MenuItem>
      ))}
    </TextField>
  );
}
