import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

/** Copies a token; where the browser lets no page copy (plain http) it says what to do. */
export function CopyToken({ token }: { token: string }) {
  const [said, setSaid] = useState<string>();
  // Missing where the page is not in a secure context.
  const clipboard = (navigator as { clipboard?: Clipboard }).clipboard;
  if (!clipboard) return <Typography>Select the token above and copy it.</Typography>;
  const copy = () =>
    clipboard.writeText(token).then(
      () => setSaid('Copied'),
      () => setSaid('Not copied: select it above'),
    );
  return <Button onClick={() => void copy()}>{said ?? 'Copy'}</Button>;
}
