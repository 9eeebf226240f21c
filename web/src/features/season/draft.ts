/** Changes that are tried beside the present plan: whole settings and whole pictures. */
import type { Schemas } from '../../api/client';
import type { Change } from '../../components/stepEdits';

export type Draft = Schemas['Draft'];

export interface NamedDraft {
  /** What is tried, in words; also what undo says. */
  label: string;
  draft: Draft;
}

type Picture = Schemas['PictureDoc'];
type Settings = Schemas['StudioDoc'];

/** The draft with one more picture changed; a picture that the draft has already is changed on. */
export async function withPicture(
  draft: Draft | undefined,
  stored: { id: string; version: number; picture: Picture },
  change: Change,
): Promise<Draft> {
  const known = draft?.pictures?.find((p) => p.id === stored.id);
  const others = (draft?.pictures ?? []).filter((p) => p.id !== stored.id);
  const { id, version } = known ?? stored;
  return {
    ...draft,
    pictures: [...others, { id, version, picture: await change(known?.picture ?? stored.picture) }],
  };
}

/** The draft with other settings of the studio. */
export function withSettings(
  draft: Draft | undefined,
  stored: { version: number; studio: Settings },
  change: (studio: Settings) => Settings,
): Draft {
  const known = draft?.studio ?? { version: stored.version, studio: stored.studio };
  return {
    ...draft,
    pictures: draft?.pictures ?? [],
    studio: { ...known, studio: change(known.studio) },
  };
}

/** A picture with one step changed. */
export const withStep =
  (id: string, change: (step: Schemas['StepDoc']) => Schemas['StepDoc']) =>
  (picture: Picture): Picture => ({
    ...picture,
    steps: (picture.steps ?? []).map((s) => (s.id === id ? change(s) : s)),
  });

export interface Consequence {
  id: string;
  title: string;
  before: string | null;
  after: string | null;
  /** Minutes by which it is finished later; negative: earlier. Undefined when one of the two is not. */
  later?: number;
  lateBefore: number;
  lateAfter: number;
}

/** What becomes of each picture that is finished at another time, the worst first. */
export function consequences(now: Schemas['Season'], then: Schemas['Season']): Consequence[] {
  return now.pictures
    .flatMap((was) => {
      const is = then.pictures.find((p) => p.id === was.id);
      if (!is || is.finish === was.finish) return [];
      const later =
        was.finish && is.finish
          ? (Date.parse(is.finish) - Date.parse(was.finish)) / 60_000
          : undefined;
      return [
        {
          id: was.id,
          title: was.title,
          before: was.finish,
          after: is.finish,
          later,
          lateBefore: was.days_late ?? 0,
          lateAfter: is.days_late ?? 0,
        },
      ];
    })
    .sort((a, b) => (b.later ?? Infinity) - (a.later ?? Infinity));
}
