import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { saidOf, useCatalogue } from '../../components/catalogue';
import { Chip } from '../../components/Chip';
import { TubDialog } from '../../components/TubDialog';
import { put, type useShelfEdit } from '../../components/useShelfEdit';
import { day, moment } from '../../format/time';
import { mixWords, plain } from '../../format/words';
import { CheckDialog } from './CheckDialog';

interface Props {
  shelf: Schemas['ShelfOut'];
  edits: ReturnType<typeof useShelfEdit>;
  zone: string;
  now: number;
}

type Tub = Schemas['ShelfTub'];

/** Pre-mixed colour: what may be used, what must be looked into, what is lost. */
export function TubList({ shelf, edits, zone, now }: Props) {
  const [open, setOpen] = useState<Tub | 'new'>();
  const [looking, setLooking] = useState<Tub>();
  const { tub_troubles: troubles } = useCatalogue();
  const materials = shelf.materials.map((m) => m.material);
  const verdict = (t: Tub): string => {
    const last = day(Date.parse(t.last_good), now, zone);
    if (t.tub.archived) return 'Put away.';
    if (t.condition === 'spoiled') {
      return `Do not use it: the last look found ${t.trouble ? saidOf(troubles, t.trouble) : 'trouble'}.`;
    }
    if (t.condition === 'past') return `Last good day was ${last}. Look into it before you use it.`;
    return `Good until ${last}.`;
  };
  const change = (label: string, tub: Schemas['TubDoc']) =>
    edits.edit(label, (doc) => ({ ...doc, tubs: put(doc.tubs, tub) }));
  return (
    <Box component="section" aria-label="Tubs">
      <Button onClick={() => setOpen('new')}>Mix a tub</Button>
      {shelf.tubs.length === 0 && (
        <Typography sx={{ my: 2 }}>
          No tubs. A colour that several coats use keeps for weeks in an airtight tub.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0, mt: 2 }}>
        {shelf.tubs.map((t) => {
          const first = [...t.tub.mix].sort((a, b) => b.parts - a.parts);
          const paint = first.find(
            (p) => materials.find((m) => m.id === p.material)?.kind === 'paint',
          );
          const last = t.tub.checks?.at(-1);
          return (
            <Box
              component="li"
              key={t.tub.id}
              aria-label={t.tub.name}
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '34px 1fr', md: '34px minmax(0, 1fr) auto' },
                columnGap: 2,
                alignItems: 'center',
                py: 1.25,
                borderBottom: 1,
                borderColor: 'divider',
              }}
            >
              <Chip
                colour={materials.find((m) => m.id === (paint ?? first[0])?.material)?.swatch}
                size={32}
              />
              <Box sx={{ minWidth: 0 }}>
                <Typography sx={{ fontSize: 20, fontWeight: 700, overflowWrap: 'anywhere' }}>
                  {t.tub.name}: {plain(t.left_ml)} ml left
                </Typography>
                <Typography
                  sx={
                    t.condition === 'good' || t.tub.archived
                      ? undefined
                      : { color: 'error.main', fontWeight: 700 }
                  }
                >
                  {verdict(t)}
                </Typography>
                <Typography color="text.secondary">
                  {mixWords(t.tub.mix, materials)} · {plain(t.tub.mixed_ml)} ml mixed{' '}
                  {moment(Date.parse(t.tub.mixed_at), now, zone)}
                  {last &&
                    ` · looked into ${moment(Date.parse(last.at), now, zone)}: ${
                      last.found?.length
                        ? last.found.map((f) => saidOf(troubles, f)).join(', ')
                        : 'good'
                    }`}
                </Typography>
              </Box>
              <Box
                sx={{
                  gridColumn: { xs: '1 / -1', md: 'auto' },
                  display: 'flex',
                  flexWrap: 'wrap',
                }}
              >
                <Button
                  variant="text"
                  aria-label={`Look into ${t.tub.name}`}
                  onClick={() => setLooking(t)}
                >
                  Look into it
                </Button>
                <Button variant="text" aria-label={`Edit ${t.tub.name}`} onClick={() => setOpen(t)}>
                  Edit
                </Button>
                <Button
                  component={Link}
                  variant="text"
                  to={`/log?material=${encodeURIComponent(t.tub.id)}`}
                  aria-label={`Where ${t.tub.name} was used`}
                >
                  Used
                </Button>
                <Button
                  variant="text"
                  disabled={edits.pending}
                  aria-label={`${t.tub.archived ? 'Bring back' : 'Put away'} ${t.tub.name}`}
                  onClick={() =>
                    change(`${t.tub.archived ? 'bring back' : 'put away'} the tub ${t.tub.name}`, {
                      ...t.tub,
                      archived: !t.tub.archived,
                    })
                  }
                >
                  {t.tub.archived ? 'Bring back' : 'Put away'}
                </Button>
              </Box>
            </Box>
          );
        })}
      </Box>
      <Typography color="text.secondary" sx={{ mt: 2 }}>
        Colour that is lost does not go down the drain: let it dry and follow local waste rules.
      </Typography>
      {open && (
        <TubDialog
          tub={open === 'new' ? undefined : open.tub}
          leftMl={open === 'new' ? undefined : open.left_ml}
          materials={materials}
          zone={zone}
          now={now}
          edits={edits}
          onClose={() => setOpen(undefined)}
        />
      )}
      {looking && (
        <CheckDialog
          tub={looking.tub}
          now={now}
          edits={edits}
          onClose={() => setLooking(undefined)}
        />
      )}
    </Box>
  );
}
