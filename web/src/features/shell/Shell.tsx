import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useMemo, useState } from 'react';
import { NavLink, Outlet, useNavigate } from 'react-router';
import { catalogueQuery, studiosQuery } from '../../api/queries';
import { CatalogueContext } from '../../components/catalogue';
import { StudioContext } from '../../components/currentStudio';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { useKeys } from '../../components/useKeys';
import { useSurround } from '../../theme/surround';
import { useLive } from '../room/useLive';
import { TimerBar } from '../timers/TimerBar';
import { WaitingBar } from '../waiting/WaitingBar';
import { KeyList } from './KeyList';
import { RailBar } from './RailBar';
import { Trusted } from './Trusted';

const KEPT = 'ulvek.studio';

const VIEWS = [
  { to: '/', word: 'Now', key: '1' },
  { to: '/pictures', word: 'Pictures', key: '2' },
  { to: '/season', word: 'Season', key: '3' },
  { to: '/gate', word: 'Gate', key: '4' },
  { to: '/log', word: 'Log', key: '5' },
  { to: '/shelf', word: 'Shelf', key: '6' },
  { to: '/studio', word: 'Studio', key: '7' },
];

const link = {
  color: 'text.primary',
  textDecoration: 'none',
  fontSize: 19,
  py: 1.25,
  px: 0.5,
  minHeight: 44,
  borderBottom: '3px solid transparent',
  '&.active': { fontWeight: 700, borderBottomColor: 'text.primary' },
} as const;

/** Hears what is new of the room, on every view. */
function Listening({ studio }: { studio: string }) {
  useLive(studio);
  return null;
}

/** Rail, navigation and the view that is open. */
export function Shell({ first }: { first: ReactNode }) {
  const studios = useQuery(studiosQuery);
  const catalogue = useQuery(catalogueQuery);
  const [chosen, setChosen] = useState(() => localStorage.getItem(KEPT));
  const [keys, setKeys] = useState(false);
  const { surround, toggle } = useSurround();
  const navigate = useNavigate();
  const id = studios.data?.find((s) => s.id === chosen)?.id ?? studios.data?.[0]?.id;
  const value = useMemo(
    () =>
      id === undefined
        ? undefined
        : {
            id,
            choose: (next: string) => {
              localStorage.setItem(KEPT, next);
              setChosen(next);
            },
          },
    [id],
  );
  useKeys([
    { key: '?', does: 'This list of keys', run: () => setKeys((k) => !k) },
    ...VIEWS.map((v) => ({ key: v.key, does: `Open ${v.word}`, run: () => void navigate(v.to) })),
    { key: 'd', does: 'Light or dim surround', run: toggle },
  ]);
  const body = () => {
    const failed = [studios, catalogue].find((q) => q.error && !q.data);
    if (failed?.error) {
      return (
        <Box sx={{ p: 3 }}>
          <Trouble error={failed.error} retry={() => void failed.refetch()} />
        </Box>
      );
    }
    if (!studios.data || !catalogue.data) {
      return (
        <Box sx={{ px: 3 }}>
          <Loading what="Opening the studio" />
        </Box>
      );
    }
    if (!value) return first;
    return (
      <StudioContext value={value}>
        <Listening studio={value.id} />
        <RailBar studio={value.id} />
        <Box
          component="nav"
          aria-label="Views"
          sx={{
            display: 'flex',
            flexWrap: 'wrap',
            alignItems: 'center',
            columnGap: 3,
            px: { xs: 2, md: 3 },
          }}
        >
          {VIEWS.map((v) => (
            <Box key={v.to} component={NavLink} to={v.to} end={v.to === '/'} sx={link}>
              {v.word}
            </Box>
          ))}
          <Box sx={{ ml: 'auto', display: 'flex' }}>
            <Button variant="text" onClick={toggle} sx={{ px: 1.5 }}>
              {surround === 'light' ? 'Dim the screen' : 'Light screen'}
            </Button>
            <Button
              variant="text"
              onClick={() => setKeys(true)}
              sx={{ px: 1.5, display: { xs: 'none', sm: 'inline-flex' } }}
            >
              Keys ?
            </Button>
          </Box>
        </Box>
        <WaitingBar studio={value.id} />
        <Trusted studio={value.id}>
          <TimerBar studio={value.id} />
          <Box component="main" sx={{ px: { xs: 2, md: 3 }, pt: 1, pb: 6 }}>
            <Outlet />
          </Box>
        </Trusted>
      </StudioContext>
    );
  };
  return (
    <>
      <CatalogueContext value={catalogue.data}>{body()}</CatalogueContext>
      {keys && <KeyList onClose={() => setKeys(false)} />}
    </>
  );
}
