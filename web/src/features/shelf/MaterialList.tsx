import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { Chip } from '../../components/Chip';
import { put, type useShelfEdit } from '../../components/useShelfEdit';
import { plain } from '../../format/words';
import { DaybookNote } from '../log/DaybookNote';
import { MaterialDialog } from './MaterialDialog';
import { BOARDS, boardOf, matches } from './search';

type Material = Schemas['MaterialDoc'];

interface Props {
  studio: string;
  shelf: Schemas['ShelfOut'];
  edits: ReturnType<typeof useShelfEdit>;
  zone: string;
  now: number;
}

/** The numbers of a material in one line. */
function numbers(m: Material): string {
  const percent = (share: number) => plain(share * 100, 0);
  return [
    m.spirit
      ? `${percent(m.solids)} solids / ${percent(m.spirit)} spirit, %`
      : `${percent(m.solids)} solids / ${percent(m.water ?? 0)} water / ${percent(m.glycol ?? 0)} slow, %`,
    m.density_g_ml == null ? '' : `${plain(m.density_g_ml, 2)} g/ml`,
    m.opacity?.replace('_', '-') ?? '',
    m.finish ?? '',
    m.pace == null ? '' : `pace ${plain(m.pace, 2)}`,
    m.slow_volatility == null ? '' : `volatility ${plain(m.slow_volatility, 2)}`,
    m.most_retarder == null ? '' : `retarder at most ${percent(m.most_retarder)} %`,
    m.most_water == null ? '' : `water at most ${percent(m.most_water)} %`,
    // A long source opens with its mark; the whole of it stands in the entry.
    m.source ? (/^\[\w+\]/.exec(m.source)?.[0] ?? m.source) : 'source not said',
  ]
    .filter(Boolean)
    .join(' · ');
}

/** Everything on the shelf, board by board. */
export function MaterialList({ studio, shelf, edits, zone, now }: Props) {
  const [text, setText] = useState('');
  const [away, setAway] = useState(false);
  const [open, setOpen] = useState<Material | 'new'>();
  const [noting, setNoting] = useState<Material>();
  const [told, setTold] = useState<{ said: string; of: Material }>();
  const found = shelf.materials.filter(
    ({ material }) => matches(material, text) && (away || !material.archived),
  );
  const archive = (m: Material) =>
    edits.edit(m.archived ? `bring back ${m.name}` : `put ${m.name} away`, (doc) => ({
      ...doc,
      materials: put(doc.materials, { ...m, archived: !m.archived }),
    }));
  return (
    <Box component="section" aria-label="Paints and mediums">
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center', mb: 1 }}>
        <TextField
          label="Find"
          type="search"
          value={text}
          onChange={(e) => setText(e.target.value)}
          sx={{ width: { xs: '100%', sm: 320 } }}
        />
        <FormControlLabel
          label="Show what is put away"
          control={<Switch checked={away} onChange={(e) => setAway(e.target.checked)} />}
        />
        <Button onClick={() => setOpen('new')}>Add a material</Button>
      </Box>
      {told && (
        <Typography role="status">
          {told.said}{' '}
          <Link to={`/log?material=${encodeURIComponent(told.of.id)}`} style={{ color: 'inherit' }}>
            Everything done with {told.of.name}
          </Link>
        </Typography>
      )}
      {found.length === 0 && (
        <Typography sx={{ my: 2 }}>
          {text ? `Nothing on the shelf is called “${text}”.` : 'The shelf is empty.'}
        </Typography>
      )}
      {BOARDS.map((board) => {
        const rows = found.filter(({ material }) => boardOf(material.kind) === board.title);
        if (rows.length === 0) return null;
        return (
          <Box component="section" key={board.title} aria-label={board.title} sx={{ mt: 3 }}>
            <Typography variant="h3" sx={{ borderBottom: 2, pb: 0.5 }}>
              {board.title}
            </Typography>
            <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
              {rows.map(({ material: m, left_ml, used, lightfastness, hurts }) => (
                <Box
                  component="li"
                  key={m.id}
                  aria-label={m.name}
                  sx={{
                    display: 'grid',
                    gridTemplateColumns: { xs: '34px 1fr', md: '34px minmax(0, 1fr) 130px 310px' },
                    columnGap: 2,
                    alignItems: 'center',
                    py: 0.75,
                    borderBottom: 1,
                    borderColor: 'divider',
                  }}
                >
                  <Chip colour={m.over_white ?? m.swatch} overBlack={m.over_black} size={30} />
                  <Box sx={{ minWidth: 0 }}>
                    <Typography sx={{ fontSize: 18, fontWeight: 700, overflowWrap: 'anywhere' }}>
                      {m.name}
                      {m.archived && (
                        <Box component="span" sx={{ fontWeight: 400 }}>
                          {' '}
                          (put away)
                        </Box>
                      )}
                    </Typography>
                    <Typography color="text.secondary">
                      {[numbers(m), lightfastness].filter(Boolean).join(' · ')}
                    </Typography>
                    {hurts && <Typography>{hurts}</Typography>}
                  </Box>
                  <Typography sx={{ gridColumn: { xs: 2, md: 'auto' } }}>
                    {left_ml === null ? (
                      <Box component="span" sx={{ color: 'text.secondary' }}>
                        stock not kept
                      </Box>
                    ) : (
                      <b>{plain(left_ml)} ml left</b>
                    )}
                  </Typography>
                  <Box sx={{ gridColumn: { xs: '1 / -1', md: 'auto' }, whiteSpace: 'nowrap' }}>
                    <Button variant="text" aria-label={`Edit ${m.name}`} onClick={() => setOpen(m)}>
                      Edit
                    </Button>
                    <Button
                      variant="text"
                      aria-label={`Write a note about ${m.name}`}
                      onClick={() => setNoting(m)}
                    >
                      Note
                    </Button>
                    {used && (
                      <Button
                        component={Link}
                        variant="text"
                        to={`/log?material=${encodeURIComponent(m.id)}`}
                        aria-label={`Where ${m.name} was used`}
                      >
                        Used
                      </Button>
                    )}
                    <Button
                      variant="text"
                      disabled={edits.pending}
                      aria-label={`${m.archived ? 'Bring back' : 'Put away'} ${m.name}`}
                      onClick={() => archive(m)}
                    >
                      {m.archived ? 'Bring back' : 'Put away'}
                    </Button>
                    {!used && m.archived && (
                      <Button
                        variant="text"
                        disabled={edits.pending}
                        aria-label={`Take ${m.name} out`}
                        onClick={() =>
                          edits.edit(`take ${m.name} out`, (doc) => ({
                            ...doc,
                            materials: doc.materials.filter((e) => e.id !== m.id),
                          }))
                        }
                      >
                        Remove
                      </Button>
                    )}
                  </Box>
                </Box>
              ))}
            </Box>
          </Box>
        );
      })}
      {noting && (
        <DaybookNote
          studio={studio}
          about={noting}
          materials={shelf.materials.map((m) => m.material)}
          zone={zone}
          now={now}
          onClose={(said) => {
            setNoting(undefined);
            if (said) setTold({ said, of: noting });
          }}
        />
      )}
      {open && (
        <MaterialDialog
          shelf={shelf.materials.map((m) => m.material)}
          zone={zone}
          material={open === 'new' ? undefined : open}
          leftMl={
            open === 'new'
              ? null
              : (shelf.materials.find((m) => m.material.id === open.id)?.left_ml ?? null)
          }
          index={
            open === 'new'
              ? shelf.materials.length
              : shelf.materials.findIndex((m) => m.material.id === open.id)
          }
          now={now}
          edits={edits}
          onClose={() => setOpen(undefined)}
        />
      )}
    </Box>
  );
}
