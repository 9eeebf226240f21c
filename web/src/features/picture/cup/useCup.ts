/** A cup while it is being mixed: numbers as typed, everything else from the server. */
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { ApiError, type Schemas } from '../../../api/client';
import { cupQuery } from '../../../api/queries';
import { typed } from '../../../format/number';
import { plain } from '../../../format/words';
import { useCatalogue } from '../../../components/catalogue';
import { useNumbers } from '../../../components/numbers';
import type { Step } from '../../../components/stepEdits';
import { settledMix, withMaterials, withTurn, type Part, type Recipe, type Unit } from './turns';

export interface CupDraft {
  measure: number;
  have: string;
}

/** The numbers of a cup. The whole is empty while the loss says how large it is. */
const NUMBERS = {
  film: { field: 'wet_film_um', label: 'Wet film', digits: 1 },
  share: { field: 'share_of_area', label: 'Share of the picture', digits: 1 },
  loss: { field: 'loss', label: 'Lost in cup and brush', digits: 1 },
  total: { field: 'ml', label: 'Whole cup', open: true },
  have: { field: 'ml', label: 'There is, of it', open: true },
} as const;

const DIGITS: Record<Unit, number> = { parts: 3, percent: 1, ml: 2, grams: 2, drops: 0 };

export function useCup(id: string, step: Step) {
  const [recipe, setRecipe] = useState<Recipe>(() => ({ mix: step.mix ?? [], turns: [] }));
  const [typing, setTyping] = useState<{ part: number; unit: Unit; text: string }>();
  const [tub, setTub] = useState(step.tub ?? '');
  const [draft, setDraft] = useState<CupDraft>(() => ({
    measure: 0.5,
    have: '',
  }));
  const catalogue = useCatalogue();
  const numbers = useNumbers(NUMBERS, {
    film: step.wet_film_um,
    share: step.share_of_area ?? 1,
    loss: step.loss ?? catalogue.usual_loss,
  });
  const [beside, setBeside] = useState<Schemas['CupOut']>();
  const wrong: Partial<Record<'mix' | keyof typeof NUMBERS, string>> = { ...numbers.wrong };
  if (typing && !(typed(typing.text) >= 0)) wrong.mix = 'Give each part as a number of 0 or more.';
  if (!draft.have) delete wrong.have;
  const sound = Object.keys(wrong).length === 0;

  const ask: Schemas['CupAsk'] = {
    mix: recipe.mix,
    turns: recipe.turns,
    wet_film_um: numbers.value('film'),
    share_of_area: numbers.value('share'),
    loss: numbers.value('loss'),
    measure_ml: draft.measure,
    step: step.id,
    ...(numbers.open('total') === undefined ? {} : { total_ml: numbers.open('total') }),
    ...(draft.have && numbers.value('have') > 0
      ? { have: { material: draft.have, ml: numbers.value('have') } }
      : {}),
  };
  // Typing and dragging stay quick: the question follows the hand.
  const asked = useDeferredValue(JSON.stringify(ask));
  const answer = useQuery({
    ...cupQuery(id, JSON.parse(asked) as Schemas['CupAsk']),
    enabled: sound,
  });
  /** Whether the answer is the one to the cup as it stands: only then may its mix be taken. */
  const fresh =
    sound && asked === JSON.stringify(ask) && !!answer.data && !answer.isPlaceholderData;
  const answered = answer.data?.parts.map((p) => ({ material: p.material, parts: p.parts }));
  const settled = settledMix(recipe, fresh ? answered : undefined);
  const place = answer.error instanceof ApiError ? answer.error.problem.path : undefined;
  const replace = (mix: Part[]) => {
    setTyping(undefined);
    setRecipe({ mix, turns: [] });
  };

  /** Which materials are in the cup changes at once, also while the server works out what was turned. */
  const edit = (change: (mix: Part[]) => Part[]) => {
    setTyping(undefined);
    setRecipe((was) => withMaterials(was, was === recipe ? settled : undefined, change));
  };

  /** What stands in the field of one part and unit. */
  const shown = (part: number, unit: Unit): string => {
    if (typing?.part === part && typing.unit === unit) return typing.text;
    const row = answer.data?.parts[part];
    if (unit === 'parts' && recipe.turns.length === 0)
      return plain(recipe.mix[part]?.parts ?? 0, 3);
    if (!row || row.material !== recipe.mix[part]?.material) return '';
    const value = {
      parts: row.parts,
      percent: row.share * 100,
      ml: row.ml,
      grams: row.grams,
      drops: row.drops,
    }[unit];
    return value === null ? '' : plain(value, DIGITS[unit]);
  };

  return {
    mix: recipe.mix,
    draft,
    numbers,
    change: (part: Partial<CupDraft>) => setDraft((was) => ({ ...was, ...part })),
    shown,
    /** Sets one number of the recipe; the others follow. */
    turn: (part: number, unit: Unit, text: string) => {
      setTyping({ part, unit, text });
      const value = typed(text);
      if (value >= 0)
        setRecipe((was) =>
          withTurn(
            was,
            // What is typed is meant in the cup that is shown, also when it is rescaled at once.
            // While the last number was refused, the cup before it is still the one meant.
            { part, unit, value, of_ml: answer.data?.total_ml ?? was.turns.at(-1)?.of_ml },
            was === recipe ? settled : undefined,
          ),
        );
    },
    /** What is about to be typed into holds still: an answer on its way does not move it. */
    enterField: (part: number, unit: Unit) => {
      const text = shown(part, unit);
      if (sound && text !== '') setTyping({ part, unit, text });
    },
    leaveField: () => sound && setTyping(undefined),
    take: replace,
    add: (material: string) => edit((mix) => [...mix, { material, parts: 1 }]),
    remove: (part: number) => {
      const left = (settled ?? recipe.mix).filter((_, k) => k !== part);
      if (left.length > 0) replace(left);
    },
    /** Another material in the place of one, also while the server works out what was turned. */
    /** Another material in the place of one. */
    swap: (part: number, material: string) =>
      edit((mix) => mix.map((p, k) => (k === part ? { ...p, material } : p))),
    /** The mix as it stands; undefined while the server works out a turn. */
    settled,
    tub,
    /** Paints from a tub, or from a cup again. */
    fromTub: (id: string, mix?: Part[]) => {
      setTub(id);
      if (mix) replace(mix);
    },
    wrong,
    sound,
    ask,
    answer,
    /** Where the server refused something: `mix`, `total_ml`, ... */
    place,
    cup: answer.data,
    fresh,
    /** The cup that is kept beside this one, to compare. */
    beside,
    keepBeside: () => setBeside(answer.data),
    dropBeside: () => setBeside(undefined),
  };
}
