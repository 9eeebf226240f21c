import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../../api/client';
import { photographUrl } from '../../api/queries';
import { Chip } from '../../components/Chip';
import { exact, moment, span, upToMinute } from '../../format/time';
import { mixWords, plain, start } from '../../format/words';
import { Findings } from './Findings';
import { moveStep, repeatStep, takeStepOut, unlay, type Step } from '../../components/stepEdits';
import type { usePictureEdit } from './usePictureEdit';

interface Props {
  step: Step;
  number: number;
  last: boolean;
  word: string;
  planned?: Schemas['PlannedOut'];
  coat?: Schemas['CoatOut'];
  findings: Schemas['FindingOut'][];
  /** Photographs that show it. */
  photographs?: Schemas['PhotographOut'][];
  materials: Schemas['MaterialDoc'][];
  zone: string;
  now: number;
  edits: ReturnType<typeof usePictureEdit>;
  onCup: () => void;
  onEdit: () => void;
  onLog: () => void;
}

const action = { minHeight: 44, px: 1.25, py: 0, fontSize: 16 } as const;

/** One step: what, with what, when, and why not before. */
export function StepRow(props: Props) {
  const { step, number, last, word, coat, findings, materials, edits } = props;
  const title = start(step.name ?? word);
  const details = [
    step.section ?? '',
    mixWords(step.mix ?? [], materials),
    typeof step.wet_film_um === 'number' ? `${plain(step.wet_film_um)} µm wet` : '',
    `${plain(step.hands_on_min, 0)} min`,
    step.tub ? 'from a tub' : '',
  ].filter(Boolean);
  const act = (label: string, run: () => void, disabled = false) => (
    <Button
      variant="text"
      sx={action}
      disabled={disabled || edits.pending}
      onClick={run}
      aria-label={`${label}: ${title}`}
    >
      {label}
    </Button>
  );
  return (
    <Box
      component="li"
      aria-label={title}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '28px 1fr', md: '34px minmax(280px, 1fr) minmax(300px, 1fr)' },
        columnGap: 2,
        py: 1.25,
        borderTop: 1,
        borderColor: 'divider',
      }}
    >
      <Typography sx={{ fontWeight: 700, fontSize: 18 }}>{number}</Typography>
      <Box sx={{ minWidth: 0 }}>
        <Typography
          sx={{
            fontSize: 19,
            fontWeight: 700,
            display: 'flex',
            gap: 1,
            alignItems: 'center',
            overflowWrap: 'anywhere',
          }}
        >
          {coat && <Chip colour={coat.swatch} />}
          {title}
          {step.name && step.name.toLowerCase() !== word && (
            <Box component="span" sx={{ fontWeight: 400, color: 'text.secondary' }}>
              {word}
            </Box>
          )}
        </Typography>
        <Typography color="text.secondary" sx={{ overflowWrap: 'anywhere' }}>
          {details.join(' · ')}
        </Typography>
      </Box>
      <Box sx={{ gridColumn: { xs: 2, md: 3 }, minWidth: 0 }}>
        <When {...props} />
        <Shown photographs={props.photographs ?? []} />
      </Box>
      <Findings findings={findings} zone={props.zone} now={props.now} edits={edits} />
      <Box
        sx={{
          gridColumn: { xs: '1 / -1', md: '2 / -1' },
          display: 'flex',
          flexWrap: 'wrap',
          ml: -1.25,
        }}
      >
        {!step.laid_at && act(coat ? 'Coat laid' : 'Done', props.onLog)}
        {typeof step.wet_film_um === 'number' && act('Cup', props.onCup)}
        {act('Edit', props.onEdit)}
        {act('Duplicate', () => edits.edit(`duplicate ${title}`, repeatStep(step.id, 2)))}
        {act('Up', () => edits.edit(`move ${title} up`, moveStep(step.id, -1)), number === 1)}
        {act('Down', () => edits.edit(`move ${title} down`, moveStep(step.id, 1)), last)}
        {act('Delete', () => edits.edit(`delete ${title}`, takeStepOut(step.id)))}
        {step.laid_at && act('Put right', props.onLog)}
        {step.laid_at &&
          act('Not done yet', () => edits.edit(`take back the log of ${title}`, unlay(step.id)))}
      </Box>
    </Box>
  );
}

/** Photographs of the picture as it was then. */
function Shown({ photographs }: { photographs: Schemas['PhotographOut'][] }) {
  if (photographs.length === 0) return null;
  return (
    <Box sx={{ display: 'flex', gap: 1, mt: 0.5 }}>
      {photographs.map((photograph) => (
        <Box
          key={photograph.id}
          component="a"
          href={photographUrl(photograph.id, 'whole')}
          target="_blank"
          rel="noreferrer"
        >
          <Box
            component="img"
            src={photographUrl(photograph.id, 'small')}
            alt={photograph.caption || 'Photograph of the picture'}
            sx={{ height: 64, display: 'block' }}
          />
        </Box>
      ))}
    </Box>
  );
}

/** When it was done, or when it will be and why not before. */
function When({ step, coat, planned, zone, now }: Props) {
  if (step.laid_at) {
    return (
      <Typography>
        {coat ? 'Laid' : 'Done'} {exact(Date.parse(step.laid_at), zone)}
      </Typography>
    );
  }
  if (!planned) return null;
  if (planned.blocked) {
    return (
      <Typography sx={{ color: 'error.main', fontWeight: 600 }}>
        Cannot be placed: {planned.blocked}.
      </Typography>
    );
  }
  const wait = planned.waits_for;
  const first = planned.sittings[0];
  if (!first) return null;
  const from = Date.parse(first.from);
  const until = wait ? Date.parse(wait.until) : undefined;
  return (
    <>
      <Typography sx={{ fontSize: 19, fontWeight: 700 }}>
        {exact(from, zone)}
        {planned.sittings.length > 1 ? `, in ${planned.sittings.length} sittings` : ''}
      </Typography>
      {wait && until !== undefined && (
        <Typography color="text.secondary">
          {wait.because}, {exact(upToMinute(until), zone)}
          {wait.lag_min >= 1 ? ` (${span(wait.lag_min)} after it)` : ''}
          {from - until > 30 * 60_000 && from > now
            ? `; next free hours ${moment(from, now, zone)}`
            : ''}
          .
        </Typography>
      )}
    </>
  );
}
