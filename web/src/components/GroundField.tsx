import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { groundWord, useCatalogue } from './catalogue';

/** What the picture is painted on, by what it absorbs [um]. */
export function GroundField({ um, onChange }: { um: number; onChange: (um: number) => void }) {
  const usual = useCatalogue().grounds;
  const known = usual.some((g) => g.value === um);
  const grounds = known ? usual : [...usual, { value: um, said: groundWord(usual, um) }];
  return (
    <TextField select label="Ground" value={um} onChange={(e) => onChange(Number(e.target.value))}>
      {grounds.map((g) => (
        <MenuItem key={g.value} value={g.value}>
          {g.said}
        </MenuItem>
      ))}
    </TextField>
  );
}
