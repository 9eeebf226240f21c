import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Schemas } from '../../../api/client';
import { colourQuery } from '../../../api/queries';
import { useCatalogue } from '../../../components/catalogue';
import { useTitle } from '../../../components/useTitle';
import { NumberField } from '../../../components/NumberField';
import { TubDialog } from '../../../components/TubDialog';
import { useKeys } from '../../../components/useKeys';
import type { useShelfEdit } from '../../../components/useShelfEdit';
import { Cup } from '../../../figures/Cup';
import { span } from '../../../format/time';
import { mixWords, plain, start } from '../../../format/words';
import { ConflictDialog } from '../../../components/ConflictDialog';
import { putStep, repeatStep, type Step } from '../../../components/stepEdits';
import type { usePictureEdit } from '../usePictureEdit';
import { ColourBox } from '../colour/ColourBox';
import { MatchBox } from '../colour/MatchBox';
import { ValuesBox } from '../colour/ValuesBox';
import { compared, cupVerdict } from './compare';
import { CupLimits } from './CupLimits';
import { CupParts } from './CupParts';
import { ScaleBox } from './ScaleBox';
import { SeriesBox } from './SeriesBox';
import { useCup } from './useCup';

interface Props {
  id: string;
  title: string;
  step: Step;
  materials: Schemas['MaterialDoc'][];
  tubs: Schemas['ShelfTub'][];
  shelf: ReturnType<typeof useShelfEdit>;
  zone: string;
  now: number;
  edits: ReturnType<typeof usePictureEdit>;
}

const OFFERS = { thinner: 'Thinner', stronger: 'Stronger', slower: 'Slower' } as const;

/** Mixing: the drawn cup, the recipe, what it allows and what it would do now. */
export function CupBench(props: Props) {
  const { id, title, step, materials, tubs, shelf, zone, now, edits } = props;
  useTitle(`Cup, ${title}`);
  const edit = useCup(id, step);
  const { draft, change, cup, wrong, numbers } = edit;
  const { horizon_days: horizon, measures } = useCatalogue();
  const navigate = useNavigate();
  const back = () => void navigate(`/pictures/${id}`);
  const name = start(step.name ?? step.kind.replace('_', ' '));
  const [keeping, setKeeping] = useState(false);
  const [wanted, setWanted] = useState<string>();
  const tub = tubs.find((t) => t.tub.id === edit.tub);
  /** The coat as it would be kept with the cup as it stands. */
  const made = (cupG?: number) =>
    putStep({
      ...step,
      mix: edit.settled,
      wet_film_um: edit.ask.wet_film_um,
      share_of_area: edit.ask.share_of_area,
      loss: cup?.loss,
      tub: edit.tub || undefined,
      cup_g: cupG ?? step.cup_g,
    });
  const colour = useQuery({
    ...colourQuery(id, {
      ...(wanted ? { wanted } : {}),
      mix: edit.settled ?? [],
      wet_film_um: edit.ask.wet_film_um,
      step: step.id,
    }),
    enabled: edit.sound && !!edit.settled,
  });
  const keep = () => edits.edit(`mix ${name}`, made(), back);
  useKeys([{ key: 'k', does: 'Cup: keep it beside', run: edit.keepBeside }]);
  const retarder = cup?.limits.find((l) => l.what === 'retarder');
  const order = (part: Schemas['CupPart']) =>
    materials.find((m) => m.id === part.material)?.kind === 'retarder' ? 1 : 0;
  const layers = [...(cup?.parts ?? [])]
    .sort((a, b) => order(a) - order(b))
    .map((part) => {
      const material = materials.find((m) => m.id === part.material);
      return {
        id: part.material,
        name: material?.name ?? part.material,
        share: part.share,
        colour: material?.swatch,
      };
    });
  return (
    <Box>
      <Typography color="text.secondary">
        <Link to={`/pictures/${id}`} style={{ color: 'inherit' }}>
          {title}
        </Link>
      </Typography>
      <Typography variant="h1">Cup for {name}</Typography>
      {cup && (
        <Typography variant="h2" component="p" aria-live="polite" data-testid="cup-verdict">
          <b>Mix {plain(cup.total_ml)} ml.</b> {cupVerdict(cup, now, zone, horizon)}
        </Typography>
      )}
      {cup && step.hands_on_min > 0 && cup.working_min !== null && (
        <WetEdge working={cup.working_min} hands={step.hands_on_min} />
      )}
      {edit.answer.error && edit.sound && !edit.place?.match(/^(mix|total_ml)/) && (
        <Typography role="alert" color="error" sx={{ fontWeight: 600 }}>
          {edit.answer.error.message}
        </Typography>
      )}
      <Box
        sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '260px 1fr' }, gap: 3, mt: 2 }}
      >
        <Box>
          {cup && (
            <Cup
              layers={layers}
              totalMl={cup.total_ml}
              retarder={
                retarder?.share != null
                  ? { share: retarder.share, limit: retarder.limit }
                  : undefined
              }
            />
          )}
        </Box>
        <Box sx={{ minWidth: 0 }}>
          {tubs.length > 0 && (
            <TextField
              select
              label="Paint from"
              value={edit.tub}
              onChange={(e) =>
                edit.fromTub(e.target.value, tubs.find((t) => t.tub.id === e.target.value)?.tub.mix)
              }
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
              sx={{ width: { xs: '100%', sm: 420 }, mb: 1 }}
            >
              <MenuItem value="">A fresh cup</MenuItem>
              {tubs
                .filter((t) => !t.tub.archived || t.tub.id === edit.tub)
                .map((t) => (
                  <MenuItem key={t.tub.id} value={t.tub.id}>
                    The tub “{t.tub.name}”, {plain(t.left_ml)} ml left
                    {t.condition === 'good'
                      ? ''
                      : t.condition === 'past'
                        ? ', look into it'
                        : ', spoiled'}
                  </MenuItem>
                ))}
            </TextField>
          )}
          {tub ? (
            <Typography sx={{ my: 1 }}>
              In it: {mixWords(tub.tub.mix, materials)}.
              {cup && cup.total_ml > tub.left_ml && (
                <Box component="b" role="status" sx={{ color: 'error.main' }}>
                  {' '}
                  It holds {plain(tub.left_ml)} ml, this coat takes {plain(cup.total_ml)} ml.
                </Box>
              )}
            </Typography>
          ) : (
            <CupParts edit={edit} materials={materials} />
          )}
          <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mt: 2.5 }}>
            <NumberField numbers={numbers} name="film" width={190} />
            <NumberField numbers={numbers} name="share" width={190} />
            <TextField
              label="Lost in cup and brush, %"
              value={
                numbers.texts.total === '' ? numbers.texts.loss : cup ? plain(cup.loss * 100) : ''
              }
              onChange={(e) => {
                numbers.set('loss', e.target.value);
                numbers.set('total', '');
              }}
              error={!!wrong.loss}
              helperText={wrong.loss}
              slotProps={{ htmlInput: { inputMode: 'decimal' } }}
              sx={{ width: { xs: '100%', sm: 190 } }}
            />
            <TextField
              label="In all, ml"
              value={numbers.texts.total || (cup ? plain(cup.total_ml, 2) : '')}
              onChange={(e) => numbers.set('total', e.target.value)}
              error={!!wrong.total || edit.place === 'total_ml'}
              helperText={
                wrong.total ?? (edit.place === 'total_ml' ? edit.answer.error?.message : undefined)
              }
              slotProps={{ htmlInput: { inputMode: 'decimal' } }}
              sx={{ width: { xs: '100%', sm: 150 } }}
            />
            <TextField
              select
              label="Smallest measure"
              value={draft.measure}
              onChange={(e) => change({ measure: Number(e.target.value) })}
              sx={{ width: { xs: '100%', sm: 190 } }}
            >
              {measures.map((m) => (
                <MenuItem key={m.value} value={m.value}>
                  {m.said}
                </MenuItem>
              ))}
            </TextField>
          </Box>
          {cup && (
            <Typography sx={{ mt: 1.5 }} data-testid="rounding">
              In whole measures: {cup.parts.map((p) => `${plain(p.rounded_ml, 2)} ml`).join(' + ')}.
              That moves a share by up to {plain(cup.rounding_share * 100)} % of the cup.
            </Typography>
          )}
          <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mt: 2.5 }}>
            {!tub &&
              cup?.offers.map((offer) => (
                <Button
                  key={offer.change}
                  disabled={!offer.mix || !edit.fresh}
                  onClick={() => offer.mix && edit.take(offer.mix)}
                >
                  {OFFERS[offer.change as keyof typeof OFFERS]}
                </Button>
              ))}
            <Button
              disabled={!cup || !edit.fresh}
              onClick={edit.beside ? edit.dropBeside : edit.keepBeside}
            >
              {edit.beside ? 'Put the other cup away' : 'Keep it beside'}
            </Button>
          </Box>
          {edit.beside && cup && (
            <Typography role="status" sx={{ mt: 1.5, fontSize: 20 }}>
              <b>Beside the kept cup:</b> {compared(cup, edit.beside, now, zone)}
            </Typography>
          )}
          {cup && <CupLimits limits={cup.limits} />}
          <Box
            sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mt: 3, alignItems: 'flex-start' }}
          >
            <TextField
              select
              label="Short of"
              value={draft.have}
              onChange={(e) => change({ have: e.target.value })}
              sx={{ width: { xs: '100%', sm: 260 } }}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            >
              <MenuItem value="">Nothing is short</MenuItem>
              {edit.mix.map((p) => (
                <MenuItem key={p.material} value={p.material}>
                  {materials.find((m) => m.id === p.material)?.name ?? p.material}
                </MenuItem>
              ))}
            </TextField>
            {draft.have && (
              <TextField
                label="Left of it, ml"
                value={numbers.texts.have}
                onChange={(e) => numbers.set('have', e.target.value)}
                error={!!wrong.have}
                helperText={wrong.have}
                sx={{ width: 150 }}
              />
            )}
          </Box>
          {cup?.short && (
            <Typography role="status" sx={{ mt: 1 }}>
              {cup.short.enough
                ? 'That is enough for this coat.'
                : `That makes ${plain(cup.short.total_ml)} ml: a film of ${plain(cup.short.wet_film_um)} µm, or ${plain(cup.short.share_of_area * 100, 0)} % of the picture at this film.`}
            </Typography>
          )}
          {cup && cup.hazards.length > 0 && (
            <Box component="ul" aria-label="Care for people" sx={{ mt: 2, mb: 0, pl: 2.5 }}>
              {cup.hazards.map((hazard) => (
                <li key={hazard}>{hazard}</li>
              ))}
            </Box>
          )}
        </Box>
      </Box>
      {colour.data && (
        <ColourBox
          colour={colour.data}
          picture={{ id, version: edits.stored?.version ?? 0 }}
          step={step.id}
          mix={edit.ask.mix}
          film={edit.ask.wet_film_um}
          old={colour.isPlaceholderData}
          wanted={wanted}
          onWanted={setWanted}
          pending={edits.pending || !edit.settled}
          onPlan={(coats) =>
            edits.edit(
              `${coats} coats of ${name}`,
              (picture) => repeatStep(step.id, coats)(made()(picture)),
              back,
            )
          }
        />
      )}
      {colour.error && edit.sound && !edit.answer.error && (
        <Typography role="alert" color="error" sx={{ mt: 2, fontWeight: 600 }}>
          {colour.error.message}
        </Typography>
      )}
      {cup && !tub && (
        <>
          <MatchBox
            id={id}
            step={step.id}
            film={edit.ask.wet_film_um}
            zone={zone}
            materials={materials}
            onTake={edit.take}
          />
          <ValuesBox
            id={id}
            step={step.id}
            film={edit.ask.wet_film_um}
            zone={zone}
            mix={edit.settled ?? edit.mix}
            materials={materials}
            onTake={edit.take}
          />
          <ScaleBox
            cup={cup}
            materials={materials}
            weighed={step.cup_g}
            pending={edits.pending || !edit.settled}
            onWeighed={(grams) => edits.edit(`weigh the cup of ${name}`, made(grams))}
          />
          <SeriesBox
            id={id}
            materials={materials}
            film={edit.ask.wet_film_um}
            step={step.id}
            mix={edit.mix}
            now={now}
            zone={zone}
            onTake={edit.take}
          />
        </>
      )}
      <Box sx={{ display: 'flex', gap: 1.5, mt: 4, flexWrap: 'wrap' }}>
        <Button
          variant="contained"
          disabled={!edit.sound || !edit.settled || !!edit.answer.error || edits.pending}
          onClick={keep}
        >
          Put this into {name}
        </Button>
        <Button onClick={back}>Leave it as it was</Button>
        {!tub && (
          <Button disabled={!edit.settled || !cup} onClick={() => setKeeping(true)}>
            Keep this mix as a tub
          </Button>
        )}
      </Box>
      {edits.refusal && (
        <Typography role="alert" color="error" sx={{ mt: 1 }}>
          {edits.refusal.message}
        </Typography>
      )}
      {edits.conflict && <ConflictDialog edits={edits} title={title} />}
      {keeping && edit.settled && cup && (
        <TubDialog
          mix={edit.settled}
          ml={cup.total_ml}
          materials={materials}
          zone={zone}
          now={now}
          edits={shelf}
          onClose={() => setKeeping(false)}
        />
      )}
    </Box>
  );
}

/** A coat that sets long before the hand is done. */
function WetEdge({ working, hands }: { working: number; hands: number }) {
  if (working >= hands) return null;
  return (
    <Typography sx={{ mt: 0.5 }}>
      You take {span(hands)} for it: lay it in parts, work back into the wet edge, and leave alone
      what turns tacky.
    </Typography>
  );
}
