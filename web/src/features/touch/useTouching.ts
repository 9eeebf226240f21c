/** Fingertips on coats: logged in one touch, put right and taken back afterwards. */
import { useState } from 'react';
import { useRetouched, useTouched } from '../../api/edits';
import { whyWaits } from '../../api/waiting';
import type { Schemas } from '../../api/client';

type Test = Schemas['TouchDoc'];

interface Last {
  /** What was done, said in bold. */
  title: string;
  /** What moved by it. */
  moves: string[];
  /** Takes it back; not there once it is. */
  back?: () => void;
}

export type Touching = ReturnType<typeof useTouching>;

export function useTouching() {
  const touched = useTouched();
  const retouched = useRetouched();
  const [last, setLast] = useState<Last>();

  const change = (
    picture: { id: string; version: number },
    test: Test,
    instead: Test | undefined,
    title: string,
  ) => {
    touched.reset();
    retouched.mutate(
      { ...picture, test, instead },
      { onSuccess: ({ moves }) => setLast({ title, moves }) },
    );
  };

  return {
    last,
    pending: touched.isPending || retouched.isPending,
    error: touched.error ?? retouched.error,
    close: () => {
      setLast(undefined);
      touched.reset();
      retouched.reset();
    },
    touch: (
      picture: { id: string; version: number; title: string },
      coat: { step: string; title: string },
      felt: Test['felt'],
    ) => {
      retouched.reset();
      touched.mutate(
        {
          id: picture.id,
          version: picture.version,
          said: `${coat.title} of ${picture.title} felt ${felt}.`,
          step: coat.step,
          felt,
        },
        {
          onSuccess: (answer) => {
            const title = `${coat.title} of ${picture.title} felt ${felt}.`;
            if (!answer) {
              setLast({ title, moves: [whyWaits(picture.id)] });
              return;
            }
            const { picture: kept, moves } = answer;
            const mine = (kept.picture.tests ?? []).filter((t) => t.step === coat.step);
            const test = mine.findLast((t) => t.felt === felt);
            setLast({
              title,
              moves,
              back:
                test &&
                (() =>
                  change(
                    { id: picture.id, version: kept.version },
                    test,
                    undefined,
                    'The touch is taken back.',
                  )),
            });
          },
        },
      );
    },
    change,
  };
}
