import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';

interface Props<T extends string> {
  label: string;
  options: { value: T; word: string }[];
  value: T;
  onChange: (value: T) => void;
  /** Whether the label is only spoken. */
  quiet?: boolean;
}

/** A few choices on a line, one of which holds. */
export function RadioLine<T extends string>({ label, options, value, onChange, quiet }: Props<T>) {
  return (
    <Box role="radiogroup" aria-label={label}>
      {!quiet && (
        <Typography variant="caption" component="div" color="text.secondary" sx={{ mb: 0.5 }}>
          {label}
        </Typography>
      )}
      <Box sx={{ display: 'inline-flex', flexWrap: 'wrap', border: 1 }}>
        {options.map((option) => {
          const on = option.value === value;
          return (
            <ButtonBase
              key={option.value}
              role="radio"
              aria-checked={on}
              onClick={() => onChange(option.value)}
              sx={{
                px: 2,
                minHeight: 44,
                fontFamily: 'inherit',
                fontSize: 17,
                fontWeight: on ? 700 : 400,
                bgcolor: on ? 'text.primary' : 'background.paper',
                color: on ? 'background.default' : 'text.primary',
              }}
            >
              {option.word}
            </ButtonBase>
          );
        })}
      </Box>
    </Box>
  );
}
