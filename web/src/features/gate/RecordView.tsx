import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { photographUrl, recordQuery, recordUrl } from '../../api/queries';
import { Chip } from '../../components/Chip';
import { Loading } from '../../components/Loading';
import { Trouble } from '../../components/Trouble';
import { dated } from '../../format/time';
import { plain, start } from '../../format/words';
import { useSealing } from './Sealing';

/** The record sheet: what is in the picture and how its varnish comes off, to be printed. */
export function RecordView() {
  const { id, zone } = useSealing();
  const record = useQuery(recordQuery(id));
  if (record.error && !record.data) {
    return <Trouble error={record.error} retry={() => void record.refetch()} />;
  }
  if (!record.data) return <Loading what="Writing the sheet" />;
  const sheet = record.data;
  const at = (text: string) => dated(Date.parse(text), zone);
  return (
    <Box className="sheet" sx={{ maxWidth: 980 }}>
      <Box className="no-print" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, mb: 2 }}>
        <Button variant="contained" onClick={() => window.print()}>
          Print it
        </Button>
        <Button href={recordUrl(id)} download="record.json">
          Keep it as an open file (JSON)
        </Button>
      </Box>
      <Typography variant="h1" component="h2">
        {sheet.title}
      </Typography>
      <Typography sx={{ mb: 1 }}>
        {plain(sheet.width_cm)} × {plain(sheet.height_cm)} cm, acrylic on {sheet.ground}.{' '}
        {sheet.studio}.{sheet.begun_at && ` Begun ${at(sheet.begun_at)}.`}
        {sheet.finished_at && sheet.to_come.length === 0 && ` Finished ${at(sheet.finished_at)}.`}
      </Typography>
      {sheet.to_come.length > 0 && (
        <Typography sx={{ fontWeight: 700 }}>
          Not finished yet. Still to come: {sheet.to_come.join(', ')}.
        </Typography>
      )}
      <Part title="How the varnish comes off">
        <Typography>{sheet.removal}</Typography>
      </Part>
      <Part title="What was done">
        <Box component="table" sx={{ borderCollapse: 'collapse', width: '100%' }}>
          <thead>
            <tr>
              {['When', 'What', 'In the cup, by volume', 'Wet film'].map((head) => (
                <Box component="th" key={head} sx={{ textAlign: 'left', pr: 2, py: 0.5 }}>
                  {head}
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {sheet.work.map((work) => (
              <Box
                component="tr"
                key={work.at + work.title}
                sx={{ '& td': { borderTop: 1, py: 0.5, pr: 2, verticalAlign: 'top' } }}
              >
                <td>{at(work.at)}</td>
                <td>{work.seals ? <b>{start(work.title)}</b> : start(work.title)}</td>
                <td>
                  {work.colour && <Chip colour={work.colour} size={18} gap />}
                  {work.mix}
                </td>
                <td>{work.wet_film_um != null ? `${plain(work.wet_film_um)} µm` : ''}</td>
              </Box>
            ))}
          </tbody>
        </Box>
      </Part>
      <Part title="Materials">
        {sheet.materials.map((m) => (
          <Typography key={m.name}>
            <b>{m.name}</b>, {m.kind}
            {m.pigments.length > 0 ? `, ${m.pigments.join(', ')}` : ''}
            {m.hazards ? `. ${m.hazards}` : ''}
          </Typography>
        ))}
      </Part>
      {[
        { title: 'Sealed although not everything held', notes: sheet.anyway },
        { title: 'Found on sealing coats', notes: sheet.troubles },
        { title: 'Set aside by the painter', notes: sheet.set_aside },
      ]
        .filter((part) => part.notes.length > 0)
        .map((part) => (
          <Part key={part.title} title={part.title}>
            {part.notes.map((note) => (
              <Typography key={note.at + note.what}>
                {at(note.at)}, {note.on}: {note.what}.
              </Typography>
            ))}
          </Part>
        ))}
      {sheet.photographs.length > 0 && (
        <Part title="Photographs">
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2 }}>
            {sheet.photographs.map((p) => (
              <Box component="figure" key={p.id} sx={{ m: 0, width: 260, breakInside: 'avoid' }}>
                <img
                  src={photographUrl(p.id, 'small')}
                  alt={p.caption || 'Photograph of the picture'}
                  style={{ width: '100%', display: 'block' }}
                />
                <figcaption>
                  {p.caption && `${p.caption}, `}
                  {at(p.taken_at)}
                </figcaption>
              </Box>
            ))}
          </Box>
        </Part>
      )}
    </Box>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mt: 2.5 }}>
      <Typography variant="h3" component="h3">
        {title}
      </Typography>
      {children}
    </Box>
  );
}
