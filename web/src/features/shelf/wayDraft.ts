/** A step of a way of working while it is edited: numbers as typed. */
import type { Schemas } from '../../api/client';
import type { PartDraft } from '../../components/MixEditor';
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

/** Whether the numbers make a step. */
export function soundWayStep(draft: WayStepDraft): boolean {
  const parts = draft.mix.map((p) => typed(p.parts));
  return (
    typed(draft.minutes) >= 0 &&
    (draft.gap === '' || typed(draft.gap) >= 0) &&
    (parts.length === 0 ||
      (typed(draft.film) > 0 && parts.every((p) => p >= 0) && parts.some((p) => p > 0)))
  );
}

/** The steps as they would be kept. One that stood on a step that was taken out stands on the one
 * before it. */
export const wayStepsMade = (all: WayStepDraft[]): Step[] =>
  all.map((draft) => {
    const kept = draft.step.after?.every((id) => all.some((o) => o.step.id === id));
    return {
      ...draft.step,
      hands_on_min: typed(draft.minutes),
      wet_film_um: draft.film === '' ? undefined : typed(draft.film),
      earliest_gap_min: draft.gap === '' ? undefined : typed(draft.gap),
      mix: draft.mix.map((p) => ({ material: p.material, parts: typed(p.parts) })),
      after: kept ? draft.step.after : undefined,
    };
  });
