import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { logQuery, logTableUrl, outlookQuery, shelfQuery } from '../../api/queries';
import { Chip } from '../../components/Chip';
import { useCurrentStudio } from '../../components/currentStudio';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { exact, fromField } from '../../format/time';
import { plain, start } from '../../format/words';
import { BringTable } from './BringTable';

/** The kinds of entries, as they are said. */
const KINDS: Record<string, string> = {
  laid: 'Coats and steps done',
  noted: 'Notes',
  trouble: 'Went wrong',
  wiped_off: 'Wiped off',
  sanded: 'Sanded',
  touched: 'Touched',
  photographed: 'Photographed',
  swatch: 'Swatches',
  misted: 'Palette misted',
  looked_over: 'Looked over',
  seal_trouble: 'Varnish went wrong',
  sealed_anyway: 'Sealed through a closed gate',
};

/** One entry in a word or two. */
const ONE: Record<string, string> = {
  laid: 'Done',
  noted: 'Note',
  trouble: 'Went wrong',
  wiped_off: 'Wiped off',
  sanded: 'Sanded',
  touched: 'Touched',
  photographed: 'Photographed',
  swatch: 'Swatch made',
  misted: 'Palette misted',
  looked_over: 'Looked over',
  seal_trouble: 'Varnish went wrong',
  sealed_anyway: 'Sealed anyway',
};

const PAGE = 50;
const FILTERS = ['words', 'picture', 'kind', 'material', 'from', 'to'] as const;
type Filter = (typeof FILTERS)[number];

/** Everything that was done, all pictures, the last first; searched and narrowed. */
export function LogView() {
  const { id } = useCurrentStudio();
  const [params, setParams] = useSearchParams();
  const outlook = useQuery(outlookQuery(id));
  const shelf = useQuery(shelfQuery(id));
  const zone = outlook.data?.time_zone ?? 'UTC';
  const of = (name: Filter) => params.get(name) ?? '';
  const skip = Number(params.get('skip') ?? 0) || 0;
  const set = (name: Filter | 'skip', value: string) =>
    setParams(
      (was) => {
        const next = new URLSearchParams(was);
        if (value) next.set(name, value);
        else next.delete(name);
        if (name !== 'skip') next.delete('skip');
        return next;
      },
      { replace: true },
    );
  const day = (name: Filter, days: number) => {
    const at = of(name) ? fromField(`${of(name)}T00:00`, zone) : undefined;
    return at && new Date(Date.parse(at) + days * 86_400_000).toISOString();
  };
  const asked = useDeferredValue({
    words: of('words') || undefined,
    picture: of('picture') || undefined,
    kind: of('kind') || undefined,
    material: of('material') || undefined,
    from: day('from', 0),
    to: day('to', 1),
    skip,
    take: PAGE,
  });
  const log = useQuery({ ...logQuery(id, asked), enabled: !!outlook.data });
  if (log.error && !log.data) {
    return <Trouble error={log.error} retry={() => void log.refetch()} />;
  }
  if (!log.data || !outlook.data) return <Loading what="Leafing through the log" />;
  const narrowed = FILTERS.some((name) => of(name) !== '');
  const choose = (
    name: Filter,
    label: string,
    any: string,
    options: { value: string; said: string }[],
  ) => (
    <TextField
      select
      label={label}
      value={options.some((o) => o.value === of(name)) ? of(name) : ''}
      onChange={(e) => set(name, e.target.value)}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      sx={{ width: { xs: '100%', sm: 190 } }}
    >
      <MenuItem value="">{any}</MenuItem>
      {options.map((o) => (
        <MenuItem key={o.value} value={o.value}>
          {o.said}
        </MenuItem>
      ))}
    </TextField>
  );
  const date = (name: Filter, label: string) => (
    <TextField
      label={label}
      type="date"
      value={of(name)}
      onChange={(e) => set(name, e.target.value)}
      slotProps={{ inputLabel: { shrink: true } }}
      sx={{ width: { xs: '46%', sm: 150 } }}
    />
  );
  const { entries, some } = log.data;
  const last = Math.min(skip + entries.length, log.data.of);
  return (
    <Box>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h1">Log</Typography>
        <Button
          component="a"
          variant="text"
          href={logTableUrl(id, asked)}
          download="log.csv"
          sx={{ ml: 'auto' }}
        >
          Take it as a table
        </Button>
        <BringTable studio={id} />
      </Box>
      <Box
        role="search"
        sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', my: 2, alignItems: 'center' }}
      >
        <TextField
          label="Look for"
          placeholder="sky, PB29, streaks"
          value={of('words')}
          onChange={(e) => set('words', e.target.value)}
          slotProps={{ inputLabel: { shrink: true } }}
          sx={{ width: { xs: '100%', sm: 230 } }}
        />
        {choose(
          'picture',
          'Picture',
          'All pictures',
          outlook.data.pictures.map((p) => ({ value: p.id, said: p.title })),
        )}
        {choose(
          'kind',
          'What',
          'Everything',
          Object.entries(KINDS).map(([value, said]) => ({ value, said })),
        )}
        {choose(
          'material',
          'With',
          'Any material',
          (shelf.data?.materials ?? []).map(({ material: m }) => ({ value: m.id, said: m.name })),
        )}
        {date('from', 'From')}
        {date('to', 'Up to')}
        {narrowed && <Button onClick={() => setParams({}, { replace: true })}>Show all</Button>}
      </Box>
      {some && (
        <Typography role="note" sx={{ mb: 1 }}>
          No entry has all of these words. These have some of them.
        </Typography>
      )}
      <Typography role="status" color="text.secondary" sx={{ mb: 1 }}>
        {log.data.of === 0
          ? narrowed
            ? 'Nothing was found. Look for fewer words, or show all.'
            : 'Nothing is logged yet. Lay a coat and log it, or write a note on a picture.'
          : `${skip + 1} to ${last} of ${log.data.of}`}
      </Typography>
      <Box
        component="ol"
        aria-label="Entries"
        sx={{ listStyle: 'none', p: 0, m: 0, opacity: log.isPlaceholderData ? 0.6 : 1 }}
      >
        {entries.map((found) => (
          <Row key={found.entry.number} found={found} zone={zone} />
        ))}
      </Box>
      {log.data.of > PAGE && (
        <Box sx={{ display: 'flex', gap: 1.5, mt: 2 }}>
          <Button
            disabled={skip === 0}
            onClick={() => set('skip', String(Math.max(skip - PAGE, 0)))}
          >
            Later
          </Button>
          <Button
            disabled={skip + PAGE >= log.data.of}
            onClick={() => set('skip', String(skip + PAGE))}
          >
            Earlier
          </Button>
        </Box>
      )}
    </Box>
  );
}

function Row({ found, zone }: { found: Schemas['EntryOut']; zone: string }) {
  const { entry } = found;
  const late = Date.parse(entry.entered_at) - Date.parse(entry.at) > 3_600_000;
  const about = [
    found.mix,
    typeof entry.wet_film_um === 'number' ? `${plain(entry.wet_film_um)} µm wet` : null,
    found.place && `in “${found.place}”`,
    found.material,
  ].filter(Boolean);
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: '190px 30px 1fr' },
        columnGap: 2,
        py: 1,
        borderTop: 1,
        borderColor: 'divider',
      }}
    >
      <Box>
        <Typography sx={{ fontWeight: 700 }}>{exact(Date.parse(entry.at), zone)}</Typography>
        {late && (
          <Typography color="text.secondary" sx={{ fontSize: 15 }}>
            entered {exact(Date.parse(entry.entered_at), zone)}
          </Typography>
        )}
      </Box>
      <Box sx={{ display: { xs: 'none', md: 'block' } }}>
        {found.colour && <Chip colour={found.colour} size={28} />}
      </Box>
      <Box sx={{ minWidth: 0, overflowWrap: 'anywhere' }}>
        <Typography sx={{ fontSize: 18 }}>
          <Box
            component={Link}
            to={`/pictures/${found.picture}`}
            sx={{ color: 'text.primary', textUnderlineOffset: 4 }}
          >
            {found.picture_title}
          </Box>
          {': '}
          <b>
            {found.step_title && entry.kind !== 'photographed'
              ? entry.kind === 'laid'
                ? start(found.step_title)
                : `${start(found.step_title)}, ${(ONE[entry.kind] ?? entry.kind).toLowerCase()}`
              : (ONE[entry.kind] ?? entry.kind)}
          </b>
        </Typography>
        {about.length > 0 && <Typography color="text.secondary">{about.join(' · ')}</Typography>}
        {entry.said && <Typography>{entry.said}</Typography>}
        {entry.words && <Typography sx={{ whiteSpace: 'pre-line' }}>“{entry.words}”</Typography>}
      </Box>
    </Box>
  );
}
