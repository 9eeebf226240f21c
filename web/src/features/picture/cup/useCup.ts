/** A cup while it is being mixed: parts as typed, everything else from the server. */
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import type { Schemas } from '../../../api/client';
import { cupQuery } from '../../../api/queries';
import { typed } from '../../../format/number';
import { plain } from '../../../format/words';
import type { PartDraft } from '../useStepDraft';
import type { Step } from '../stepEdits';

export interface CupDraft {
  mix: PartDraft[];
  film: string;
  share: string;
  loss: string;
  measure: number;
  have: string;
  haveMl: string;
}

/** What the bench can measure [ml]. */
export const MEASURES = [
  { ml: 0.05, word: 'a drop' },
  { ml: 0.5, word: 'half a millilitre' },
  { ml: 1, word: 'a millilitre' },
] as const;

const asDraft = (mix: Schemas['PartDoc'][]): PartDraft[] =>
  mix.map((p) => ({ material: p.material, parts: plain(p.parts, 3) }));

/** The mix with part `i` at `percent` of the cup; the others share the rest as before. */
export function withPercent(mix: PartDraft[], i: number, percent: number): PartDraft[] {
  const others = mix.reduce((sum, p, k) => (k === i ? sum : sum + typed(p.parts)), 0);
  const room = 100 - percent;
  return mix.map((p, k) => ({
    ...p,
    parts: plain(
      k === i ? percent : others > 0 ? (typed(p.parts) / others) * room : room / (mix.length - 1),
      3,
    ),
  }));
}

export function useCup(id: string, step: Step) {
  const [draft, setDraft] = useState<CupDraft>(() => ({
    mix: asDraft(step.mix ?? []),
    film: plain(step.wet_film_um ?? 40),
    share: plain((step.share_of_area ?? 1) * 100),
    loss: '15',
    measure: 0.5,
    have: '',
    haveMl: '',
  }));
  const [beside, setBeside] = useState<Schemas['CupOut']>();
  const parts = draft.mix.map((p) => typed(p.parts));
  const wrong: Partial<Record<'mix' | 'film' | 'share' | 'loss' | 'have', string>> = {};
  if (parts.some((p) => !(p >= 0))) wrong.mix = 'Give each part as a number of 0 or more.';
  else if (!(parts.reduce((a, b) => a + b, 0) > 0))
    wrong.mix = 'The mix sums to nothing: give at least one part.';
  if (!(typed(draft.film) > 0)) wrong.film = 'Give a thickness above 0 µm.';
  if (!(typed(draft.share) > 0)) wrong.share = 'Give a share above 0 %.';
  if (!(typed(draft.loss) >= 0 && typed(draft.loss) < 100))
    wrong.loss = 'Give a loss from 0 to under 100 %.';
  if (draft.have && draft.haveMl !== '' && !(typed(draft.haveMl) > 0))
    wrong.have = 'Give the millilitres that are left.';
  const sound = Object.keys(wrong).length === 0;

  const ask: Schemas['CupAsk'] = {
    mix: draft.mix.map((p, i) => ({ material: p.material, parts: parts[i] ?? 0 })),
    wet_film_um: typed(draft.film),
    share_of_area: typed(draft.share) / 100,
    loss: typed(draft.loss) / 100,
    measure_ml: draft.measure,
    ...(draft.have && typed(draft.haveMl) > 0
      ? { have: { material: draft.have, ml: typed(draft.haveMl) } }
      : {}),
  };
  // Typing stays quick: the question follows the keys.
  const asked = useDeferredValue(JSON.stringify(ask));
  const answer = useQuery({
    ...cupQuery(id, JSON.parse(asked) as Schemas['CupAsk']),
    enabled: sound,
  });
  return {
    draft,
    change: (part: Partial<CupDraft>) => setDraft((was) => ({ ...was, ...part })),
    take: (mix: Schemas['PartDoc'][]) => setDraft((was) => ({ ...was, mix: asDraft(mix) })),
    wrong,
    sound,
    ask,
    answer,
    cup: answer.data,
    /** Whether the answer is the one to the mix as it stands: only then may its offers be taken. */
    fresh: asked === JSON.stringify(ask) && !answer.isPlaceholderData,
    /** The cup that is kept beside this one, to compare. */
    beside,
    keepBeside: () => setBeside(answer.data),
    dropBeside: () => setBeside(undefined),
  };
}
