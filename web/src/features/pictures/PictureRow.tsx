import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { useCatalogue } from '../../components/catalogue';
import { Glimpse } from '../../components/Glimpse';
import { dateStyle } from '../../components/useDates';
import { moment } from '../../format/time';
import { laidTop, verdict } from '../../format/verdict';
import { plain, start } from '../../format/words';

interface Props {
  picture: Schemas['PictureOutlook'];
  date: Schemas['DateOut'];
  zone: string;
  now: number;
}

/** One picture: its coats in proportion, its verdict, its date. */
export function PictureRow({ picture, date, zone, now }: Props) {
  const top = laidTop(picture);
  const { horizon_days: horizon } = useCatalogue();
  const done = picture.plan.length === 0 && picture.steps > 0;
  const said = verdict(top ? [top] : [], now, zone, horizon, done);
  const next = picture.plan[0];
  const sitting = next?.sittings[0];
  const stops = picture.findings.filter(
    (f) => f.severity !== 'note' && f.set_aside === null,
  ).length;
  return (
    <Box
      component="article"
      aria-label={picture.title}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '56px 1fr', md: '72px 1fr 300px' },
        columnGap: 2.5,
        py: 1.75,
        borderTop: 1,
        borderColor: 'divider',
      }}
    >
      <Box
        aria-hidden
        sx={{
          height: 84,
          display: 'flex',
          flexDirection: 'column-reverse',
          border: 1,
          background: '#efefef',
        }}
      >
        {picture.coats.map((coat) => (
          <Box
            key={coat.step}
            sx={{
              flexGrow: coat.wet_um,
              background: coat.swatch,
              opacity: coat.planned ? 0.22 : 1,
              borderTop: coat.planned ? '1px dashed #000' : '1px solid rgba(0,0,0,0.6)',
            }}
          />
        ))}
      </Box>
      <Box sx={{ minWidth: 0, display: 'flex', gap: 2 }}>
        <Glimpse photograph={picture.photograph} size={84} />
        <Box sx={{ minWidth: 0 }}>
          <Box
            component={Link}
            to={`/pictures/${picture.id}`}
            sx={{
              color: 'text.primary',
              fontSize: 22,
              fontWeight: 700,
              textUnderlineOffset: 4,
              overflowWrap: 'anywhere',
            }}
          >
            {picture.title}
          </Box>
          <Typography>
            <b>{said.head}</b> {said.rest}
          </Typography>
          {next && sitting && (
            <Typography color="text.secondary">
              Next: {next.title}, {moment(Date.parse(sitting.from), now, zone)}.
            </Typography>
          )}
          {next?.blocked && (
            <Typography sx={{ color: 'error.main', fontWeight: 600 }}>
              {start(next.title)}: {next.blocked}.
            </Typography>
          )}
          {stops > 0 && (
            <Typography sx={{ fontWeight: 600 }}>
              {stops} {stops === 1 ? 'caution' : 'cautions'} at its steps.
            </Typography>
          )}
        </Box>
      </Box>
      <Box sx={{ gridColumn: { xs: 2, md: 3 } }}>
        <Typography>
          {plain(picture.width_cm)} × {plain(picture.height_cm)} cm · {picture.done} of{' '}
          {picture.steps} steps done
        </Typography>
        <Typography sx={dateStyle(date.standing)}>{date.said}</Typography>
      </Box>
    </Box>
  );
}
