import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';

const WEIGHT = { stop: 0, caution: 1, note: 2 } as const;

interface Props {
  pictures: Schemas['PictureOutlook'][];
  /** The work that comes next, by picture and step. */
  next?: { picture: string; step: string };
}

/** What the rules say about the pictures, the heaviest first; nothing when all is well. What is only good to
 * know is said of the step that comes next. */
export function Cautions({ pictures, next }: Props) {
  const found = pictures
    .flatMap((picture) =>
      picture.findings
        .filter((finding) => finding.set_aside === null)
        .filter(
          (f) => f.severity !== 'note' || (picture.id === next?.picture && f.step === next.step),
        )
        .map((finding) => ({ picture, finding })),
    )
    .sort((a, b) => WEIGHT[a.finding.severity] - WEIGHT[b.finding.severity]);
  if (found.length === 0) return null;
  return (
    <Box component="section" aria-label="Cautions" sx={{ mb: 4 }}>
      <Typography variant="h3">Take care</Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {found.map(({ picture, finding }) => (
          <Box
            component="li"
            key={`${picture.id}-${finding.step}-${finding.rule}`}
            sx={{
              borderLeft: finding.severity === 'stop' ? 6 : 3,
              borderColor: finding.severity === 'note' ? 'text.secondary' : 'error.main',
              pl: finding.severity === 'stop' ? 1.125 : 1.5,
              my: 1,
            }}
          >
            <Typography>
              <Box
                component={Link}
                to={`/pictures/${picture.id}`}
                sx={{ color: 'text.primary', fontWeight: 700 }}
              >
                {picture.title}, {finding.title}
              </Box>
              : {finding.what} {finding.remedy}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
