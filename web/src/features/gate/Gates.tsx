import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { gatesQuery } from '../../api/queries';
import { useCatalogue } from '../../components/catalogue';
import { useCurrentStudio } from '../../components/currentStudio';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { useNow } from '../../components/useNow';
import { gateVerdict } from '../../format/gate';
import { dueDay } from '../../format/time';
import { AirBox } from './AirBox';

/** Which picture may be sealed, which not, and the hours in which the room is fit for it. */
export function Gates() {
  const { id } = useCurrentStudio();
  const gates = useQuery(gatesQuery(id));
  const { horizon_days: horizon } = useCatalogue();
  const now = useNow(gates.data?.now, gates.dataUpdatedAt);
  if (gates.error && !gates.data) {
    return <Trouble error={gates.error} retry={() => void gates.refetch()} />;
  }
  if (!gates.data) return <Loading what="Looking at the gate" />;
  const { time_zone: zone } = gates.data;
  const { pictures } = gates.data;
  return (
    <Box>
      <Typography variant="h1">Gate</Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, mt: 1, mb: 4 }}>
        {pictures.length === 0 && (
          <Typography component="li">
            There is no picture yet. Begin one under “Pictures”.
          </Typography>
        )}
        {pictures.map((brief) => {
          const said = gateVerdict(brief, now, zone, horizon);
          const open = brief.stage === 'open' || brief.stage === 'ready_to_wrap';
          return (
            <Box
              component="li"
              key={brief.picture}
              aria-label={brief.title}
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '20px 1fr', md: '20px minmax(220px, 1fr) 2fr 110px' },
                columnGap: 2,
                alignItems: 'baseline',
                py: 1.25,
                borderTop: 1,
                borderColor: 'divider',
              }}
            >
              <Box
                aria-hidden
                sx={{
                  width: 18,
                  height: 18,
                  alignSelf: 'center',
                  border: 2,
                  bgcolor: open ? 'text.primary' : 'transparent',
                }}
              />
              <Box
                component={Link}
                to={`/pictures/${brief.picture}/gate`}
                sx={{
                  color: 'text.primary',
                  fontSize: 20,
                  fontWeight: 700,
                  overflowWrap: 'anywhere',
                }}
              >
                {brief.title}
              </Box>
              <Typography sx={{ gridColumn: { xs: 2, md: 3 } }}>
                <b>{said.head}</b> {said.rest}
              </Typography>
              <Typography color="text.secondary" sx={{ gridColumn: { xs: 2, md: 4 } }}>
                {brief.due ? `due ${dueDay(brief.due, now)}` : 'no date'}
              </Typography>
            </Box>
          );
        })}
      </Box>
      <AirBox />
    </Box>
  );
}
