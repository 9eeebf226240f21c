import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useCatalogue } from '../../components/catalogue';
import { exact, fromField, toField } from '../../format/time';
import type { Touching } from './useTouching';

type Test = Schemas['TouchDoc'];

interface Props {
  touching: Touching;
  picture: { id: string; version: number };
  tests: Test[];
  titleOf: (step: string) => string;
  zone: string;
}

/** The fingertips on one picture: each can be put right or taken back. */
export function Touched({ touching, picture, tests, titleOf, zone }: Props) {
  const [open, setOpen] = useState<string>();
  if (tests.length === 0) return null;
  const key = (test: Test) => `${test.at} ${test.step} ${test.felt}`;
  return (
    <Box component="section" aria-label="Touched" sx={{ mt: 4 }}>
      <Typography variant="h3">Touched</Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {[...tests].reverse().map((test) => (
          <Box
            component="li"
            key={key(test)}
            sx={{
              display: 'flex',
              gap: 1.5,
              flexWrap: 'wrap',
              alignItems: 'center',
              py: 1,
              borderBottom: 1,
              borderColor: 'divider',
            }}
          >
            {open === key(test) ? (
              <Editing
                test={test}
                zone={zone}
                pending={touching.pending}
                onKeep={(instead) => {
                  touching.change(picture, test, instead, 'The touch is put right.');
                  setOpen(undefined);
                }}
                onClose={() => setOpen(undefined)}
              />
            ) : (
              <>
                <Typography sx={{ flex: 1, minWidth: 220 }}>
                  {exact(Date.parse(test.at), zone)}: {titleOf(test.step)} felt <b>{test.felt}</b>
                </Typography>
                <Button onClick={() => setOpen(key(test))}>Put it right</Button>
                <Button
                  disabled={touching.pending}
                  onClick={() =>
                    touching.change(picture, test, undefined, 'The touch is taken back.')
                  }
                >
                  Take it back
                </Button>
              </>
            )}
          </Box>
        ))}
      </Box>
    </Box>
  );
}

interface EditingProps {
  test: Test;
  zone: string;
  pending: boolean;
  onKeep: (instead: Test) => void;
  onClose: () => void;
}

function Editing({ test, zone, pending, onKeep, onClose }: EditingProps) {
  const { touches } = useCatalogue();
  const [at, setAt] = useState(() => toField(Date.parse(test.at), zone));
  const [felt, setFelt] = useState(test.felt);
  const time = fromField(at, zone);
  return (
    <>
      <TextField
        label="When"
        type="datetime-local"
        value={at}
        onChange={(e) => setAt(e.target.value)}
        error={time === undefined}
        helperText={time === undefined ? 'Give a day and a time.' : undefined}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <TextField
        select
        label="What it felt like"
        value={felt}
        onChange={(e) => setFelt(e.target.value as Test['felt'])}
        sx={{ minWidth: 220 }}
      >
        {touches.map(({ value, said }) => (
          <MenuItem key={value} value={value}>
            {said}
          </MenuItem>
        ))}
      </TextField>
      <Button
        variant="contained"
        disabled={pending || time === undefined}
        onClick={() => time !== undefined && onKeep({ step: test.step, felt, at: time })}
      >
        Keep it so
      </Button>
      <Button onClick={onClose}>Let it be</Button>
    </>
  );
}
