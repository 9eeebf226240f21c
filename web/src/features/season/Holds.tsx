import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useTheme } from '@mui/material/styles';
import type { Schemas } from '../../api/client';
import { exact, span } from '../../format/time';

interface Props {
  picture: Schemas['SeasonPicture'];
  zone: string;
  now: number;
}

const MINUTE = 60_000;

/** What holds a picture: each link with its share of the whole time, drawn and in words. */
export function Holds({ picture, zone, now }: Props) {
  const { greys } = useTheme();
  const links = picture.held_by;
  if (links.length === 0) return null;
  const begin = Math.min(now, ...links.map((l) => Date.parse(l.from)));
  const whole = Math.max(1, Date.parse(links.at(-1)?.to ?? '') - begin);
  return (
    <Box component="section" aria-label="What holds it">
      <Typography variant="h3">What holds it</Typography>
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
        {links.map((link, n) => {
          const from = Date.parse(link.from);
          const before = n === 0 ? begin : Date.parse(links[n - 1]?.to ?? link.from);
          const until = link.until ? Math.max(before, Date.parse(link.until)) : before;
          const drying = Math.max(0, Math.min(until, from) - before);
          const idle = Math.max(0, from - Math.max(until, before));
          const work = Date.parse(link.to) - from;
          const share = (ms: number) => `${(ms / whole) * 100}%`;
          return (
            <Box component="li" key={link.step} sx={{ mb: 1.25 }}>
              <Typography>
                <b>{link.title}</b>, {exact(from, zone)}
              </Typography>
              <Box aria-hidden sx={{ display: 'flex', height: 9, my: 0.25 }}>
                <Box sx={{ width: share(before - begin) }} />
                <Box sx={{ width: share(drying), bgcolor: greys.line }} />
                <Box
                  sx={{
                    width: share(idle),
                    background: `repeating-linear-gradient(45deg, ${greys.line} 0 1px, transparent 1px 5px)`,
                  }}
                />
                <Box sx={{ width: share(work), minWidth: 4, bgcolor: greys.text }} />
              </Box>
              <Typography color="text.secondary" sx={{ fontSize: 16 }}>
                {link.because ?? 'Stands on nothing'}
                {drying > MINUTE && ` (${span(drying / MINUTE)})`}
                {link.then && `, then for ${link.then} (${span(link.idle_min)})`}.
              </Typography>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
