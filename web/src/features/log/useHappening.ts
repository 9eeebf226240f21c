/** What happened on a picture: entered in one touch, put right and taken back afterwards. */
import { useState } from 'react';
import { useHappened, useRetold } from '../../api/edits';
import { whyWaits } from '../../api/waiting';
import type { Schemas } from '../../api/client';

export type Entry = Schemas['HappeningDoc'];

interface Of {
  id: string;
  version: number;
  title: string;
}

export interface Happened {
  picture: Of;
  /** What was done, said in bold. */
  title: string;
  /** What to do now and what moves. */
  said: string[];
  /** The entry, while it stands. */
  entry?: Entry;
}

export type Happening = ReturnType<typeof useHappening>;

export function useHappening() {
  const happened = useHappened();
  const retold = useRetold();
  const [last, setLast] = useState<Happened>();
  const forget = () => {
    happened.reset();
    retold.reset();
  };
  return {
    last,
    pending: happened.isPending || retold.isPending,
    error: happened.error ?? retold.error,
    close: () => {
      setLast(undefined);
      forget();
    },
    tell: (
      picture: Of,
      title: string,
      told: Omit<Schemas['Told'], 'version'>,
      onKept?: () => void,
    ) => {
      forget();
      happened.mutate(
        {
          id: picture.id,
          version: picture.version,
          said: `${picture.title}: ${title}`,
          ...told,
        },
        {
          onSuccess: (kept) => {
            setLast(
              kept
                ? {
                    picture: { ...picture, version: kept.picture.version },
                    title,
                    said: [...kept.said, ...kept.moves],
                    entry: kept.entry,
                  }
                : { picture, title, said: [whyWaits(picture.id)] },
            );
            onKept?.();
          },
        },
      );
    },
    /** Puts the words, place and time of an entry right, or takes it back. */
    retell: (
      picture: Of,
      entry: Entry,
      instead: Schemas['Instead'] | undefined,
      onKept?: () => void,
    ) => {
      forget();
      retold.mutate(
        { id: picture.id, version: picture.version, entry, instead },
        {
          onSuccess: (kept) => {
            setLast((was) =>
              was?.picture.id === picture.id
                ? {
                    picture: { ...picture, version: kept.version },
                    title: instead ? was.title : 'The entry is taken back.',
                    said: instead ? was.said : [],
                    entry: instead && { ...entry, ...instead },
                  }
                : was,
            );
            onKept?.();
          },
        },
      );
    },
  };
}
