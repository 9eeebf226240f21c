import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link, NavLink, Outlet, useLocation, useOutletContext, useParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { useUndoPicture } from '../../api/edits';
import { gateQuery, pictureQuery } from '../../api/queries';
import { useCatalogue } from '../../components/catalogue';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { useNow } from '../../components/useNow';
import { useTitle } from '../../components/useTitle';
import { gateVerdict } from '../../format/gate';
import { dueDay } from '../../format/time';

export interface SealingContext {
  id: string;
  gate: Schemas['GateOut'];
  picture: Schemas['PictureOut'];
  zone: string;
  now: number;
}

/** The gate of the picture that is open, for the pages below. */
export const useSealing = () => useOutletContext<SealingContext>();

const PAGES = [
  { to: 'gate', word: 'Gate' },
  { to: 'varnish', word: 'Varnish plan' },
  { to: 'bench', word: 'Bench sheet' },
  { to: 'photographs', word: 'Photographs' },
  { to: 'record', word: 'Record sheet' },
];

const page = {
  color: 'text.primary',
  textDecoration: 'none',
  fontSize: 18,
  py: 1.25,
  minHeight: 44,
  borderBottom: '3px solid transparent',
  '&.active': { fontWeight: 700, borderBottomColor: 'text.primary' },
} as const;

/** Everything about sealing one picture: verdict on top, one page each below. */
export function Sealing() {
  const { id = '' } = useParams();
  const gate = useQuery(gateQuery(id));
  const picture = useQuery(pictureQuery(id));
  const now = useNow(gate.data?.now, gate.dataUpdatedAt);
  const { horizon_days: horizon } = useCatalogue();
  const undo = useUndoPicture(id);
  const { pathname } = useLocation();
  const open = PAGES.find((p) => pathname.endsWith(`/${p.to}`));
  useTitle(gate.data && open && `${open.word}, ${gate.data.brief.title}`);
  if (gate.error && !gate.data) {
    return <Trouble error={gate.error} retry={() => void gate.refetch()} />;
  }
  if (picture.error && !picture.data) {
    return <Trouble error={picture.error} retry={() => void picture.refetch()} />;
  }
  if (!gate.data || !picture.data) return <Loading what="Looking at the gate" />;
  const { brief, time_zone: zone } = gate.data;
  const said = gateVerdict(brief, now, zone, horizon);
  const { history, version } = picture.data;
  const context: SealingContext = { id, gate: gate.data, picture: picture.data, zone, now };
  return (
    <Box key={id}>
      <Box className="no-print">
        <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'baseline', columnGap: 3 }}>
          <Typography variant="h1" sx={{ overflowWrap: 'anywhere' }}>
            {brief.title}
          </Typography>
          <Typography color="text.secondary" sx={{ fontSize: 18 }}>
            {brief.due ? `due ${dueDay(brief.due, now)}` : 'no date'} ·{' '}
            <Box component={Link} to={`/pictures/${id}`} sx={{ color: 'inherit' }}>
              its film and steps
            </Box>
          </Typography>
        </Box>
        <Typography variant="h2" component="p" aria-live="polite" data-testid="gate-verdict">
          <b>{said.head}</b> {said.rest}
        </Typography>
        <Box
          component="nav"
          aria-label="Sealing"
          sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, alignItems: 'center', mb: 2 }}
        >
          {PAGES.map((p) => (
            <Box key={p.to} component={NavLink} to={`/pictures/${id}/${p.to}`} sx={page}>
              {p.word}
            </Box>
          ))}
          <Button
            variant="text"
            sx={{ ml: 'auto' }}
            disabled={history.undo === null || undo.isPending}
            onClick={() => undo.mutate({ version, way: 'undo' })}
          >
            {history.undo === null ? 'Nothing to undo' : `Undo: ${history.undo}`}
          </Button>
        </Box>
        {undo.error && (
          <Typography role="alert" color="error">
            {undo.error.message}
          </Typography>
        )}
      </Box>
      <Outlet context={context} />
    </Box>
  );
}
