import { useQuery } from '@tanstack/react-query';
import { useLogLaid } from '../api/edits';
import type { Schemas } from '../api/client';
import { scaleQuery } from '../api/queries';
import { useCurrentStudio } from './currentStudio';
import { LaidAgainst } from './LaidAgainst';
import { LogDialog } from './LogDialog';

interface Props {
  picture: { id: string; version: number };
  step: string;
  title: string;
  /** The planned wet film [um]; undefined for a step that leaves none. */
  planned?: number;
  /** What the full cup weighed [g], when it was weighed. */
  cupG?: number | null;
  /** When it was laid as it is kept, to put that right; and what was in the cup. */
  laidAt?: string;
  mix?: Schemas['PartDoc'][];
  materials?: Schemas['MaterialDoc'][];
  zone: string;
  now: number;
  onClose: () => void;
  onLogged?: () => void;
}

/** Logs one step of a picture. */
export function LogWork({ picture, step, title, planned, cupG, zone, now, ...rest }: Props) {
  const { onClose, onLogged } = rest;
  const studio = useCurrentStudio().id;
  const log = useLogLaid();
  const scale = useQuery({ ...scaleQuery(studio), enabled: typeof cupG === 'number' });
  return (
    <LogDialog
      title={title}
      planned={planned}
      cupG={cupG ?? undefined}
      scaleG={scale.data?.shows_g}
      laidAt={rest.laidAt}
      mix={rest.mix}
      materials={rest.materials}
      against={(entry) => <LaidAgainst picture={picture} entry={{ step, ...entry }} />}
      zone={zone}
      now={now}
      pending={log.isPending}
      error={log.error}
      onClose={onClose}
      onLog={(entry) =>
        log.mutate(
          { ...picture, said: `${title}: done`, step, ...entry },
          {
            onSuccess: () => {
              onClose();
              onLogged?.();
            },
          },
        )
      }
    />
  );
}
