import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { useRetoldThere } from '../../api/edits';
import { logQuery, logTableUrl, outlookQuery, shelfQuery } from '../../api/queries';
import { Chip } from '../../components/Chip';
import { useCurrentStudio } from '../../components/currentStudio';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { useNow } from '../../components/useNow';
import { clock, exact, fromField, span, upToMinute } from '../../format/time';
import { plain, start } from '../../format/words';
import { BringTable } from './BringTable';
import { DaybookNote } from './DaybookNote';
import { EntryHistory } from './EntryHistory';
import type { Entry } from './useHappening';

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
  session: 'Sessions',
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
  session: 'Session',
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
  const [open, setOpen] = useState<Entry | 'new'>();
  const [told, setTold] = useState<string>();
  const back = useRetoldThere(id);
  const now = useNow(outlook.data?.now, outlook.dataUpdatedAt);
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
        <Button onClick={() => setOpen('new')}>Write a note</Button>
      </Box>
      {(told ?? back.error) && (
        <Typography role={back.error ? 'alert' : 'status'} color={back.error ? 'error' : undefined}>
          {back.error?.message ?? told}
        </Typography>
      )}
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
        {choose('material', 'With', 'Any material or tub', [
          ...(shelf.data?.materials ?? []).map(({ material: m }) => ({
            value: m.id,
            said: m.name,
          })),
          ...(shelf.data?.tubs ?? []).map(({ tub: t }) => ({
            value: t.id,
            said: `Tub “${t.name}”`,
          })),
        ])}
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
          <Row key={found.entry.number} studio={id} found={found} zone={zone}>
            {found.there && (
              <ThereMoves
                pending={back.isPending}
                onPutRight={() => setOpen(found.there ?? undefined)}
                onTakeBack={() =>
                  found.there &&
                  back.mutate(
                    { entry: found.there },
                    { onSuccess: () => setTold('The entry is taken back.') },
                  )
                }
              />
            )}
          </Row>
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
      {open && (
        <DaybookNote
          studio={id}
          entry={open === 'new' ? undefined : open}
          materials={(shelf.data?.materials ?? []).map((m) => m.material)}
          zone={zone}
          now={now}
          onClose={(said) => {
            setOpen(undefined);
            if (said) setTold(said);
          }}
        />
      )}
    </Box>
  );
}

function ThereMoves(props: { pending: boolean; onPutRight: () => void; onTakeBack: () => void }) {
  const small = { px: 0, mr: 2, textDecoration: 'underline', textUnderlineOffset: 4 } as const;
  return (
    <Box>
      <Button variant="text" sx={small} disabled={props.pending} onClick={props.onPutRight}>
        Put it right
      </Button>
      <Button variant="text" sx={small} disabled={props.pending} onClick={props.onTakeBack}>
        Take it back
      </Button>
    </Box>
  );
}

/** What was planned of a coat before it was laid. */
function plannedSaid(entry: Schemas['LogOut'], zone: string): string | null {
  if (entry.planned_at === null) return null;
  const film = entry.planned_um === null ? '' : `, ${plain(entry.planned_um)} µm wet`;
  return `Planned for ${exact(upToMinute(Date.parse(entry.planned_at)), zone)}${film}`;
}

function Row({
  studio,
  found,
  zone,
  children,
}: {
  studio: string;
  found: Schemas['EntryOut'];
  zone: string;
  children?: ReactNode;
}) {
  const { entry } = found;
  const late = Date.parse(entry.entered_at) - Date.parse(entry.at) > 3_600_000;
  const about = [
    found.mix,
    typeof entry.wet_film_um === 'number' ? `${plain(entry.wet_film_um)} µm wet` : null,
    found.place && `in “${found.place}”`,
    found.material,
    entry.until && `until ${clock(Date.parse(entry.until), zone)}`,
    entry.until && span((Date.parse(entry.until) - Date.parse(entry.at)) / 60_000),
  ].filter(Boolean);
  const planned = plannedSaid(entry, zone);
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
          {found.picture && (
            <>
              <Box
                component={Link}
                to={`/pictures/${found.picture}`}
                sx={{ color: 'text.primary', textUnderlineOffset: 4 }}
              >
                {found.picture_title}
              </Box>
              {': '}
            </>
          )}
          <b>
            {found.step_title && entry.kind !== 'photographed'
              ? entry.kind === 'laid'
                ? start(found.step_title)
                : `${start(found.step_title)}, ${(ONE[entry.kind] ?? entry.kind).toLowerCase()}`
              : (ONE[entry.kind] ?? entry.kind)}
          </b>
        </Typography>
        {about.length > 0 && <Typography color="text.secondary">{about.join(' · ')}</Typography>}
        {planned && <Typography color="text.secondary">{planned}</Typography>}
        {entry.said && <Typography>{entry.said}</Typography>}
        {entry.words && <Typography sx={{ whiteSpace: 'pre-line' }}>“{entry.words}”</Typography>}
        {children}
        <EntryHistory studio={studio} picture={found.picture} entry={entry} zone={zone} />
      </Box>
    </Box>
  );
}
