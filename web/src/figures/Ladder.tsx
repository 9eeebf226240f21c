import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../api/client';

interface Props {
  colour: Schemas['ColourOut'];
  /** The number of coats that is chosen. */
  coats: number;
  onPick: (coats: number) => void;
}

const counted = (coats: number) =>
  coats === 0 ? 'no coat' : coats === 1 ? '1 coat' : `${coats} coats`;

/** A glaze over underpaintings of several values, coat after coat: the one in use is marked. */
export function Ladder({ colour, coats, onPick }: Props) {
  const rows = [
    { name: 'here', rung: colour.face },
    ...[...colour.ladder].reverse().map((rung) => ({ name: String(Math.round(rung.value)), rung })),
  ];
  const most = colour.face.seen.length;
  return (
    <Box
      role="group"
      aria-label="Glaze ladder"
      sx={{
        display: 'grid',
        gridTemplateColumns: `64px repeat(${most}, minmax(0, 72px))`,
        alignItems: 'stretch',
      }}
    >
      <Typography component="span" color="text.secondary" sx={{ fontSize: 15 }}>
        value
      </Typography>
      {colour.face.seen.map((_, n) => (
        <Typography
          component="span"
          key={n}
          sx={{ textAlign: 'center', fontWeight: n === coats ? 700 : 400 }}
        >
          {n === 0 ? 'bare' : n}
        </Typography>
      ))}
      {rows.map(({ name, rung }) => (
        <Box key={name} sx={{ display: 'contents' }}>
          <Typography component="span" sx={{ alignSelf: 'center' }}>
            {name}
          </Typography>
          {rung.seen.map((seen, n) => (
            <Box
              key={n}
              component="button"
              type="button"
              disabled={n === 0}
              aria-pressed={n === coats}
              aria-label={`${counted(n)}, value ${name}: ${seen}`}
              title={`${counted(n)}: ${seen}`}
              onClick={() => onPick(n)}
              sx={{
                minHeight: 48,
                border: 0,
                p: 0,
                borderRadius: 0,
                background: seen,
                cursor: n === 0 ? 'default' : 'pointer',
                boxShadow:
                  n === coats
                    ? 'inset 3px 0 #fff, inset -3px 0 #fff, inset 4px 0 #000, inset -4px 0 #000'
                    : 'none',
              }}
            />
          ))}
        </Box>
      ))}
    </Box>
  );
}
