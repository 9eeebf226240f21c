import Box from '@mui/material/Box';
import { photographUrl } from '../api/queries';

interface Props {
  photograph: string | null;
  size?: number;
}

/** The last photograph of a picture, small: painters know their pictures by sight. */
export function Glimpse({ photograph, size = 64 }: Props) {
  if (!photograph) return null;
  return (
    <Box
      component="img"
      src={photographUrl(photograph, 'small')}
      // Its title stands beside it.
      alt=""
      loading="lazy"
      sx={{ height: size, maxWidth: size * 1.5, objectFit: 'contain', flexShrink: 0 }}
    />
  );
}
