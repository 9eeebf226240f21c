import TextField from '@mui/material/TextField';
import type { Numbers } from './numbers';

interface Props<K extends string> {
  numbers: Numbers<K>;
  name: K;
  /** Why the server refused it. */
  refused?: string;
  /** Instead of what the table says. */
  label?: string;
  width?: number;
}

/** One number field of a form, made from its row. */
export function NumberField<K extends string>(props: Props<K>) {
  const { numbers, name, refused, label, width } = props;
  const wrong = numbers.wrong[name] ?? refused;
  return (
    <TextField
      label={label ?? numbers.label(name)}
      value={numbers.texts[name]}
      onChange={(e) => numbers.set(name, e.target.value)}
      error={!!wrong}
      helperText={wrong ?? numbers.row(name).help}
      slotProps={{ htmlInput: { inputMode: 'decimal' } }}
      fullWidth={width === undefined}
      sx={width === undefined ? undefined : { width: { xs: '100%', sm: width } }}
    />
  );
}
