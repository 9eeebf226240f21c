/** Edits of one picture. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Schemas } from '../../api/client';
import { useSavePicture, useStepPicture } from '../../api/edits';
import { pictureQuery } from '../../api/queries';
import { useVersionedEdit } from '../../components/useVersionedEdit';

export type { Change } from '../../components/stepEdits';

export function usePictureEdit(id: string) {
  const picture = useQuery(pictureQuery(id));
  const cache = useQueryClient();
  const save = useSavePicture(id);
  const step = useStepPicture(id);
  const edits = useVersionedEdit<Schemas['PictureOut'], Schemas['PictureDoc']>({
    stored: picture.data,
    docOf: (stored) => stored.picture,
    save: ({ version, label, doc }, callbacks) =>
      save.mutate({ version, label, picture: doc }, callbacks),
    step: step.mutate,
    pending: save.isPending || step.isPending,
    stepError: step.error,
    reread: () => cache.fetchQuery({ ...pictureQuery(id), staleTime: 0 }),
    refresh: () => void cache.invalidateQueries(),
    reset: save.reset,
  });
  return { ...edits, picture, stored: picture.data };
}
