/** The shelf of the open studio, and edits of it. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Schemas } from '../api/client';
import { useSaveShelf, useUndoShelf } from '../api/edits';
import { shelfQuery } from '../api/queries';
import { useVersionedEdit } from './useVersionedEdit';

export type ShelfDoc = Pick<Schemas['ShelfEdit'], 'materials' | 'tubs' | 'ways'>;

const shelfDoc = (shelf: Schemas['ShelfOut']): ShelfDoc => ({
  materials: shelf.materials.map((m) => m.material),
  tubs: shelf.tubs.map((t) => t.tub),
  ways: shelf.ways,
});

/** Puts an entry in place of the one of its name, or after the others. */
export function put<T extends { id: string }>(list: T[], entry: T): T[] {
  return list.some((e) => e.id === entry.id)
    ? list.map((e) => (e.id === entry.id ? entry : e))
    : [...list, entry];
}

export function useShelfEdit(studio: string) {
  const shelf = useQuery(shelfQuery(studio));
  const cache = useQueryClient();
  const save = useSaveShelf(studio);
  const undo = useUndoShelf(studio);
  const edits = useVersionedEdit<Schemas['ShelfOut'], ShelfDoc>({
    stored: shelf.data,
    docOf: shelfDoc,
    save: ({ version, label, doc }, callbacks) =>
      save.mutate({ version, label, ...doc }, callbacks),
    undo: undo.mutate,
    pending: save.isPending || undo.isPending,
    undoError: undo.error,
    reread: () => cache.fetchQuery({ ...shelfQuery(studio), staleTime: 0 }),
    refresh: () => void cache.invalidateQueries(),
    reset: save.reset,
  });
  return { ...edits, shelf, stored: shelf.data };
}
