import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { colourAt, photographsQuery, photographUrl, type Place } from '../../../api/queries';
import { PointAt } from '../../../components/PointAt';
import { exact } from '../../../format/time';

interface Props {
  picture: string;
  zone: string;
  onColour: (colour: string) => void;
}

/** A colour picked from one of the picture's photographs. */
export function WishPhoto({ picture, zone, onColour }: Props) {
  const photographs = useQuery(photographsQuery(picture));
  const [chosen, setChosen] = useState('');
  const [place, setPlace] = useState<Place>();
  const pick = useMutation({
    mutationFn: (at: Place) => colourAt(chosen, at),
    onSuccess: ({ colour }) => onColour(colour),
  });
  if (!photographs.data || photographs.data.length === 0) {
    return (
      <Typography color="text.secondary" sx={{ mt: 1 }}>
        Bring a reference photograph under “Photographs”, and pick the colour in it.
      </Typography>
    );
  }
  return (
    <Box sx={{ mt: 1.5 }}>
      <TextField
        select
        label="Pick it from"
        value={chosen}
        onChange={(e) => {
          setChosen(e.target.value);
          setPlace(undefined);
        }}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        sx={{ width: { xs: '100%', sm: 300 } }}
      >
        <MenuItem value="">No photograph</MenuItem>
        {photographs.data.map((p) => (
          <MenuItem key={p.id} value={p.id}>
            {p.caption || `the photograph of ${exact(Date.parse(p.taken_at), zone)}`}
          </MenuItem>
        ))}
      </TextField>
      {chosen && (
        <Box sx={{ mt: 1.5 }}>
          <PointAt
            src={photographUrl(chosen, 'small')}
            label="The photograph: touch the colour you want"
            marks={place ? [{ ...place, sign: '1' }] : []}
            onTouch={(at) => {
              setPlace(at);
              pick.mutate(at);
            }}
          />
          <Typography color="text.secondary">
            Touch the colour you want. A photograph is not the thing: its light and its camera are
            in it.
          </Typography>
          {pick.error && (
            <Typography role="alert" color="error" sx={{ fontWeight: 600 }}>
              {pick.error.message}
            </Typography>
          )}
        </Box>
      )}
    </Box>
  );
}
