import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useTheme } from '@mui/material/styles';
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../../api/client';
import { causeQuery } from '../../api/queries';
import { exact, span } from '../../format/time';

interface Props {
  picture: Schemas['SeasonPicture'];
  zone: string;
  now: number;
  /** What is shown is only tried: what holds it most is known of what is kept. */
  tried: boolean;
}

const MINUTE = 60_000;

/** What holds a picture: each link with its share of the whole time, drawn and in words. */
export function Holds({ picture, zone, now, tried }: Props) {
  const { greys } = useTheme();
  const plan = JSON.stringify([picture.version, picture.finish, picture.work]);
  const cause = useQuery({ ...causeQuery(picture.id, plan), enabled: !tried && !picture.done });
  const links = picture.held_by;
  if (links.length === 0) return null;
  const begin = Math.min(now, ...links.map((l) => Date.parse(l.from)));
  const whole = Math.max(1, Date.parse(links.at(-1)?.to ?? '') - begin);
  return (
    <Box component="section" aria-label="What holds it">
      <Typography variant="h3">What holds it</Typography>
      {!tried && cause.data?.said && <Typography sx={{ mt: 0.5 }}>{cause.data.said}</Typography>}
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
