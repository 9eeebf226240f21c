import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useMemo, useState } from 'react';
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { catalogueQuery, studiosQuery } from '../../api/queries';
import { CatalogueContext } from '../../components/catalogue';
import { StudioContext } from '../../components/currentStudio';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { useKeys } from '../../components/useKeys';
import { useTitle } from '../../components/useTitle';
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
  textAlign: 'center',
  fontSize: { xs: 14.5, sm: 19 },
  flexGrow: { xs: 1, sm: 0 },
  py: { xs: 1.75, sm: 1.25 },
  px: { xs: 0, sm: 0.5 },
  minHeight: 44,
  minWidth: 44,
  borderStyle: 'solid',
  borderColor: 'transparent',
  borderWidth: { xs: '3px 0 0', sm: '0 0 3px' },
  '&.active': { fontWeight: 700, borderColor: 'text.primary' },
} as const;

/** The views: under the rail, on a phone within the reach of a thumb. */
const views = {
  display: 'flex',
  alignItems: 'center',
  columnGap: { xs: 0, sm: 3 },
  px: { xs: 0.5, sm: 2, md: 3 },
  position: { xs: 'fixed', sm: 'static' },
  insetInline: 0,
  bottom: 0,
  zIndex: 'appBar',
  bgcolor: 'background.default',
  borderTop: { xs: 1, sm: 0 },
} as const;

/** Seen only when the keyboard comes to it, first of all. */
const skip = {
  position: 'absolute',
  insetBlockStart: 4,
  insetInlineStart: 4,
  zIndex: 'tooltip',
  p: 1.5,
  bgcolor: 'text.primary',
  color: 'background.default',
  '&:not(:focus)': { transform: 'translateY(-200%)' },
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
  const { pathname } = useLocation();
  useTitle(VIEWS.find((v) => v.to === pathname)?.word);
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
  const dim = (
    <Button variant="text" onClick={toggle} sx={{ px: 1.5 }}>
      {surround === 'light' ? 'Dim the screen' : 'Light screen'}
    </Button>
  );
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
        <Box component="a" href="#view" className="no-print" sx={skip}>
          To the view
        </Box>
        <RailBar studio={value.id} />
        <Box component="nav" aria-label="Views" sx={views}>
          {VIEWS.map((v) => (
            <Box key={v.to} component={NavLink} to={v.to} end={v.to === '/'} sx={link}>
              {v.word}
            </Box>
          ))}
          <Box sx={{ ml: 'auto', display: { xs: 'none', sm: 'flex' } }}>
            {dim}
            <Button variant="text" onClick={() => setKeys(true)} sx={{ px: 1.5 }}>
              Keys ?
            </Button>
          </Box>
        </Box>
        <WaitingBar studio={value.id} />
        <Trusted studio={value.id}>
          <TimerBar studio={value.id} />
          <Box
            component="main"
            id="view"
            tabIndex={-1}
            sx={{ px: { xs: 2, md: 3 }, pt: 1, pb: { xs: 2, sm: 6 }, outline: 'none !important' }}
          >
            <Outlet />
          </Box>
          <Box className="no-print" sx={{ display: { sm: 'none' }, px: 1, pb: 9 }}>
            {dim}
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
