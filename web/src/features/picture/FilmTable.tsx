import Box from '@mui/material/Box';
import type { Schemas } from '../../api/client';
import { exact, upToMinute } from '../../format/time';
import { plain } from '../../format/words';

/** The numbers of the figures as a table, with how they were computed. */
export function FilmTable({ outlook, zone }: { outlook: Schemas['PictureOutlook']; zone: string }) {
  const say = (at: string | null) => (at === null ? '–' : exact(upToMinute(Date.parse(at)), zone));
  const cell = { textAlign: 'left', pr: 2.5, py: 0.5, whiteSpace: 'nowrap' } as const;
  return (
    <Box
      component="details"
      sx={{ mt: 4, '& summary': { cursor: 'pointer', fontSize: 18, py: 1 } }}
    >
      <summary>The film in numbers, and how it was computed</summary>
      <Box tabIndex={0} role="region" aria-label="The film in numbers" sx={{ overflowX: 'auto' }}>
        <Box
          component="table"
          sx={{
            borderCollapse: 'collapse',
            fontSize: 16,
            '& th, & td': cell,
            '& tr': { borderBottom: 1, borderColor: 'divider' },
          }}
        >
          <caption style={{ textAlign: 'left' }}>
            When each coat reaches each state, if nothing more is laid on it
          </caption>
          <thead>
            <tr>
              {[
                'Coat',
                'Laid',
                'Wet film',
                'Setting',
                'Touch-dry',
                'Paintable',
                'Dry through',
                'Seal from',
              ].map((h) => (
                <th key={h} scope="col">
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {outlook.coats.map((coat) => (
              <tr key={coat.step}>
                <th scope="row">
                  {coat.title}
                  {coat.planned ? ' (planned)' : ''}
                </th>
                <td>{say(coat.laid_at)}</td>
                <td>{plain(coat.wet_um)} µm</td>
                <td>{say(coat.if_left.setting_at)}</td>
                <td>{say(coat.if_left.touch_dry_at)}</td>
                <td>{say(coat.if_left.paintable_at)}</td>
                <td>{say(coat.if_left.dry_through_at)}</td>
                <td>{say(coat.seal_from)}</td>
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
      <Box sx={{ maxWidth: 760, fontSize: 16, mt: 1 }}>
        <p>
          Water and slow solvents diffuse through the stack, J = Δψ / r, and evaporate into the
          room’s air, J = k (a·c<sub>sat</sub>(T<sub>film</sub>) − RH·c<sub>sat</sub>(T
          <sub>air</sub>)) / ρ. Inputs are the mix, the wet film, the ground, the picture’s shorter
          side and the room’s temperature, humidity and air speed. Setting begins at 58 % solids in
          the top of the coat, touch-dry at 70 %, paintable at 80 % everywhere and once the ground
          holds at most 10 µm of water too many, dry through at 90 %; sealing waits until at most 2
          % of slow solvents are left in the upper 60 µm and for the studio’s school, whichever is
          later. A film that has closed stays closed: it swells, and does not turn back into paint.
        </p>
        <p>
          Diffusion: Crank, The Mathematics of Diffusion, 2nd ed. 1975, ch. 4. Moist air:
          Hyland-Wexler as in the ASHRAE Handbook of Fundamentals. The constants of the paint film
          are given from memory and stand until your own touch tests correct them.
        </p>
      </Box>
    </Box>
  );
}
