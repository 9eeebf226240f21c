/** Edits of one picture. Each is a function of the picture, so that one which met another edit can
 * be made again on what is stored now. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError, type Schemas } from '../../api/client';
import { useSavePicture, useStepPicture } from '../../api/edits';
import { pictureQuery } from '../../api/queries';

export type Change = (picture: Schemas['PictureDoc']) => Schemas['PictureDoc'];

interface Refused {
  label: string;
  change: Change;
  error: Error;
}

export function usePictureEdit(id: string) {
  const picture = useQuery(pictureQuery(id));
  const cache = useQueryClient();
  const save = useSavePicture(id);
  const step = useStepPicture();
  const [refused, setRefused] = useState<Refused>();
  const stored = picture.data;

  const send = (on: Schemas['PictureOut'], label: string, change: Change, done?: () => void) =>
    save.mutate(
      { version: on.version, label, picture: change(on.picture) },
      {
        onSuccess: () => {
          setRefused(undefined);
          done?.();
        },
        onError: (error) => setRefused({ label, change, error }),
      },
    );

  const conflict =
    refused?.error instanceof ApiError && refused.error.problem.type.endsWith(':conflict')
      ? { ...refused, problem: refused.error.problem }
      : undefined;

  return {
    picture,
    stored,
    pending: save.isPending || step.isPending,
    edit: (label: string, change: Change, done?: () => void) => {
      if (stored) send(stored, label, change, done);
    },
    stepTo: (way: 'undo' | 'redo') => {
      if (stored && stored.history[way] !== null) {
        step.mutate({ id, version: stored.version, step: way });
      }
    },
    /** An edit that met another one; it is kept until the painter decides. */
    conflict,
    /** Why the last edit was refused, when that was no conflict. */
    refusal: conflict ? undefined : refused?.error,
    stepError: step.error,
    /** Makes the refused edit again on what is stored now. */
    again: async (done?: () => void) => {
      if (!refused) return;
      const now = await cache.fetchQuery({ ...pictureQuery(id), staleTime: 0 });
      send(now, refused.label, refused.change, done);
    },
    /** Lets go of the refused edit. */
    drop: () => {
      setRefused(undefined);
      save.reset();
      void cache.invalidateQueries();
    },
    forget: () => {
      setRefused(undefined);
      save.reset();
    },
  };
}
