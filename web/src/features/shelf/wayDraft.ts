/** A step of a way of working while it is edited: numbers as typed. */
import type { Schemas } from '../../api/client';
import type { PartDraft } from '../../components/MixEditor';
import { faultOf, rangeOf } from '../../components/numbers';
import type { Catalogue } from '../../components/catalogue';
import { typed } from '../../format/number';
import { plain } from '../../format/words';

type Step = Schemas['StepDoc'];

export interface WayStepDraft {
  step: Step;
  film: string;
  minutes: string;
  gap: string;
  mix: PartDraft[];
}

export const wayStepDraft = (step: Step): WayStepDraft => ({
  step,
  film: typeof step.wet_film_um === 'number' ? plain(step.wet_film_um) : '',
  minutes: plain(step.hands_on_min),
  gap: typeof step.earliest_gap_min === 'number' ? plain(step.earliest_gap_min) : '',
  mix: (step.mix ?? []).map((p) => ({ material: p.material, parts: plain(p.parts, 3) })),
});

/** The numbers of a step in a way. */
export const NUMBERS = {
  film: { field: 'wet_film_um', label: 'Film' },
  minutes: { field: 'hands_on_min', label: 'Hands-on' },
  gap: { field: 'earliest_gap_min', label: 'Wait', open: true },
} as const;

/** What is wrong with a number of a step; undefined when nothing is. */
export const wayStepFault = (
  catalogue: Catalogue,
  draft: WayStepDraft,
  key: keyof typeof NUMBERS,
): string | undefined =>
  key === 'film' && draft.mix.length === 0
    ? undefined
    : faultOf(NUMBERS[key], rangeOf(catalogue, NUMBERS[key].field), draft[key]);

/** Whether the parts of a step make a mix. */
export function soundMix(draft: WayStepDraft): boolean {
  const parts = draft.mix.map((p) => typed(p.parts));
  return parts.length === 0 || (parts.every((p) => p >= 0) && parts.some((p) => p > 0));
}

/** The steps as they would be kept. */
export const wayStepsMade = (all: WayStepDraft[]): Step[] =>
  all.map((draft) => ({
    ...draft.step,
    hands_on_min: typed(draft.minutes),
    wet_film_um: draft.film === '' ? undefined : typed(draft.film),
    earliest_gap_min: draft.gap === '' ? undefined : typed(draft.gap),
    mix: draft.mix.map((p) => ({ material: p.material, parts: typed(p.parts) })),
  }));
