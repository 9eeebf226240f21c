/** A step while it is being edited: texts as typed, checked when it is kept. */
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { fromField, toField } from '../../format/time';
import { useNumbers } from '../../components/numbers';
import { typed } from '../../format/number';
import { plain } from '../../format/words';
import type { PartDraft } from '../../components/MixEditor';
import type { Step } from '../../components/stepEdits';

type Kind = Schemas['KindOut'];

export interface Draft {
  kind: Step['kind'];
  name: string;
  section: string;
  mix: PartDraft[];
  splittable?: boolean;
  needs: NonNullable<Step['needs']> | '';
  notBefore: string;
}

/** The numbers of a step. */
const NUMBERS = {
  film: { field: 'wet_film_um', label: 'Wet film' },
  minutes: { field: 'hands_on_min', label: 'Hands-on' },
  share: { field: 'share_of_area', label: 'Share of the picture' },
  gap: {
    field: 'earliest_gap_min',
    label: 'Shortest wait',
    open: true,
    help: 'May be left open.',
  },
} as const;

/** A mix as it stands in the fields. */
export const mixDraft = (mix: Step['mix']): PartDraft[] =>
  (mix ?? []).map((p) => ({ material: p.material, parts: plain(p.parts, 3) }));

/** `begins` is a step of every kind as it usually begins on the picture. */
export function useStepDraft(
  step: Step,
  kinds: Kind[],
  begins: Schemas['UsualStep'][],
  zone: string,
) {
  const fresh = step.id === '';
  const usual = (kind: Step['kind']) => kinds.find((k) => k.kind === kind);
  const begin = (kind: Step['kind']) => begins.find((b) => b.step.kind === kind);
  const minutesOf = (kind: Step['kind']) =>
    begin(kind)?.step.hands_on_min ?? usual(kind)?.usual_minutes;
  const [draft, setDraft] = useState<Draft>(() => {
    return {
      kind: step.kind,
      name: step.name ?? '',
      section: step.section ?? '',
      mix: mixDraft(step.mix?.length ? step.mix : begin(step.kind)?.step.mix),
      splittable: step.splittable ?? undefined,
      needs: step.needs ?? '',
      notBefore: step.not_before ? toField(Date.parse(step.not_before), zone) : '',
    };
  });
  const first = usual(step.kind);
  const numbers = useNumbers(NUMBERS, {
    film: step.wet_film_um ?? first?.usual_film_um,
    minutes: fresh ? minutesOf(step.kind) : step.hands_on_min,
    share: step.share_of_area ?? (fresh ? begin(step.kind)?.step.share_of_area : undefined) ?? 1,
    gap: step.earliest_gap_min,
  });
  const kind = usual(draft.kind);
  const hasFilm = kind?.usual_film_um !== null;

  const change = (part: Partial<Draft>) => setDraft((was) => ({ ...was, ...part }));
  const changeKind = (next: Step['kind']) => {
    const to = usual(next);
    const begun = begin(next)?.step;
    change({ kind: next, splittable: undefined, mix: mixDraft(begun?.mix) });
    numbers.fill({
      film: to?.usual_film_um,
      minutes: minutesOf(next),
      share: begun?.share_of_area ?? 1,
    });
  };

  const wrong: Partial<Record<keyof typeof NUMBERS | 'mix', string>> = { ...numbers.wrong };
  if (!hasFilm) delete wrong.film;
  if (hasFilm) {
    const parts = draft.mix.map((p) => typed(p.parts));
    if (parts.length === 0) wrong.mix = 'Nothing on the shelf fits: choose what goes into the cup.';
    else if (parts.some((p) => !(p >= 0))) wrong.mix = 'Give each part as a number of 0 or more.';
    else if (parts.reduce((a, b) => a + b, 0) <= 0)
      wrong.mix = 'The mix sums to nothing: give at least one part.';
  }

  /** The step as it would be kept. */
  const made = (): Step => ({
    ...step,
    kind: draft.kind,
    name: draft.name.trim() || undefined,
    hands_on_min: numbers.value('minutes'),
    wet_film_um: hasFilm ? numbers.value('film') : undefined,
    mix: hasFilm ? draft.mix.map((p) => ({ material: p.material, parts: typed(p.parts) })) : [],
    share_of_area: numbers.value('share'),
    section: (kind?.section && draft.section.trim()) || undefined,
    splittable: draft.splittable,
    needs: draft.needs || undefined,
    not_before: draft.notBefore ? fromField(draft.notBefore, zone) : undefined,
    earliest_gap_min: numbers.open('gap'),
  });
  /** Where a new step belongs. */
  const place = fresh ? begin(draft.kind)?.place : undefined;
  return { draft, numbers, change, changeKind, kind, hasFilm, wrong, made, fresh, place };
}
