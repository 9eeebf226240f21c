import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useId, type ReactNode } from 'react';
import { Link } from 'react-router';
import { Glimpse } from '../../components/Glimpse';
import { Textures, textureFill } from '../../figures/Textures';
import type { FilmState } from '../../format/words';

interface Item {
  id: string;
  /** The key time, said first. */
  lead: string;
  title: string;
  text: string;
  swatch?: string | null;
  photograph?: string | null;
  state?: FilmState;
  /** What goes into its cup. */
  recipe?: ReactNode;
  /** What may be done with it. */
  act?: ReactNode;
}

/** One of the lists of the opening view. */
export function NowList({ title, empty, items }: { title: string; empty: string; items: Item[] }) {
  const id = useId();
  return (
    <Box component="section" aria-label={title}>
      <Typography variant="h3" sx={{ borderBottom: 2, pb: 0.5 }}>
        {title}
      </Typography>
      {items.length === 0 && (
        <Typography color="text.secondary" sx={{ pt: 1.5 }}>
          {empty}
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {items.map((item) => (
          <Box
            component="li"
            key={item.id + item.lead + item.text}
            sx={{ display: 'flex', gap: 1.5, py: 1.25, borderBottom: 1, borderColor: 'divider' }}
          >
            <Glimpse photograph={item.photograph ?? null} size={56} />
            {item.state && (
              <svg width={34} height={52} aria-hidden style={{ flexShrink: 0 }}>
                <Textures id={id} />
                <rect
                  x={1}
                  y={1}
                  width={32}
                  height={50}
                  fill={item.swatch ?? '#8d8d8d'}
                  stroke="#000"
                />
                <rect
                  x={1}
                  y={1}
                  width={32}
                  height={50}
                  fill={textureFill(id, item.state) ?? 'none'}
                />
              </svg>
            )}
            <Box sx={{ minWidth: 0 }}>
              <Typography sx={{ fontSize: 24, fontWeight: 700, lineHeight: 1.2 }}>
                {item.lead}
              </Typography>
              <Box
                component={Link}
                to={`/pictures/${item.id}`}
                sx={{ color: 'text.primary', fontSize: 18, textUnderlineOffset: 4 }}
              >
                {item.title}
              </Box>
              <Typography color="text.secondary">{item.text}</Typography>
              {item.recipe}
              {item.act}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
