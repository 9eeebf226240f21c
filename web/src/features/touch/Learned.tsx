import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useTheme } from '@mui/material/styles';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { learnedQuery } from '../../api/queries';
import { Trouble } from '../../components/Trouble';
import { exact, span } from '../../format/time';
import { STATES } from '../../format/words';
import { Swatch } from './Swatch';

/** Tests shown at first: the last ones. [practice] a screen of them */
const SHOWN = 12;

/** How a studio differs from the book: what was predicted beside what was seen. */
export function Learned({ studio, zone }: { studio: string; zone: string }) {
  const learned = useQuery(learnedQuery(studio));
  const [all, setAll] = useState(false);
  const data = learned.data;
  const tests = [...(data?.tests ?? [])].reverse();
  const shown = all ? tests : tests.slice(0, SHOWN);
  return (
    <Box component="section" aria-label="How your studio differs from the book" sx={{ mt: 5 }}>
      <Typography variant="h3" sx={{ mb: 1 }}>
        How your studio differs from the book
      </Typography>
      {learned.error && !data && (
        <Trouble error={learned.error} retry={() => void learned.refetch()} />
      )}
      {learned.isPending && <Typography>Reading the touch tests…</Typography>}
      {data && tests.length === 0 && data.unused.length === 0 && (
        <Typography sx={{ maxWidth: 760 }}>
          Nothing was touched yet: the book alone counts. Say on Now or on a picture what a coat
          feels like to a fingertip, and the times follow your room.
        </Typography>
      )}
      {data?.sentences.map((sentence, n) => (
        <Typography
          key={sentence}
          sx={{ fontSize: n === 0 ? 20 : 17, fontWeight: n === 0 ? 700 : 400 }}
        >
          {sentence}
        </Typography>
      ))}
      {shown.length > 0 && data && (
        <Box sx={{ mt: 2 }}>
          <Typography color="text.secondary" sx={{ maxWidth: 760 }}>
            Each bar is what was expected before the test, eight times of ten; its middle line the
            most likely time. The arrow is the test: it points to where the truth lies, earlier when
            the state was reached by then, later when it was not.
          </Typography>
          {shown.map((test) => (
            <Row
              key={`${test.picture} ${test.test.at} ${test.test.step} ${test.test.felt}`}
              test={test}
              zone={zone}
            />
          ))}
          {tests.length > shown.length && (
            <Button onClick={() => setAll(true)}>Show all {tests.length} tests</Button>
          )}
        </Box>
      )}
      {data && data.unused.length > 0 && (
        <Box sx={{ mt: 2 }}>
          <Typography sx={{ fontWeight: 600 }}>Tests that teach nothing</Typography>
          {data.unused.map((unused) => (
            <Typography key={`${unused.picture} ${unused.test.at} ${unused.test.felt}`}>
              <PictureLink id={unused.picture} title={unused.picture_title} />,{' '}
              {exact(Date.parse(unused.test.at), zone)}: {unused.why}.
            </Typography>
          ))}
        </Box>
      )}
      {data && <Swatch studio={studio} known={tests.length > 0} />}
    </Box>
  );
}

/** A picture's name, which leads to it. */
function PictureLink({ id, title }: { id: string; title: string }) {
  return (
    <Box
      component={Link}
      to={`/pictures/${id}`}
      sx={{ color: 'text.primary', textUnderlineOffset: 4 }}
    >
      {title}
    </Box>
  );
}

const WIDTH = 320;
const HEIGHT = 34;
/** The figure reaches from this part of what was expected to so many times it. [practice] */
const REACH = 4;

/** One test against what was expected: time over the expected time, in octaves. */
function Row({ test, zone }: { test: Schemas['AccountOut']; zone: string }) {
  const { greys } = useTheme();
  const x = (min: number) => {
    const octave = Math.log(min / test.expected_min) / Math.log(REACH);
    return (WIDTH / 2) * (1 + Math.min(Math.max(octave, -1), 1));
  };
  const [left, right, seen] = [x(test.early_min), x(test.late_min), x(test.seen_min)];
  const to = test.reached ? -12 : 12;
  const [mid, state] = [HEIGHT / 2, STATES[test.state].word];
  const expected = `expected after ${span(test.expected_min)} (${span(test.early_min)} to ${span(test.late_min)})`;
  const found = `${test.reached ? '' : 'not '}${state} after ${span(test.seen_min)}`;
  return (
    <Box
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        gap: 2,
        alignItems: 'center',
        borderBottom: 1,
        borderColor: 'divider',
        py: 0.75,
      }}
    >
      <svg width={WIDTH} height={HEIGHT} role="img" aria-label={`${found}; ${expected}`}>
        <line x1={0} x2={WIDTH} y1={mid} y2={mid} stroke={greys.line} />
        <rect
          x={left}
          y={mid - 8}
          width={Math.max(right - left, 2)}
          height={16}
          fill={greys.line}
        />
        <line x1={WIDTH / 2} x2={WIDTH / 2} y1={3} y2={HEIGHT - 3} stroke={greys.soft} />
        <path
          d={`M${seen} ${mid - 9} V${mid + 9} M${seen} ${mid} h${to} m${-to / 2} -5 l${to / 2} 5 l${-to / 2} 5`}
          fill="none"
          stroke={greys.text}
          strokeWidth={2.5}
        />
      </svg>
      <Box sx={{ minWidth: 0, flex: '1 1 300px' }}>
        <Typography>
          <PictureLink id={test.picture} title={test.picture_title} />, {test.title}:{' '}
          <b>{test.test.felt}</b>, {exact(Date.parse(test.test.at), zone)}
        </Typography>
        <Typography color="text.secondary">
          {found}; {expected}
          {test.contradicted
            ? '. Another test of this coat says the opposite: both are kept and count for less.'
            : '.'}
        </Typography>
      </Box>
    </Box>
  );
}
