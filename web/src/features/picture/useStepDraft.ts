/** A step while it is being edited: texts as typed, checked when it is kept. */
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { fromField, toField } from '../../format/time';
import { typed } from '../../format/number';
import { plain } from '../../format/words';
import type { PartDraft } from '../../components/MixEditor';
import type { Step } from '../../components/stepEdits';

type Kind = Schemas['KindOut'];

export interface Draft {
  kind: Step['kind'];
  name: string;
  film: string;
  minutes: string;
  mix: PartDraft[];
  share: string;
  splittable?: boolean;
  needs: NonNullable<Step['needs']> | '';
  notBefore: string;
  gap: string;
}

export function useStepDraft(
  step: Step,
  kinds: Kind[],
  materials: Schemas['MaterialDoc'][],
  zone: string,
) {
  const fresh = step.id === '';
  const usual = (kind: Step['kind']) => kinds.find((k) => k.kind === kind);
  const firstMix = (): PartDraft[] => {
    const material = materials.find((m) => m.kind === 'paint' && !m.archived) ?? materials[0];
    return material ? [{ material: material.id, parts: '1' }] : [];
  };
  const [draft, setDraft] = useState<Draft>(() => {
    const kind = usual(step.kind);
    return {
      kind: step.kind,
      name: step.name ?? '',
      film: plain(step.wet_film_um ?? kind?.usual_film_um ?? 0),
      minutes: plain(fresh ? (kind?.usual_minutes ?? 30) : step.hands_on_min),
      mix: step.mix?.length
        ? step.mix.map((p) => ({ material: p.material, parts: plain(p.parts, 3) }))
        : firstMix(),
      share: plain((step.share_of_area ?? 1) * 100),
      splittable: step.splittable ?? undefined,
      needs: step.needs ?? '',
      notBefore: step.not_before ? toField(Date.parse(step.not_before), zone) : '',
      gap: typeof step.earliest_gap_min === 'number' ? plain(step.earliest_gap_min) : '',
    };
  });
  const kind = usual(draft.kind);
  const hasFilm = kind?.usual_film_um !== null;

  const change = (part: Partial<Draft>) => setDraft((was) => ({ ...was, ...part }));
  const changeKind = (next: Step['kind']) => {
    const to = usual(next);
    change({
      kind: next,
      film: plain(to?.usual_film_um ?? 0),
      minutes: plain(to?.usual_minutes ?? 30),
      splittable: undefined,
    });
  };

  const wrong: Partial<Record<'film' | 'minutes' | 'mix' | 'share' | 'gap', string>> = {};
  if (hasFilm && !(typed(draft.film) > 0)) wrong.film = 'Give a thickness above 0 µm.';
  if (!(typed(draft.minutes) >= 0)) wrong.minutes = 'Give the minutes of hands-on work.';
  if (!(typed(draft.share) > 0)) wrong.share = 'Give a share above 0 %.';
  if (draft.gap !== '' && !(typed(draft.gap) >= 0)) wrong.gap = 'Give minutes, or leave it open.';
  if (hasFilm) {
    const parts = draft.mix.map((p) => typed(p.parts));
    if (parts.some((p) => !(p >= 0))) wrong.mix = 'Give each part as a number of 0 or more.';
    else if (parts.reduce((a, b) => a + b, 0) <= 0)
      wrong.mix = 'The mix sums to nothing: give at least one part.';
  }

  /** The step as it would be kept. */
  const made = (): Step => ({
    ...step,
    kind: draft.kind,
    name: draft.name.trim() || undefined,
    hands_on_min: typed(draft.minutes),
    wet_film_um: hasFilm ? typed(draft.film) : undefined,
    mix: hasFilm ? draft.mix.map((p) => ({ material: p.material, parts: typed(p.parts) })) : [],
    share_of_area: typed(draft.share) / 100,
    splittable: draft.splittable,
    needs: draft.needs || undefined,
    not_before: draft.notBefore ? fromField(draft.notBefore, zone) : undefined,
    earliest_gap_min: draft.gap === '' ? undefined : typed(draft.gap),
  });
  return { draft, change, changeKind, kind, hasFilm, wrong, made, fresh };
}
