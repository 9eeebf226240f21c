import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState, useSyncExternalStore } from 'react';
import { onlineManager } from '@tanstack/react-query';
import { client, unwrap } from '../../api/client';
import { outlookQuery } from '../../api/queries';
import { insist, letGo, type Waiting } from '../../api/waiting';
import { exact } from '../../format/time';
import { useSender } from './useSender';

/** What waits to be sent, and what became a question meanwhile. */
export function WaitingBar({ studio }: { studio: string }) {
  const list = useSender();
  const online = useSyncExternalStore(
    (listener) => onlineManager.subscribe(listener),
    () => onlineManager.isOnline(),
  );
  const zone = useQuery({ ...outlookQuery(studio), enabled: list.length > 0 }).data?.time_zone;
  if (online && list.length === 0) return null;
  const entries = list.length === 1 ? 'One entry waits' : `${list.length} entries wait`;
  return (
    <Box
      component="section"
      aria-label="Entries that wait"
      sx={{ border: 1, px: 1.5, py: 1, mt: 1, mx: { xs: 2, md: 3 } }}
    >
      <Typography role="status">
        {!online && <b>No connection. </b>}
        {list.length === 0
          ? 'What you enter waits in this browser and is sent when it is back.'
          : `${entries} in this browser, to be sent by itself.`}
      </Typography>
      {list.map((entry) => (
        <Entry key={entry.key} entry={entry} zone={zone ?? 'UTC'} />
      ))}
    </Box>
  );
}

function Entry({ entry, zone }: { entry: Waiting; zone: string }) {
  const [trouble, setTrouble] = useState<string>();
  const keep = async () => {
    try {
      const path = { id: entry.of };
      const now = await unwrap(client.GET('/api/pictures/{id}', { params: { path } }));
      insist(entry, now.version);
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Box sx={{ mt: 0.5 }}>
      <Typography>
        {exact(entry.since, zone)}: <b>{entry.said}</b>
      </Typography>
      {entry.against && (
        <Box role="alert">
          <Typography color="error" sx={{ fontWeight: 600 }}>
            {trouble ?? entry.against}
          </Typography>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, my: 1 }}>
            {entry.kind !== 'daybook' && (
              <Button variant="contained" onClick={() => void keep()}>
                Enter it all the same
              </Button>
            )}
            <Button onClick={() => letGo(entry)}>Let it go</Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}
