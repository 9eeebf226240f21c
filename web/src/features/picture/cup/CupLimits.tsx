import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Schemas } from '../../../api/client';
import { marked, plain, start } from '../../../format/words';

/** Where the mix stands against each limit. */
export function CupLimits({ limits }: { limits: Schemas['CupLimit'][] }) {
  return (
    <Box component="ul" aria-label="Limits" sx={{ listStyle: 'none', p: 0, mt: 2.5, mb: 0 }}>
      {limits.map((limit) => {
        const binder = limit.what === 'binder' || limit.what === 'in_cup';
        const bound = binder ? 'at least' : 'at most';
        const what = limit.what === 'in_cup' ? 'binder' : limit.what;
        const share =
          limit.share === null ? 'not known of these materials' : `${plain(limit.share * 100)} %`;
        return (
          <Box
            component="li"
            key={limit.what}
            sx={{
              borderLeft: limit.kept ? 3 : 6,
              borderColor: limit.kept ? 'divider' : 'error.main',
              pl: 1.5,
              my: 0.75,
            }}
          >
            <Typography sx={limit.kept ? undefined : { color: 'error.main', fontWeight: 700 }}>
              {start(what)} {limit.what === 'binder' ? 'of the dry film' : 'of the mix'}: {share},{' '}
              {bound} {plain(limit.limit * 100)} %{limit.kept ? '' : `: ${marked(limit.why)}`}
            </Typography>
          </Box>
        );
      })}
    </Box>
  );
}
