import Typography from '@mui/material/Typography';

/** What a browser does not let a page do on plain http of another machine. */
export function PlainHttp() {
  if (window.isSecureContext) return null;
  return (
    <Typography role="note" sx={{ border: 1, p: 1.5, mb: 2 }}>
      This page comes over plain http. Everything works but this: it does not open without a
      connection, it cannot ring outside the page, and it does not copy by itself. Behind https, or
      at this machine’s own address, it can.
    </Typography>
  );
}
