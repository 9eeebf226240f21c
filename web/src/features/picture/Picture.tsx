import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { calendarUrl, useDeletePicture } from '../../api/edits';
import { saidOf, useCatalogue } from '../../components/catalogue';
import { useCurrentStudio } from '../../components/currentStudio';
import { Loading } from '../../components/Loading';
import { LogWork } from '../../components/LogWork';
import { Trouble } from '../../components/Trouble';
import { dateStyle, useDates } from '../../components/useDates';
import { useKeys } from '../../components/useKeys';
import { useShelfEdit } from '../../components/useShelfEdit';
import { useTitle } from '../../components/useTitle';
import { plain, start } from '../../format/words';
import { ConflictDialog } from '../../components/ConflictDialog';
import { topCoat } from '../../format/verdict';
import { TouchBar, TouchMoves } from '../touch/TouchBar';
import { HappenBar } from '../log/HappenBar';
import { HappenedList } from '../log/HappenedList';
import { HappenMoves } from '../log/HappenMoves';
import { useHappening } from '../log/useHappening';
import { Touched } from '../touch/Touched';
import { useTouching } from '../touch/useTouching';
import { FilmTable } from './FilmTable';
import { SpreadTable } from './SpreadTable';
import { PictureFacts } from './PictureFacts';
import { PictureFigure } from './PictureFigure';
import { SaveWay } from './SaveWay';
import { StepList } from './StepList';
import { usePictureEdit } from './usePictureEdit';
import { usePictureView } from './usePictureView';

const hint = { opacity: 0.7, ml: 1 } as const;

/** One picture: verdict, strata, core, and its steps. */
export function Picture() {
  const { id = '' } = useParams();
  return <OnePicture key={id} id={id} />;
}

function OnePicture({ id }: { id: string }) {
  const { id: studio } = useCurrentStudio();
  const view = usePictureView(id);
  const edits = usePictureEdit(id);
  const shelf = useShelfEdit(studio);
  const [saving, setSaving] = useState(false);
  const [logging, setLogging] = useState<string>();
  const [facts, setFacts] = useState(false);
  const { thinnings } = useCatalogue();
  const take = useDeletePicture();
  const navigate = useNavigate();
  const { data, now } = view;
  useTitle(data?.outlook.title);
  const { dateOf } = useDates(studio, view.pictures);
  const zone = view.zone ?? 'UTC';
  const next = data?.outlook.plan.find((p) => p.sittings.length > 0);
  const touching = useTouching();
  const happening = useHappening();
  useKeys([
    { key: 'n', does: 'Strata: to now', run: view.toNow },
    { key: 'e', does: 'Strata: elastic or even time', run: view.toggleMode },
    { key: 'l', does: 'Log the next coat', run: () => next && setLogging(next.step) },
    {
      key: 'c',
      does: 'Open the cup of the next coat',
      run: () => next && void navigate(`cup/${next.step}`),
    },
    { key: 'g', does: 'Open the gate', run: () => void navigate('gate') },
    { key: 'u', does: 'Undo', run: () => edits.goTo('undo') },
    { key: 'U', does: 'Redo', run: () => edits.goTo('redo') },
  ]);
  if (view.strata.error && !data) {
    return <Trouble error={view.strata.error} retry={() => void view.strata.refetch()} />;
  }
  if (shelf.shelf.error && !shelf.stored) {
    return <Trouble error={shelf.shelf.error} retry={() => void shelf.shelf.refetch()} />;
  }
  if (!data || !view.all || !edits.stored || !shelf.stored || !view.zone) {
    return <Loading what="Following the film" />;
  }
  const { outlook } = data;
  const date = dateOf(outlook);
  const doc = edits.stored.picture;
  const { history } = edits.stored;
  const top = topCoat(
    view.coats.filter((c) => !c.planned),
    now,
  );
  const toLog = doc.steps?.find((s) => s.id === logging);
  return (
    <Box>
      <Box
        sx={{ display: 'flex', alignItems: 'baseline', columnGap: 3, rowGap: 0, flexWrap: 'wrap' }}
      >
        <Typography variant="h1" sx={{ overflowWrap: 'anywhere' }}>
          {outlook.title}
        </Typography>
        <Typography color="text.secondary" sx={{ fontSize: 18 }}>
          {plain(outlook.width_cm)} × {plain(outlook.height_cm)} cm
          {' · '}
          <Box component="span" sx={dateStyle(date.standing)}>
            {date.said}
          </Box>
          {doc.thinning &&
            ` · ${saidOf(thinnings, doc.thinning.school).toLowerCase()} here: “${doc.thinning.reason}”`}
        </Typography>
      </Box>
      <Typography variant="h2" component="p" aria-live="polite" data-testid="verdict">
        <b>{view.said.head}</b> {view.said.rest}
      </Typography>
      <PictureFigure view={view} zone={zone} tests={doc.tests ?? []} />
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mt: 1.5 }}>
        <Button variant="contained" disabled={!next} onClick={() => next && setLogging(next.step)}>
          {next && !isCoat(doc, next.step) ? 'Step done' : 'Coat laid'}
          <Box component="span" sx={hint}>
            L
          </Box>
        </Button>
        {next && isCoat(doc, next.step) && (
          <Button component={Link} to={`cup/${next.step}`}>
            Open the cup
            <Box component="span" sx={hint}>
              C
            </Box>
          </Button>
        )}
        <Button component={Link} to="gate">
          Gate
          <Box component="span" sx={hint}>
            G
          </Box>
        </Button>
        <Button component={Link} to="photographs">
          Photographs
        </Button>
        <Button onClick={view.toggleMode}>
          {view.mode === 'elastic' ? 'Even time' : 'Elastic time'}
          <Box component="span" sx={hint}>
            E
          </Box>
        </Button>
        <Button onClick={view.toNow} disabled={view.atNow}>
          Now
          <Box component="span" sx={hint}>
            N
          </Box>
        </Button>
        <Button
          onClick={() => edits.goTo('undo')}
          disabled={history.undo === null || edits.pending}
        >
          {history.undo === null ? 'Nothing to undo' : `Undo: ${history.undo}`}
          <Box component="span" sx={hint}>
            U
          </Box>
        </Button>
        {history.redo !== null && (
          <Button onClick={() => edits.goTo('redo')} disabled={edits.pending}>
            Redo: {history.redo}
          </Button>
        )}
      </Box>
      {top && (
        <TouchBar
          touching={touching}
          picture={{ ...outlook, version: edits.stored.version }}
          coat={top}
        />
      )}
      {top && (
        <HappenBar
          happening={happening}
          picture={{
            id,
            version: edits.stored.version,
            title: outlook.title,
          }}
          coat={top}
        />
      )}
      <TouchMoves touching={touching} />
      <HappenMoves happening={happening} />
      {edits.undoError && (
        <Typography role="alert" color="error" sx={{ mt: 1 }}>
          {edits.undoError.message}
        </Typography>
      )}
      <StepList
        doc={doc}
        outlook={outlook}
        materials={shelf.stored.materials.map((m) => m.material)}
        zone={zone}
        now={now}
        edits={edits}
        onLog={setLogging}
      />
      <Touched
        touching={touching}
        picture={{ id, version: edits.stored.version }}
        tests={doc.tests ?? []}
        titleOf={(step) => outlook.coats.find((c) => c.step === step)?.title ?? step}
        zone={zone}
      />
      <HappenedList
        happening={happening}
        picture={{ id, version: edits.stored.version, title: outlook.title }}
        entries={doc.happened ?? []}
        steps={(doc.steps ?? []).map((s) => ({
          id: s.id,
          title: start(s.name ?? s.kind.replace('_', ' ')),
        }))}
        materials={shelf.stored.materials.map((m) => m.material)}
        zone={zone}
        now={now}
      />
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mt: 4 }}>
        <Button onClick={() => setFacts(true)}>Size, ground, date, school</Button>
        <Button disabled={!doc.steps?.length} onClick={() => setSaving(true)}>
          Save as a way of working
        </Button>
        <Button component="a" href={calendarUrl(studio, id)} download="picture.ics">
          Calendar of this picture
        </Button>
        <Button
          disabled={take.isPending}
          onClick={() =>
            take.mutate(
              { id, version: outlook.version },
              {
                onSuccess: () =>
                  void navigate('/pictures', { state: { taken: { id, title: outlook.title } } }),
              },
            )
          }
        >
          Take this picture away
        </Button>
      </Box>
      {take.error && (
        <Typography role="alert" color="error" sx={{ mt: 1 }}>
          {take.error.message}
        </Typography>
      )}
      <SpreadTable picture={outlook.id} zone={zone} />
      <FilmTable outlook={outlook} zone={zone} />
      {facts && <PictureFacts doc={doc} edits={edits} onClose={() => setFacts(false)} />}
      {saving && <SaveWay doc={doc} shelf={shelf} onClose={() => setSaving(false)} />}
      {edits.conflict && <ConflictDialog edits={edits} title={outlook.title} />}
      {logging && toLog && (
        <LogWork
          picture={{ id, version: edits.stored.version }}
          step={logging}
          title={
            toLog.name ??
            [...outlook.plan, ...outlook.coats].find((p) => p.step === logging)?.title ??
            ''
          }
          planned={toLog.wet_film_um ?? undefined}
          cupG={toLog.cup_g}
          laidAt={toLog.laid_at ?? undefined}
          mix={toLog.laid_at && toLog.mix?.length ? toLog.mix : undefined}
          materials={shelf.stored.materials.map((m) => m.material)}
          zone={zone}
          now={now}
          onClose={() => setLogging(undefined)}
          onLogged={view.toNow}
        />
      )}
    </Box>
  );
}

const isCoat = (doc: Schemas['PictureDoc'], step: string) =>
  typeof doc.steps?.find((s) => s.id === step)?.wet_film_um === 'number';
