/** The recipe while it is turned: what was there, and each number that was set since, in order. The
 * arithmetic is the server's; here is only the order in which the hand did things. */
import type { Schemas } from '../../../api/client';

export type Part = Schemas['PartDoc'];
export type Turn = Schemas['TurnDoc'];
export type Unit = Turn['unit'];

export interface Recipe {
  mix: Part[];
  turns: Turn[];
}

/** The recipe after one more number is set. `settled` is the mix that the server made of the
 * recipe, when it is known: it takes the place of the turns so far. */
export function withTurn(recipe: Recipe, turn: Turn, settled?: Part[]): Recipe {
  const last = recipe.turns.at(-1);
  if (last?.part === turn.part && last.unit === turn.unit) {
    return { ...recipe, turns: [...recipe.turns.slice(0, -1), turn] };
  }
  return settled ? { mix: settled, turns: [turn] } : { ...recipe, turns: [...recipe.turns, turn] };
}

/** The mix as it stands, when it is known: as it was, or as the server answered. */
export const settledMix = (recipe: Recipe, answered?: Part[]): Part[] | undefined =>
  recipe.turns.length === 0 ? recipe.mix : answered;

/** The recipe with other materials in it: of the mix as it stands, or, while what was turned is worked out, of
 * the mix before that, on which the turns stay. */
export const withMaterials = (
  recipe: Recipe,
  settled: Part[] | undefined,
  change: (mix: Part[]) => Part[],
): Recipe =>
  settled ? { mix: change(settled), turns: [] } : { ...recipe, mix: change(recipe.mix) };
