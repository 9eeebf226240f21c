import { useDaybook, useRetoldThere } from '../../api/edits';
import type { Schemas } from '../../api/client';
import { whyWaits } from '../../api/waiting';
import { NoteDialog, type Note } from './NoteDialog';
import type { Entry } from './useHappening';

interface Props {
  studio: string;
  /** The entry that is put right; a new note without one. */
  entry?: Entry;
  /** The material that a new note is about. */
  about?: Schemas['MaterialDoc'];
  materials: Schemas['MaterialDoc'][];
  zone: string;
  now: number;
  /** Says what became of it, when something did. */
  onClose: (said?: string) => void;
}

/** A note about no picture, or an entry of the day book that is put right. */
export function DaybookNote({ studio, entry, about, materials, zone, now, onClose }: Props) {
  const daybook = useDaybook();
  const retold = useRetoldThere(studio);
  const keep = ({ at, words, material, until }: Note) => {
    if (entry) {
      const what = until ? { kind: 'session' as const, until } : entry.what;
      const instead = { at, words, material, what: what as Schemas['ToldDoc'] };
      retold.mutate({ entry, instead }, { onSuccess: () => onClose('The entry is put right.') });
      return;
    }
    const told = { at, words, material, what: { kind: 'noted' as const } };
    daybook.mutate(
      { id: studio, said: `Note: ${words}`, ...told },
      { onSuccess: (kept) => onClose(kept ? 'The note is kept.' : whyWaits(studio)) },
    );
  };
  const title = about ? `A note: ${about.name}` : 'A note, about no picture';
  return (
    <NoteDialog
      title={entry ? 'Put the entry right' : title}
      entry={entry}
      about={about?.id}
      materials={materials}
      zone={zone}
      now={now}
      pending={daybook.isPending || retold.isPending}
      error={daybook.error ?? retold.error}
      onKeep={keep}
      onClose={() => onClose()}
    />
  );
}
