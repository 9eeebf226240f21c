import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { spreadQuery } from '../../api/queries';
import { Trouble } from '../../components/Trouble';
import { exact, upToMinute } from '../../format/time';

const SHOWN = [
  ['touch_dry_at', 'Touch-dry'],
  ['paintable_at', 'Paintable'],
  ['dry_through_at', 'Dry through'],
  ['ready_to_seal_at', 'Cured for a seal'],
] as const;

/** On demand: when the coats get there in few, half and most of the futures. */
export function SpreadTable({ picture, zone }: { picture: string; zone: string }) {
  const [open, setOpen] = useState(false);
  const spread = useQuery({ ...spreadQuery(picture), enabled: open });
  return (
    <Box
      component="details"
      onToggle={(e) => setOpen(e.currentTarget.open)}
      sx={{ mt: 2, '& summary': { cursor: 'pointer', fontSize: 18, py: 1 } }}
    >
      <summary>How sure are these times?</summary>
      <Typography sx={{ maxWidth: 760, fontSize: 16 }}>
        Films differ: hands lay thicker and thinner, air moves, every paint has its own pace, and
        the weather to come is not known. Of 10 such futures a coat gets there by the first time in
        1, by the second in 5, by the third in 9. (When a coat sets is said the other way round, on
        every page: so early that it is surely still wet.)
      </Typography>
      {spread.isPending && <Typography sx={{ py: 1 }}>Following the coats…</Typography>}
      {spread.isError && <Trouble error={spread.error} retry={() => void spread.refetch()} />}
      {spread.data?.coats.length === 0 && (
        <Typography sx={{ py: 1 }}>No coat is laid or planned yet.</Typography>
      )}
      {spread.data && spread.data.coats.length > 0 && <Table spread={spread.data} zone={zone} />}
    </Box>
  );
}

function Table({ spread, zone }: { spread: Schemas['Spread']; zone: string }) {
  const say = (at: string | null | undefined) =>
    at ? exact(upToMinute(Date.parse(at)), zone) : '–';
  const cell = { textAlign: 'left', pr: 2.5, py: 0.5, whiteSpace: 'nowrap' } as const;
  return (
    <Box tabIndex={0} role="region" aria-label="The spread in numbers" sx={{ overflowX: 'auto' }}>
      <Box
        component="table"
        sx={{
          borderCollapse: 'collapse',
          fontSize: 16,
          mt: 1,
          '& th, & td': cell,
          '& tr': { borderBottom: 1, borderColor: 'divider' },
        }}
      >
        <thead>
          <tr>
            <th scope="col">Coat</th>
            <th scope="col">State</th>
            {spread.shares.map((share) => (
              <th scope="col" key={share}>
                by then in {Math.round(share * 10)} of 10
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {spread.coats.flatMap((coat) =>
            SHOWN.map(([state, word], n) => (
              <tr key={`${coat.step}-${state}`}>
                <th scope="row">{n === 0 ? coat.title : ''}</th>
                <td>{word}</td>
                {coat.states.map((states, k) => (
                  <td key={spread.shares[k]}>{say(states[state])}</td>
                ))}
              </tr>
            )),
          )}
        </tbody>
      </Box>
    </Box>
  );
}
