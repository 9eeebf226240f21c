/** What the application knows of the trade: kinds, words, grounds, ranges. Nothing of it is decided
 * here; it is read once, before any view. */
import { createContext, use } from 'react';
import type { Schemas } from '../api/client';

export type Catalogue = Schemas['Catalogue'];
export type Word = Schemas['WordOut'];

export const CatalogueContext = createContext<Catalogue | undefined>(undefined);

export function useCatalogue(): Catalogue {
  const catalogue = use(CatalogueContext);
  if (!catalogue) throw new Error('there is no catalogue above this view');
  return catalogue;
}

/** What painters say for a word of the formats; the word itself when it is one of the studio's own. */
export const saidOf = (words: Word[], value: string) =>
  words.find((w) => w.value === value)?.said ?? value;

/** The words as options of a field, each with what painters say. */
export const optionsOf = <T extends string>(words: Word[]) =>
  words.map((w) => ({ value: w.value as T, word: w.said }));

/** The usual word of a number, or what `other` says of it. */
export const usualWord = (
  usual: Schemas['UsualOut'][],
  value: number,
  other: (value: number) => string,
) => usual.find((u) => u.value === value)?.said ?? other(value);

/** The ground's usual word for what it absorbs [um]. */
export const groundWord = (grounds: Schemas['GroundOut'][], um: number) =>
  grounds.find((g) => g.ground.absorbs_um === um)?.said ?? `Ground that absorbs ${um} µm of water`;
