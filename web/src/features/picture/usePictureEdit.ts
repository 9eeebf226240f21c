/** Edits of one picture. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Schemas } from '../../api/client';
import { useSavePicture, useUndoPicture } from '../../api/edits';
import { pictureQuery } from '../../api/queries';
import { useVersionedEdit } from '../../components/useVersionedEdit';

export type { Change } from '../../components/stepEdits';

export function usePictureEdit(id: string) {
  const picture = useQuery(pictureQuery(id));
  const cache = useQueryClient();
  const save = useSavePicture(id);
  const undo = useUndoPicture(id);
  const edits = useVersionedEdit<Schemas['PictureOut'], Schemas['PictureDoc']>({
    stored: picture.data,
    docOf: (stored) => stored.picture,
    save: ({ version, label, doc }, callbacks) =>
      save.mutate({ version, label, picture: doc }, callbacks),
    undo: undo.mutate,
    pending: save.isPending || undo.isPending,
    undoError: undo.error,
    reread: () => cache.fetchQuery({ ...pictureQuery(id), staleTime: 0 }),
    refresh: () => void cache.invalidateQueries(),
    reset: save.reset,
  });
  return { ...edits, picture, stored: picture.data };
}
